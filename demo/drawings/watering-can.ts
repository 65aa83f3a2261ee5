import type { Line } from '#core/model/model'
import { newLine } from '#core/model/create'
import { reversePath } from '../../core/geometry/path'
import { hatch } from '../kit/hatch'
import { leaf, SMOOTH } from '../kit/leaf'
import { shaded } from '../kit/light'
import type { Part } from '../kit/overlap'
import { front, stacked } from '../kit/overlap'
import type { Inked } from '../kit/inked'
import type { Point } from '../kit/spline'
import { around, ellipse, joined, through } from '../kit/spline'
import { tube, tubeLines } from '../kit/tube'
import { between, floating, weight } from '../kit/weights'

/** The way that the spout points, and across it. */
const OUT = { x: -0.475, y: -0.88 }
const ACROSS = { x: 0.88, y: -0.475 }
const MOUTH: Point = [150, 170]

/** A place before the mouth of the spout: so far out, and so far across. */
const atMouth = (out: number, across: number): Point => [
  MOUTH[0] + OUT.x * out + ACROSS.x * across,
  MOUTH[1] + OUT.y * out + ACROSS.y * across,
]

/** The head that breaks the water into drops: a cone with a face full of holes. */
function rose(): Part[] {
  const [fx, fy] = atMouth(40, 0)
  const face = ellipse(fx, fy, 52, 19, Math.atan2(ACROSS.y, ACROSS.x))
  const holes = (
    [
      [46, -30],
      [50, -8],
      [48, 14],
      [43, 34],
      [36, -16],
      [34, 8],
      [36, -38],
    ] as const
  ).map(([out, across]) => {
    const [x, y] = atMouth(out, across)
    return newLine(around([x, y - 1.5], [x + 1.9, y], [x, y + 1.5], [x - 1.9, y]), { weight: weight(3.4, [0, 1]) })
  })
  const [a, b] = [
    through(atMouth(-6, -15), atMouth(16, -28), atMouth(38, -50)),
    through(atMouth(-6, 15), atMouth(16, 28), atMouth(38, 50)),
  ]
  const collar = through(atMouth(-6, -15), atMouth(-10, 0), atMouth(-6, 15))
  return [
    {
      layer: 'Spout',
      lines: [newLine(face, { weight: shaded(face, 6, { outside: 'left', stops: 6, thin: 0.55 }) }), ...holes],
      front: front(face),
    },
    {
      layer: 'Spout',
      lines: [
        newLine(a, { weight: between(5.2, 0.5, 0.8) }),
        newLine(b, { weight: between(6.4, 0.5, 0.8) }),
        newLine(collar, { weight: between(4.6, 0.5, 0.9) }),
      ],
      front: front(a, reversePath(b)),
    },
  ]
}

/** The can: a drum with two hoops, a rim, and a leaf painted on it. */
function can(): { inner: Part; drum: Part } {
  const rim = ellipse(426, 188, 108, 28)
  const lip = through([330, 191], [366, 178], [426, 172], [486, 178], [522, 191])
  const left = through([318, 190], [310, 300], [302, 428])
  const foot = through([302, 428], [340, 448], [426, 458], [512, 448], [552, 428])
  const right = through([534, 190], [544, 300], [552, 428])
  const hoops = [
    through([314, 244], [352, 264], [426, 274], [500, 264], [538, 244]),
    through([306, 384], [344, 404], [426, 414], [508, 404], [547, 384]),
  ]
  const motif = leaf({
    rib: [
      [400, 398],
      [430, 346],
      [446, 288],
    ],
    left: 36,
    right: 37,
    margin: SMOOTH,
    veins: [
      [0.2, 0.4],
      [0.46, 0.6],
    ],
    shade: 'right',
    size: 4.6,
  })
  return {
    inner: { layer: 'Can', lines: motif.lines, front: motif.front },
    drum: {
      layer: 'Can',
      lines: [
        newLine(rim, { weight: shaded(rim, 7, { outside: 'left', stops: 8, thin: 0.6 }) }),
        newLine(lip, { weight: floating(4) }),
        newLine(left, { weight: weight(6.2, [0, 0.8], [0.5, 0.72], [1, 0.9]) }),
        newLine(foot, { weight: weight(9.6, [0, 0.6], [0.6, 1], [1, 0.86]) }),
        newLine(right, { weight: weight(9.6, [0, 0.62], [0.5, 1], [1, 0.86]) }),
        newLine(hoops[0]!, { weight: weight(5, [0, 0.8], [0.5, 0.7], [1, 1]) }),
        newLine(hoops[1]!, { weight: weight(5, [0, 0.8], [0.5, 0.7], [1, 1]) }),
        ...hatch(
          [
            [525, 292],
            [530, 326],
            [533, 366],
          ],
          [
            [502, 298],
            [505, 332],
            [508, 368],
          ],
          4,
          3,
          -0.12,
        ),
      ],
      front: front(rim, joined(left, foot), reversePath(right)),
    },
  }
}

/** A seedling: a stalk and two leaves. */
function seedling(x: number, y: number, lean: number): Part[] {
  const top: Point = [x + lean, y - 62]
  const stalk = through([x, y], [x + lean * 0.2, y - 34], top)
  const blade = (side: 1 | -1): Part => {
    const {
      lines: [left, right],
      front: mine,
    } = leaf({
      rib: [top, [top[0] + side * 21, top[1] - 22], [top[0] + side * 47, top[1] - 25]],
      left: 14,
      right: 14,
      margin: SMOOTH,
      veins: [],
      shade: 'right',
      size: 4.2,
    })
    // So small a blade shows no rib.
    return { layer: 'Bed', lines: [left!, right!], front: mine }
  }
  return [
    blade(-1),
    blade(1),
    { layer: 'Bed', lines: [newLine(stalk, { weight: weight(5.4, [0, 1], [0.6, 0.7], [1, 0.6]) })] },
  ]
}

const drop = (x: number, y: number, r: number): Line => {
  const path = around([x, y - 1.9 * r], [x + r, y + 0.2 * r], [x, y + r], [x - r, y + 0.2 * r])
  const tip = path.nodes[0]!
  const shape = {
    ...path,
    nodes: [
      { ...tip, in: { x, y: y - 1.4 * r }, out: { x, y: y - 1.4 * r }, joint: 'corner' as const },
      ...path.nodes.slice(1),
    ],
  }
  return newLine(shape, {
    weight: shaded(shape, 3.8, {
      outside: 'left',
      stops: 9,
      thin: 0.6,
      fade: (u) => Math.min(1, 0.3 + 5 * Math.min(u, 1 - u)),
    }),
  })
}

/** A can that waters the first seedlings of the year. */
export function wateringCan(): Inked {
  const { inner, drum } = can()
  const spout = tube(
    [
      [338, 388],
      [262, 350],
      [196, 266],
      [153, 176],
    ],
    25,
    12,
  )
  const [upper, lower] = [spout.right.nodes[0]!.at, spout.left.nodes[0]!.at]
  const seam = through(
    [upper.x, upper.y],
    [(upper.x + lower.x) / 2 + 9, (upper.y + lower.y) / 2 + 3],
    [lower.x, lower.y],
  )
  const handle = tube(
    [
      [478, 176],
      [520, 104],
      [604, 92],
      [652, 160],
      [634, 262],
      [542, 336],
    ],
    9.5,
    9.5,
  )
  const layers = stacked([
    ...rose(),
    { layer: 'Spout', lines: tubeLines(spout, 7, 'left'), front: front(seam, spout.left, reversePath(spout.right)) },
    { layer: 'Spout', lines: [newLine(seam, { weight: between(6, 0.5, 0.8) })] },
    inner,
    drum,
    { layer: 'Handle', lines: tubeLines(handle, 7, 'left'), front: handle.front },
    ...seedling(80, 456, 6),
    ...seedling(196, 459, -6),
    {
      layer: 'Bed',
      lines: [
        newLine(through([40, 452], [150, 460], [258, 456]), { weight: floating(5.4, 0.5) }),
        newLine(through([236, 470], [420, 482], [652, 466]), { weight: floating(5, 0.5) }),
        ...(
          [
            [74, 176, 7],
            [44, 222, 6.4],
            [106, 214, 6.4],
            [70, 268, 7.4],
            [126, 270, 6.6],
            [40, 312, 6],
            [98, 322, 6.8],
          ] as const
        ).map(([x, y, r]) => drop(x, y, r)),
      ],
    },
  ])
  return {
    name: 'Watering can',
    layers,
    inks: [
      { id: 'zinc', name: 'Zinc blue', colour: '#8fb0b8' },
      { id: 'deep', name: 'Deep water', colour: '#5f7f89' },
      { id: 'straw', name: 'Straw', colour: '#e6c97c' },
      { id: 'leaf', name: 'Leaf green', colour: '#8aa862' },
      { id: 'water', name: 'Water', colour: '#cfe3e6' },
    ],
    fills: [
      ...(
        [
          [355, 312],
          [425, 246],
          [374, 432],
          [311, 379],
          [148, 165],
        ] as const
      ).map((at) => ({ ink: 'zinc', at, lit: true })),
      { ink: 'deep', at: [420, 200] },
      { ink: 'straw', at: [576, 320], lit: true },
      { ink: 'straw', at: [152, 128] },
      ...([[426, 321]] as const).map((at) => ({ ink: 'leaf', at, lit: true })),
      ...(
        [
          [66, 374],
          [107, 373],
          [170, 377],
          [211, 376],
        ] as const
      ).map((at) => ({ ink: 'leaf', at })),
      ...(
        [
          [70, 267],
          [74, 174],
          [98, 321],
          [126, 268],
          [44, 220],
          [106, 212],
          [40, 310],
        ] as const
      ).map((at) => ({ ink: 'water', at })),
    ],
  }
}
