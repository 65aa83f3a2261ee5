import type { Line, Weight, WidthStop } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { newLine } from '#core/model/create'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath, reversePath } from '../../core/geometry/path'
import { partOfPath } from '../../core/geometry/part-of-path'
import { leftNormal } from '../../core/geometry/point'
import type { Front } from './overlap'
import { front } from './overlap'
import type { Point } from './spline'
import { joined, through } from './spline'
import type { Tube } from './tube'
import { outward, weight } from './weights'

/** A place on a blade: the share of the way from foot to tip, and the share of the way from the midrib to the edge. */
type BladePoint = readonly [along: number, out: number]

/** One edge of a blade as lobes: each a run of points that begins in a notch; the last ends at the tip. */
export type Margin = readonly (readonly BladePoint[])[]

/** The midrib runs out short of the tip, at this share of the blade. */
const RIB = 0.93

/** An edge without lobes. */
export const SMOOTH: Margin = [
  [
    [0, 0],
    [0.12, 0.5],
    [0.32, 0.96],
    [0.55, 0.98],
    [0.8, 0.52],
    [1, 0],
  ],
]

/** Three small lobes and a large one, each leaning towards the tip. */
export const LOBED: Margin = [
  [
    [0, 0.04],
    [0.05, 0.34],
    [0.13, 0.44],
    [0.15, 0.25],
  ],
  [
    [0.15, 0.25],
    [0.19, 0.56],
    [0.28, 0.7],
    [0.31, 0.46],
  ],
  [
    [0.31, 0.46],
    [0.36, 0.78],
    [0.47, 0.92],
    [0.51, 0.7],
  ],
  [
    [0.51, 0.7],
    [0.57, 0.96],
    [0.7, 0.96],
    [0.86, 0.56],
    [1, 0],
  ],
]

export interface LeafShape {
  /** Midrib from the foot of the blade to its tip. */
  rib: readonly Point[]
  /** How far the blade reaches to the left and right of the midrib, px. */
  left: number
  right: number
  margin: Margin
  /** Where side veins leave the midrib, and how far along they end: shares of the blade. */
  veins: readonly (readonly [from: number, to: number])[]
  /** Which edge is in shadow. */
  shade: 'left' | 'right'
  size: number
  /** The stalk that it grows on: its edges go on as those of the blade. */
  stalk?: Tube
}

/** A leaf: two edges that meet at the tip, the midrib, and side veins that tuck under it and float towards the edge. */
export function leaf({ rib, left, right, margin, veins, shade, size, stalk }: LeafShape): {
  lines: Line[]
  front: Front
} {
  const path = through(...rib)
  const arc = new ArcLength(cubicsOfPath(path))
  const on = (along: number, off: number): Point => {
    const p = arc.point(along * arc.total)
    const n = leftNormal(arc.tangent(along * arc.total) as Vec)
    return [p.x + n.x * off, p.y + n.y * off]
  }
  const edge = (reach: number, from: Path | undefined): Path => {
    const foot = from?.nodes.at(-1)!.at
    return joined(
      ...margin.map((lobe, i) =>
        through(
          ...lobe.map(([along, out], k): Point => (foot && i + k === 0 ? [foot.x, foot.y] : on(along, out * reach))),
        ),
      ),
    )
  }
  const [a, b] = [edge(left, stalk?.left), edge(-right, stalk?.right)]
  // As wide as the stalk's edges end.
  const begins = (isDark: boolean): number => (stalk ? (isDark ? 0.43 : 0.66) : 0.5)
  const edges = [
    newLine(a, {
      weight: lobedWeight(a, margin, shade === 'left' ? size * 1.3 : size * 0.8, begins(shade === 'left')),
    }),
    newLine(b, {
      weight: lobedWeight(b, margin, shade === 'right' ? size * 1.3 : size * 0.8, begins(shade === 'right')),
    }),
  ]
  const midrib = newLine(partOfPath(path, 0, RIB)!, {
    weight: weight(
      size,
      ...(stalk
        ? ([
            [0, 0],
            [0.12, 0.8],
          ] as const)
        : ([[0, 0.9]] as const)),
      [0.5, 0.6],
      [0.9, 0.16],
      [1, 0],
    ),
  })
  const side = (reach: number, [from, to]: readonly [number, number]): Line =>
    newLine(through(on(from, 0), on(from + (to - from) * 0.42, reach * 0.28), on(to, reach * 0.72)), {
      weight: outward(size * 0.56, 0.2),
    })
  const branches = veins.flatMap(([from, to]) => [side(left, [from, to]), side(-right, [from + 0.03, to + 0.02])])
  return { lines: [...edges, midrib, ...branches], front: front(a, reversePath(b)) }
}

/** Begun so wide, thin in the notches, full on the lobes, thin at the tip: to a point where the edges run out together. */
function lobedWeight(path: Path, margin: Margin, size: number, begins: number): Weight {
  const arc = new ArcLength(cubicsOfPath(path))
  const stops: WidthStop[] = []
  const add = (at: number, w: number): void => void stops.push({ at, left: w, right: w })
  let segment = 0
  add(0, begins)
  margin.forEach((lobe, i) => {
    const from = arc.starts[segment]!
    segment += lobe.length - 1
    const to = arc.starts[segment]!
    add((from + (to - from) * 0.55) / arc.total, i === margin.length - 1 ? 1 : 0.9)
    add(to / arc.total, i < margin.length - 1 ? 0.42 : margin === SMOOTH ? 0.12 : 0.4)
  })
  return { ...weight(size), stops }
}
