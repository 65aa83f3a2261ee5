import type { Line } from '../../core/drawing/model'
import { newLine } from '../../core/drawing/create'
import { hatch, leaf } from '../kit/leaf'
import type { Point } from '../kit/spline'
import { through } from '../kit/spline'
import { between, floating, outward, weight } from '../kit/weights'

const moved = (dx: number, dy: number, scale: number, tilt: number) => {
  const [c, s] = [Math.cos(tilt) * scale, Math.sin(tilt) * scale]
  return (x: number, y: number): Point => [dx + x * c - y * s, dy + x * s + y * c]
}

/** One root hanging from its crown at the origin: light from the upper left, so the right side is heavy. */
function root(dx: number, dy: number, scale: number, tilt: number, tail: readonly [number, number]): Line[] {
  const p = moved(dx, dy, scale, tilt)
  const at = (...points: [number, number][]): Point[] => points.map(([x, y]) => p(x, y))
  const tip = p(tail[0], tail[1])
  return [
    // The lit side, from the crown down into the tail.
    newLine(through(...at([-13, 3], [-45, 21], [-57, 60], [-38, 102], [-11, 130]), p(tail[0] * 0.45 - 2, 160), tip), {
      weight: weight(4.6, [0, 0.6], [0.2, 0.75], [0.45, 0.8], [0.7, 1], [0.9, 0.6], [1, 0]),
    }),
    // The side in shadow.
    newLine(through(...at([13, 2], [46, 19], [60, 58], [42, 101], [13, 130]), p(tail[0] * 0.5 + 5, 160), tip), {
      weight: weight(10, [0, 0.3], [0.22, 0.7], [0.44, 1], [0.62, 0.86], [0.8, 0.4], [1, 0]),
    }),
    newLine(through(...at([-16, 5], [-5, 10], [7, 9], [17, 4])), { weight: between(4.2, 0.6, 0.4) }),
    newLine(through(...at([-38, 34], [-44, 56], [-37, 82])), { weight: floating(3.6, 0.4) }),
    ...hatch(at([45, 42], [50, 60], [45, 82], [34, 102]), at([17, 56], [15, 74], [10, 94], [4, 110]), 4, 2.6, -0.16),
    newLine(through(p(tail[0] * 0.5 + 5, 160), p(tail[0] * 0.5 + 18, 168), p(tail[0] * 0.5 + 24, 182)), { weight: outward(3) }),
  ]
}

/** A stalk as its two edges, from the crown to the foot of a blade. */
function stalk(left: readonly Point[], right: readonly Point[]): Line[] {
  return [
    newLine(through(...left), { weight: weight(4, [0, 0.9], [0.5, 0.6], [1, 0.7]) }),
    newLine(through(...right), { weight: weight(6, [0, 0.8], [0.4, 1], [1, 0.6]) }),
  ]
}

/** Three roots tied by their stalks, leaves fanned out above. */
export function radishBunch(): { name: string; layers: { name: string; lines: Line[] }[] } {
  return {
    name: 'Radish bunch',
    layers: [
      {
        name: 'Roots',
        lines: [...root(243, 290, 0.98, 0.24, [-16, 205]), ...root(362, 303, 1.08, -0.02, [10, 192]), ...root(478, 288, 0.95, -0.3, [22, 210])],
      },
      {
        name: 'Stalks and string',
        lines: [
          ...stalk([[237, 288], [266, 262], [302, 240], [322, 231]], [[253, 294], [280, 270], [312, 250], [333, 238]]),
          ...stalk([[353, 302], [353, 276], [352, 238]], [[371, 303], [369, 276], [366, 238]]),
          ...stalk([[469, 291], [440, 266], [408, 246], [387, 237]], [[486, 286], [458, 258], [424, 236], [400, 229]]),
          newLine(through([322, 204], [340, 211], [362, 213], [384, 210], [398, 203]), { weight: between(5, 0.55, 0.6) }),
          newLine(through([315, 226], [336, 236], [361, 240], [388, 236], [406, 225]), { weight: between(5, 0.55, 0.6) }),
          newLine(through([396, 228], [412, 240], [434, 238], [430, 224], [412, 222], [398, 226]), { weight: between(3.6, 0.4, 0.7) }),
          newLine(through([398, 224], [416, 214], [432, 200], [420, 194], [406, 206], [398, 221]), { weight: between(3.6, 0.4, 0.7) }),
          newLine(through([398, 228], [410, 252], [432, 262], [450, 258]), { weight: outward(3.6) }),
        ],
      },
      {
        name: 'Leaves',
        lines: [
          ...leaf({ rib: [[334, 207], [292, 160], [222, 116], [128, 108]], left: 42, right: 54, foot: 0.2, lobes: 4, depth: 0.3, veins: 2, shade: 'left', widest: 0.6 }),
          ...leaf({ rib: [[360, 212], [358, 156], [350, 92], [328, 18]], left: 40, right: 46, foot: 0.2, lobes: 4, depth: 0.28, veins: 2, shade: 'right', widest: 0.6 }),
          ...leaf({ rib: [[386, 208], [432, 156], [502, 110], [594, 94]], left: 50, right: 46, foot: 0.2, lobes: 4, depth: 0.3, veins: 2, shade: 'right', widest: 0.6 }),
        ],
      },
    ],
  }
}
