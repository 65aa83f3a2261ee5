import type { Line } from '#core/model/model'
import { newLine } from '#core/model/create'
import { reversePath } from '../../core/geometry/path'
import { hatch } from '../kit/hatch'
import { leaf, SMOOTH } from '../kit/leaf'
import { shaded } from '../kit/light'
import type { Part } from '../kit/overlap'
import { front, stacked } from '../kit/overlap'
import type { Point } from '../kit/spline'
import { around, through } from '../kit/spline'
import { tube, tubeLines } from '../kit/tube'
import { between, floating, outward, weight } from '../kit/weights'

/** A pea: its rim, thin towards the light and heavy away from it, and a glint. */
function pea(x: number, y: number, r: number): Part {
  const rim = around(
    ...[0, 1, 2, 3].map((k): Point => {
      const a = (k * Math.PI) / 2 - Math.PI * 0.75
      return [x + r * Math.cos(a), y + r * Math.sin(a)]
    }),
  )
  const glint = through([x - r * 0.6, y - r * 0.06], [x - r * 0.46, y - r * 0.44], [x - r * 0.06, y - r * 0.6])
  return {
    layer: 'Peas',
    lines: [
      newLine(rim, { weight: shaded(rim, 6.2, { outside: 'left', stops: 6, thin: 0.5 }) }),
      newLine(glint, { weight: floating(2.8) }),
    ],
    front: front(rim),
  }
}

/** A place on the pod: x along it, y across, seen a little from the right. */
function pod(x: number, y: number): Point {
  const tilt = 0.2
  return [142 + x * Math.cos(tilt) - y * Math.sin(tilt), 268 + x * Math.sin(tilt) + y * Math.cos(tilt)]
}

const along = (...points: [number, number][]): Point[] => points.map(([x, y]) => pod(x, y))

/** A sepal: two edges from the foot of the pod that meet in a point. */
function sepal(upper: Point[], lower: Point[], size: number): Part {
  const [a, b] = [through(...upper), through(...lower)]
  return {
    layer: 'Calyx',
    lines: [
      newLine(a, { weight: weight(size * 0.8, [0, 0.9], [0.5, 0.8], [1, 0.2]) }),
      newLine(b, { weight: weight(size, [0, 0.8], [0.5, 1], [1, 0.2]) }),
    ],
    front: front(a, reversePath(b)),
  }
}

/** The two halves of the open pod: the near one over the feet of the peas, the far one behind their heads. */
function halves(): { near: Part; far: Part } {
  const rim = through(...along([8, 2], [90, 30], [180, 46], [270, 48], [360, 34], [446, -6]))
  const outer = through(...along([8, 2], [70, 60], [170, 102], [280, 104], [384, 60], [446, -6]))
  const inner = through(...along([8, 0], [90, -20], [180, -27], [270, -27], [360, -22], [446, -6]))
  const top = through(...along([8, -2], [80, -50], [180, -72], [280, -70], [372, -46], [446, -6]))
  const ticks = hatch(
    along([96, 66], [176, 92], [280, 93], [366, 58]),
    along([102, 50], [180, 70], [277, 72], [352, 50]),
    7,
    2.8,
    0.12,
  )
  const veins = hatch(
    along([120, -54], [190, -64], [270, -63], [350, -48]),
    along([126, -36], [192, -43], [267, -43], [340, -34]),
    4,
    2.4,
    0.1,
  )
  return {
    near: {
      layer: 'Pod',
      lines: [
        newLine(rim, { weight: between(6, 0.5, 0.7) }),
        newLine(outer, { weight: weight(11.5, [0, 0.4], [0.25, 0.74], [0.55, 1], [0.82, 0.62], [1, 0.4]) }),
        ...ticks,
      ],
      front: front(rim, reversePath(outer)),
    },
    far: {
      layer: 'Far half',
      lines: [
        newLine(inner, { weight: between(4.4, 0.45, 0.9) }),
        newLine(top, { weight: weight(5.2, [0, 0.9], [0.4, 0.7], [0.7, 0.8], [1, 0.9]) }),
        ...veins,
      ],
      front: front(top, reversePath(inner)),
    },
  }
}

/** An open pod with its peas, the calyx, a tendril and a leaf. */
export function peaPod(): { name: string; layers: { name: string; lines: Line[] }[] } {
  const { near, far } = halves()
  const peas = (
    [
      [208, 28, 29],
      [156, 24, 27],
      [259, 30, 27],
      [306, 29, 24],
      [107, 20, 24],
      [347, 24, 19.5],
      [68, 14, 17],
    ] as const
  ).map(([x, y, r]) => pea(...pod(x, y), r))
  const stem = tube(
    [
      [100, 112],
      [96, 160],
      [112, 222],
      [150, 263],
    ],
    7.5,
    2.6,
  )
  const stub = around([92, 113], [100, 109], [108, 112], [100, 116])
  const petiole = tube(
    [
      [100, 150],
      [150, 108],
      [236, 94],
      [322, 120],
    ],
    4.4,
    2.6,
  )
  const blade = leaf({
    rib: [
      [322, 120],
      [406, 148],
      [500, 154],
      [620, 116],
    ],
    left: 52,
    right: 56,
    margin: SMOOTH,
    veins: [
      [0.12, 0.3],
      [0.34, 0.52],
      [0.52, 0.6],
    ],
    shade: 'right',
    size: 5.4,
    stalk: petiole,
  })
  const tendril = through(
    [104, 190],
    [150, 160],
    [212, 154],
    [254, 172],
    [250, 204],
    [220, 206],
    [210, 186],
    [225, 174],
    [237, 184],
  )
  const layers = stacked([
    sepal(
      [
        [151, 264],
        [178, 268],
        [206, 294],
      ],
      [
        [151, 264],
        [170, 286],
        [206, 294],
      ],
      5,
    ),
    sepal(
      [
        [151, 264],
        [184, 242],
        [222, 248],
      ],
      [
        [151, 264],
        [190, 262],
        [222, 248],
      ],
      4.6,
    ),
    sepal(
      [
        [151, 264],
        [182, 298],
        [176, 338],
      ],
      [
        [151, 264],
        [152, 306],
        [176, 338],
      ],
      5,
    ),
    sepal(
      [
        [151, 264],
        [110, 264],
        [92, 298],
      ],
      [
        [151, 264],
        [122, 280],
        [92, 298],
      ],
      4.6,
    ),
    near,
    ...peas,
    far,
    {
      layer: 'Pod',
      lines: [newLine(through(...along([446, -6], [468, -14], [490, -34])), { weight: outward(5.6, 0.15) })],
    },
    { layer: 'Stem', lines: [newLine(stub, { weight: weight(3.4, [0, 0.8], [0.5, 1]) })], front: front(stub) },
    { layer: 'Stem', lines: tubeLines(stem, 6.4, 'right'), front: stem.front },
    { layer: 'Leaf and tendril', lines: tubeLines(petiole, 4.6, 'right'), front: petiole.front },
    { layer: 'Leaf and tendril', ...blade },
    {
      layer: 'Leaf and tendril',
      lines: [newLine(tendril, { weight: weight(4.2, [0, 1], [0.3, 0.85], [0.7, 0.6], [1, 0]) })],
    },
  ])
  return { name: 'Pea pod', layers }
}
