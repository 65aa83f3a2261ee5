import type { WidthStop } from '../model/model'
import { fewStops } from '../fit/few-stops'
import { evenlySpaced, steadied } from '../fit/steady'
import type { Vec } from '../geometry/point'
import { direction, subtract } from '../geometry/point'
import type { Field } from './grey-image'
import { between } from './pencil'

/** How thick the pencil lies along a line. */
export interface Thickness {
  /** Px, on the mean. */
  mean: number
  /** Its course as width stops, 1 for the mean. */
  stops: WidthStop[]
}

/** Places across are so far apart, px. */
const STEP = 0.5
/** Fainter pencil is none. */
const FAINT = 0.08
/** The course is evened out over so many px, and met by the stops within this share of the mean. */
const EVEN = 8
const TOLERANCE = 0.15
/** No thinner and no thicker than so many times the mean. */
const LEAST = 0.15
const MOST = 2.5

/**
 * The pencil's own thickness along a line: how wide a stroke as dark as its darkest would be that has as much graphite across.
 *
 * @param chain the line's middle, px of the field
 * @param pencil how dark each px is, 0..1
 * @param reach how far across is looked, px
 */
export function thicknessAlong(chain: readonly Vec[], closed: boolean, pencil: Field, reach: number): Thickness {
  const points = evenlySpaced(chain, 2)
  const n = points.length
  const widths = points.map((p, i) => {
    const t = direction(subtract(points[Math.min(n - 1, i + 2)]!, points[Math.max(0, i - 2)]!)) ?? { x: 1, y: 0 }
    let [all, most] = [0, 0]
    for (let d = -reach; d <= reach; d += STEP) {
      const v = between(pencil, p.x - t.y * d, p.y + t.x * d)
      if (v < FAINT) continue
      all += v * STEP
      most = Math.max(most, v)
    }
    return most > 0 ? all / most : 0
  })
  const even = steadied(
    widths.map((w, i) => ({ x: i, y: w })),
    EVEN / 2,
  ).map((p) => p.y)
  const mean = even.reduce((a, b) => a + b, 0) / (n || 1)
  if (!(mean > 0) || n < 3) return { mean: Math.max(0, mean), stops: [{ at: 0, left: 1, right: 1 }] }
  const course = even.map((w, i) => ({ s: i / (n - 1), w: Math.min(MOST, Math.max(LEAST, w / mean)) }))
  if (closed) course[0]!.w = course[n - 1]!.w = (course[0]!.w + course[n - 1]!.w) / 2
  return { mean, stops: fewStops(course, TOLERANCE) }
}
