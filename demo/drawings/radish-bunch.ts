import type { Line } from '#core/model/model'
import { newLine } from '#core/model/create'
import { reversePath } from '../../core/geometry/path'
import { hatch } from '../kit/hatch'
import type { LeafShape } from '../kit/leaf'
import { leaf, LOBED } from '../kit/leaf'
import type { Part } from '../kit/overlap'
import { front, stacked } from '../kit/overlap'
import type { Point } from '../kit/spline'
import { around, joined, through } from '../kit/spline'
import { tube, tubeLines } from '../kit/tube'
import { between, floating, outward, weight } from '../kit/weights'

const moved = (dx: number, dy: number, scale: number, tilt: number) => {
  const [c, s] = [Math.cos(tilt) * scale, Math.sin(tilt) * scale]
  return (x: number, y: number): Point => [dx + x * c - y * s, dy + x * s + y * c]
}

/** One root hanging from its crown at the origin: light from the upper left, so the right side is heavy. */
function root(dx: number, dy: number, scale: number, tilt: number, tail: readonly [number, number]): Part {
  const p = moved(dx, dy, scale, tilt)
  const at = (...points: [number, number][]): Point[] => points.map(([x, y]) => p(x, y))
  const tip = p(tail[0], tail[1])
  const lit = through(...at([-13, 2], [-40, 16], [-57, 56], [-42, 100], [-14, 134]), p(tail[0] * 0.45 - 3, 164), tip)
  const dark = through(...at([13, 2], [42, 15], [60, 55], [46, 99], [16, 133]), p(tail[0] * 0.5 + 4, 164), tip)
  const rim = through(...at([-13, 2], [-6, 9], [5, 9], [13, 2]))
  return {
    layer: 'Roots',
    lines: [
      newLine(lit, { weight: weight(4.8, [0, 0.7], [0.2, 0.8], [0.45, 0.8], [0.7, 1], [0.9, 0.6], [1, 0]) }),
      newLine(dark, { weight: weight(10.5, [0, 0.36], [0.22, 0.7], [0.44, 1], [0.62, 0.86], [0.8, 0.4], [1, 0]) }),
      newLine(rim, { weight: between(4.4, 0.6, 0.7) }),
      newLine(through(...at([-36, 34], [-43, 57], [-37, 82])), { weight: floating(4, 0.4) }),
      ...hatch(at([48, 52], [49, 66], [41, 84]), at([25, 62], [21, 82], [13, 104]), 2, 3.2, -0.18),
      newLine(through(p(tail[0] * 0.5 + 4, 164), p(tail[0] * 0.5 + 16, 171), p(tail[0] * 0.5 + 22, 186)), {
        weight: outward(3),
      }),
    ],
    front: front(lit, reversePath(dark), reversePath(rim)),
  }
}

/** The stalk between a crown and the string. */
function stalk(...spine: Point[]): Part {
  const t = tube(spine, 9, 7.5)
  return { layer: 'Stalks', lines: tubeLines(t, 6.4, 'right'), front: t.front }
}

/** A leaf on its stalk, from the string to the foot of the blade. */
function stalked(foot: readonly Point[], shape: Omit<LeafShape, 'margin' | 'size' | 'veins'>): Part[] {
  const t = tube([...foot, shape.rib[0]!], 7.5, 2.6)
  return [
    { layer: 'Leaves', lines: tubeLines(t, 6, shape.shade), front: t.front },
    {
      layer: 'Leaves',
      ...leaf({
        ...shape,
        margin: LOBED,
        size: 5.4,
        veins: [
          [0.2, 0.42],
          [0.42, 0.72],
        ],
      }),
    },
  ]
}

/** The string round the bundle, with a knot at its side, a bow and an end. */
function string(): Part[] {
  const turn = joined(
    through([394, 198], [362, 204], [331, 198]),
    through([331, 198], [329, 206], [331, 213]),
    through([331, 213], [362, 219], [394, 211]),
  )
  const knot = around([385, 206], [395, 199], [405, 207], [395, 216])
  const tied = [
    newLine(through([400, 205], [424, 186], [450, 180], [448, 196], [424, 206], [401, 208]), {
      weight: between(3.8, 0.5, 0.6),
    }),
    newLine(through([400, 209], [428, 212], [448, 224], [436, 232], [416, 222], [398, 211]), {
      weight: between(3.8, 0.45, 0.6),
    }),
    newLine(through([394, 213], [407, 230], [402, 251]), { weight: outward(3.6) }),
  ]
  return [
    { layer: 'String', lines: [newLine(knot, { weight: weight(4, [0, 0.8], [0.5, 1]) })], front: front(knot) },
    { layer: 'String', lines: [newLine(turn, { weight: between(4, 0.5, 0.8) }), ...tied], front: front(turn) },
  ]
}

/** Three roots tied by their stalks, leaves fanned out above. */
export function radishBunch(): { name: string; layers: { name: string; lines: Line[] }[] } {
  const layers = stacked([
    ...string(),
    root(362, 304, 1.08, -0.02, [8, 196]),
    root(256, 288, 0.98, 0.24, [-14, 206]),
    root(466, 288, 0.96, -0.28, [20, 208]),
    stalk([362, 312], [361, 272], [361, 210]),
    stalk([254, 297], [284, 262], [344, 208]),
    stalk([468, 297], [438, 262], [378, 208]),
    ...stalked(
      [
        [361, 210],
        [359, 172],
      ],
      {
        rib: [
          [357, 148],
          [352, 92],
          [334, 20],
        ],
        left: 50,
        right: 54,
        shade: 'right',
      },
    ),
    ...stalked(
      [
        [345, 210],
        [322, 172],
      ],
      {
        rib: [
          [298, 150],
          [236, 112],
          [136, 100],
        ],
        left: 48,
        right: 48,
        shade: 'left',
      },
    ),
    ...stalked(
      [
        [377, 210],
        [400, 172],
      ],
      {
        rib: [
          [424, 150],
          [488, 112],
          [588, 92],
        ],
        left: 48,
        right: 48,
        shade: 'right',
      },
    ),
  ])
  return { name: 'Radish bunch', layers }
}
