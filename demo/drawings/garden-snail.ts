import type { Line, WidthStop } from '#core/model/model'
import { newLine } from '#core/model/create'
import { reversePath } from '../../core/geometry/path'
import { hatch } from '../kit/hatch'
import { leaf, SMOOTH } from '../kit/leaf'
import { shaded } from '../kit/light'
import type { Front, Part } from '../kit/overlap'
import { behind, front, stacked } from '../kit/overlap'
import type { Point } from '../kit/spline'
import { around, through } from '../kit/spline'
import type { Foot } from '../kit/tube'
import { tube, tubeLines } from '../kit/tube'
import { floating, outward, weight } from '../kit/weights'

const CENTRE: Point = [412, 236]

/** A place on the shell: `turns` from the mouth inwards. */
function whorl(turns: number): Point {
  const r = 132 * 0.6 ** turns
  const a = 1.95 + turns * 2 * Math.PI
  return [CENTRE[0] + r * 1.06 * Math.cos(a), CENTRE[1] + 4 * turns + r * 0.98 * Math.sin(a)]
}

const coil = (from: number, to: number): Point[] => {
  const count = Math.round((to - from) / 0.125)
  return Array.from({ length: count + 1 }, (_, i) => whorl(from + ((to - from) * i) / count))
}

/** A ridge across the shell, from one whorl towards the next, bowed along the growth. */
function ridge(turns: number, size: number): Line {
  const outer = whorl(turns)
  const inner = whorl(turns + 1)
  const mid = whorl(turns + 0.04)
  const at = (u: number): Point => [outer[0] + (inner[0] - outer[0]) * u, outer[1] + (inner[1] - outer[1]) * u]
  const bow: Point = [at(0.45)[0] + (mid[0] - outer[0]) * 0.5, at(0.45)[1] + (mid[1] - outer[1]) * 0.5]
  return newLine(through(outer, bow, at(0.8)), { weight: weight(size, [0, 1], [0.4, 0.7], [1, 0]) })
}

/** The spiral runs out to nothing in the middle. */
const alongShell = (u: number): number =>
  (0.76 + 0.24 * Math.min(1, u / 0.06)) * (1 - 0.75 * u * u - Math.max(0, u - 0.9) * 2.4)

function shell(): Part {
  const belly: Point[] = [whorl(0.625), [526, 284], [508, 326], [464, 358]]
  // One sweep, so that its halves have one way where they come together.
  const { nodes } = through(...belly, ...coil(0, 3.5))
  const under = { closed: false, nodes: nodes.slice(0, belly.length + 1) }
  const spiral = { closed: false, nodes: nodes.slice(belly.length) }
  const swept = shaded(spiral, 10, { outside: 'left', thin: 0.4, stops: 18, fade: alongShell })
  const [{ left, right }] = swept.stops as [WidthStop]
  const hidden = front(through(...coil(0, 0.625)), under)
  const crease = through([356, 338], [408, 350], [458, 330], [478, 304])
  return {
    layer: 'Shell',
    lines: [
      newLine(spiral, { weight: swept }),
      newLine(under, {
        weight: weight(10.5, [0, 0.4], [0.35, 0.9], [0.62, 1], [1, ((left + right) / 2) * (swept.size / 10.5)]),
      }),
      newLine(crease, { weight: floating(3.4) }),
      ...[0.14, 0.25, 0.36, 0.47, 0.57, 1.1, 1.27, 1.44].map((t, i) => ridge(t, i < 5 ? 4 : 3.2)),
    ],
    front: hidden,
  }
}

/** Head, neck, foot and tail; the shell lies in front. */
function body(): { part: Part; outline: Front } {
  const neck = through([372, 340], [318, 330], [262, 288], [226, 254], [200, 244])
  const head = through([200, 244], [156, 247], [140, 274], [152, 300])
  const chest = through([152, 300], [172, 344], [166, 392], [134, 428])
  const sole = through([134, 428], [240, 424], [420, 427], [676, 431])
  const tail = through([470, 330], [552, 368], [606, 408], [676, 431])
  return {
    part: {
      layer: 'Body',
      lines: [
        newLine(neck, { weight: weight(5.2, [0, 0.8], [0.5, 0.7], [1, 0.8]) }),
        newLine(head, { weight: shaded(head, 6.6, { outside: 'right', thin: 0.6, stops: 4 }) }),
        newLine(chest, { weight: weight(8.4, [0, 0.6], [0.5, 1], [0.85, 0.7], [1, 0.14]) }),
        newLine(sole, { weight: weight(9, [0, 0.14], [0.06, 0.6], [0.35, 1], [0.75, 0.7], [1, 0.1]) }),
        newLine(tail, { weight: weight(5.6, [0, 0.9], [0.5, 0.8], [1, 0.1]) }),
        newLine(through([204, 399], [300, 393], [440, 396], [586, 414]), { weight: floating(3.8, 0.4) }),
        newLine(through([152, 300], [166, 297], [178, 286]), { weight: outward(4.4) }),
        newLine(through([141, 277], [130, 284], [112, 280]), { weight: outward(4.6) }),
        newLine(through([148, 293], [137, 303], [118, 304]), { weight: outward(4.4) }),
        ...hatch(
          [
            [184, 326],
            [186, 360],
            [172, 398],
          ],
          [
            [214, 316],
            [220, 352],
            [208, 386],
          ],
          5,
          2.8,
          -0.1,
        ),
        ...hatch(
          [
            [236, 292],
            [278, 322],
          ],
          [
            [250, 308],
            [290, 339],
          ],
          2,
          2.4,
          0.14,
        ),
        ...hatch(
          [
            [550, 386],
            [584, 406],
          ],
          [
            [530, 384],
            [564, 404],
          ],
          2,
          2.4,
          0.14,
        ),
      ],
    },
    outline: front(neck, head, chest, sole, reversePath(tail)),
  }
}

/** A horn with its eye. */
function horn(foot: Foot, ...spine: Point[]): Part[] {
  const [x, y] = spine[spine.length - 1]!
  const eye = around([x, y - 8], [x + 8, y], [x, y + 8], [x - 8, y])
  const t = tube(spine, 7, 3.8)
  const glint = newLine(around([x + 0.5, y - 2], [x + 2.5, y], [x + 0.5, y + 2], [x - 1.5, y]), {
    weight: weight(4, [0, 1]),
  })
  return [
    {
      layer: 'Horns',
      lines: [newLine(eye, { weight: shaded(eye, 4.6, { outside: 'left', stops: 4, thin: 0.6 }) }), glint],
      front: front(eye),
    },
    { layer: 'Horns', lines: tubeLines(t, 4.8, 'right', foot), front: t.front },
  ]
}

/** A stem with two leaves, growing behind the tail. */
function plant(): Part[] {
  const stem = tube(
    [
      [632, 424],
      [628, 340],
      [618, 250],
      [612, 196],
    ],
    4,
    2.6,
  )
  const upper = leaf({
    rib: [
      [612, 198],
      [596, 130],
      [608, 44],
    ],
    left: 34,
    right: 36,
    margin: SMOOTH,
    veins: [
      [0.18, 0.36],
      [0.42, 0.6],
    ],
    shade: 'right',
    size: 4.8,
  })
  const side = leaf({
    rib: [
      [624, 302],
      [662, 270],
      [694, 196],
    ],
    left: 24,
    right: 26,
    margin: SMOOTH,
    veins: [[0.3, 0.52]],
    shade: 'right',
    size: 4.4,
  })
  return [
    { layer: 'Leaf', lines: tubeLines(stem, 4.8, 'right'), front: stem.front },
    { layer: 'Leaf', ...upper },
    { layer: 'Leaf', ...side },
  ]
}

/** Blades of grass, each a single stroke from the ground. */
const grass = (...blades: Point[][]): Line[] => blades.map((b) => newLine(through(...b), { weight: outward(4.8) }))

/** A snail on its way past a leaf. */
export function gardenSnail(): { name: string; layers: { name: string; lines: Line[] }[] } {
  const { part, outline } = body()
  const far = horn('tucked', [172, 250], [146, 206], [118, 172])
  const layers = stacked([
    ...horn('open', [206, 266], [190, 204], [180, 152]),
    shell(),
    part,
    ...far.map((p) => ({ ...p, lines: behind(p.lines, [outline]) })),
    { layer: 'Ground', lines: [], front: outline },
    ...plant(),
    {
      layer: 'Ground',
      lines: [
        newLine(through([56, 432], [220, 440], [440, 440], [700, 441]), { weight: floating(4, 0.5) }),
        newLine(through([452, 453], [530, 456], [590, 451]), { weight: floating(3.2) }),
        ...grass(
          [
            [660, 429],
            [672, 400],
            [698, 376],
          ],
          [
            [649, 427],
            [652, 388],
            [666, 344],
          ],
          [
            [84, 434],
            [76, 406],
            [52, 384],
          ],
          [
            [94, 435],
            [98, 398],
            [88, 362],
          ],
        ),
      ],
    },
  ])
  return { name: 'Garden snail', layers }
}
