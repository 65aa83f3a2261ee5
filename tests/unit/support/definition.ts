import type { Line } from '#core/model/model'
import type { Cubic } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { flatten, pointAt, tangentAt } from '#core/geometry/cubic'
import type { Vec } from '#core/geometry/point'
import { TrueWidth } from './true-width'

/** A finely sampled line, for asking the definition of its ink point by point. */
export interface SampledLine {
  line: Line
  /** Length, px. */
  total: number
  /** Cross-sections of each segment; s is the arc length up to them, px. */
  segments: { at: Vec; tangent: Vec; left: number; right: number; s: number }[][]
}

/** Samples `perSegment` cross-sections of every segment; arc length is summed over chords, apart from core's own. */
export function sampleLine(line: Line, perSegment: number): SampledLine {
  const cubics = cubicsOfPath(line.path)
  const places: { c: Cubic; t: number; s: number }[][] = []
  let s = 0
  for (const c of cubics) {
    const row: { c: Cubic; t: number; s: number }[] = []
    let before = c.p0
    for (let i = 0; i <= perSegment; i++) {
      const p = pointAt(c, i / perSegment)
      s += Math.hypot(p.x - before.x, p.y - before.y)
      before = p
      row.push({ c, t: i / perSegment, s })
    }
    places.push(row)
  }
  const width = new TrueWidth(line.weight, line.finish.align, s, line.path.closed)
  return {
    line,
    total: s,
    segments: places.map((row) =>
      row.flatMap(({ c, t, s: at }) => {
        const tangent = tangentAt(c, t)
        if (!tangent) return []
        const h = width.at(at)
        return [{ at: pointAt(c, t), tangent, left: h.left, right: h.right, s: at }]
      }),
    ),
  }
}

/** Whether `p` lies in the line's ink by the definition: a cross-section through it, a round join, or a round cap. */
export function inInk({ line, segments }: SampledLine, p: Vec): boolean {
  for (const row of segments) if (onSection(row, p)) return true
  const rows = segments.filter((r) => r.length)
  for (let i = 0; i + 1 < rows.length; i++) if (inRoundJoin(rows[i]!, rows[i + 1]!, p)) return true
  const first = rows[0]?.[0]
  const last = rows[rows.length - 1]?.at(-1)
  if (!first || !last) return false
  if (line.path.closed) return inRoundJoin(rows[rows.length - 1]!, rows[0]!, p)
  return (
    (line.finish.startCap === 'round' && inHalfDisc(first, -1, p)) ||
    (line.finish.endCap === 'round' && inHalfDisc(last, 1, p))
  )
}

type Row = SampledLine['segments'][number]

function onSection(row: Row, p: Vec): boolean {
  let before = 0
  for (let i = 0; i < row.length; i++) {
    const { at, tangent } = row[i]!
    const ahead = (p.x - at.x) * tangent.x + (p.y - at.y) * tangent.y
    if (i > 0 && before * ahead <= 0) {
      const u = before === ahead ? 0 : before / (before - ahead)
      const a = row[i - 1]!
      const b = row[i]!
      const mix = (v: number, w: number): number => v + (w - v) * u
      const normal = { x: mix(a.tangent.y, b.tangent.y), y: -mix(a.tangent.x, b.tangent.x) }
      const off = (p.x - mix(a.at.x, b.at.x)) * normal.x + (p.y - mix(a.at.y, b.at.y)) * normal.y
      if (off <= mix(a.left, b.left) && off >= -mix(a.right, b.right)) return true
    }
    before = ahead
  }
  return false
}

function inRoundJoin(before: Row, after: Row, p: Vec): boolean {
  const a = before.at(-1)!
  const b = after[0]!
  const turning = a.tangent.x * b.tangent.y - a.tangent.y * b.tangent.x
  const d = { x: p.x - a.at.x, y: p.y - a.at.y }
  const radius = turning > 0 ? a.left : a.right
  return (
    Math.hypot(d.x, d.y) <= radius &&
    d.x * a.tangent.x + d.y * a.tangent.y >= 0 &&
    d.x * b.tangent.x + d.y * b.tangent.y <= 0
  )
}

function inHalfDisc(end: Row[number], way: 1 | -1, p: Vec): boolean {
  const normal = { x: end.tangent.y, y: -end.tangent.x }
  const shift = (end.left - end.right) / 2
  const d = { x: p.x - end.at.x - normal.x * shift, y: p.y - end.at.y - normal.y * shift }
  return Math.hypot(d.x, d.y) <= (end.left + end.right) / 2 && way * (d.x * end.tangent.x + d.y * end.tangent.y) >= 0
}

/** Sections that are looked at together: a point outside their box cannot lie on any of them. */
const CHUNK = 8

/** Area of the ink of lines on a page by counting points of a grid that the definition covers, px squared. */
export function countedArea(lines: readonly Line[], page: { width: number; height: number }, step: number): number {
  const columns = Math.floor(page.width / step)
  const covered = new Uint8Array(columns * Math.floor(page.height / step))
  const fill = (boxed: Row, reach: number, test: (p: Vec) => boolean): void => {
    const xs = boxed.map((s) => s.at.x)
    const ys = boxed.map((s) => s.at.y)
    for (
      let j = Math.max(0, Math.floor((Math.min(...ys) - reach) / step));
      (j + 0.5) * step < Math.min(page.height, Math.max(...ys) + reach);
      j++
    ) {
      for (
        let i = Math.max(0, Math.floor((Math.min(...xs) - reach) / step));
        (i + 0.5) * step < Math.min(page.width, Math.max(...xs) + reach);
        i++
      ) {
        const at = j * columns + i
        if (!covered[at] && test({ x: (i + 0.5) * step, y: (j + 0.5) * step })) covered[at] = 1
      }
    }
  }
  for (const line of lines) {
    const sampled = sampleLine(line, 200)
    const widest = Math.max(...sampled.segments.flat().map((s) => Math.max(s.left, s.right)))
    for (const row of sampled.segments) {
      for (let k = 0; k + 1 < row.length; k += CHUNK) {
        const chunk = row.slice(k, k + CHUNK + 1)
        fill(chunk, widest, (p) => onSection(chunk, p))
      }
      // Joins and caps stand at the ends of segments.
      for (const end of [row[0], row.at(-1)]) if (end) fill([end], widest, (p) => inInk(sampled, p))
    }
  }
  return covered.reduce((n, c) => n + c, 0) * step * step
}

/** Non-zero membership in contours, by a ray over their flattened edges. */
export class FlatRegion {
  private readonly edges: Float64Array

  constructor(contours: readonly (readonly Cubic[])[], tolerance = 0.002) {
    const out: number[] = []
    for (const contour of contours) {
      for (const c of contour) {
        const points = flatten(c, tolerance)
        for (let i = 1; i < points.length; i++) out.push(points[i - 1]!.x, points[i - 1]!.y, points[i]!.x, points[i]!.y)
      }
    }
    this.edges = Float64Array.from(out)
  }

  winding(p: Vec): number {
    const { edges } = this
    let w = 0
    for (let i = 0; i < edges.length; i += 4) {
      const y0 = edges[i + 1]!
      const y1 = edges[i + 3]!
      if (y0 <= p.y === y1 <= p.y) continue
      const x = edges[i]! + ((p.y - y0) / (y1 - y0)) * (edges[i + 2]! - edges[i]!)
      if (x < p.x) w += y1 > y0 ? -1 : 1
    }
    return w
  }

  /** Pairs of edges that cross properly: none in a contour set that does not cross itself. */
  crossings(): number {
    const e = this.edges
    let n = 0
    for (let i = 0; i < e.length; i += 4) {
      for (let j = i + 4; j < e.length; j += 4) {
        if (properlyCross(e, i, j)) n++
      }
    }
    return n
  }
}

function properlyCross(e: Float64Array, i: number, j: number): boolean {
  const o = (k: number, x: number, y: number): number =>
    (e[k + 2]! - e[k]!) * (y - e[k + 1]!) - (e[k + 3]! - e[k + 1]!) * (x - e[k]!)
  const slack = 1e-7
  const a = o(i, e[j]!, e[j + 1]!)
  const b = o(i, e[j + 2]!, e[j + 3]!)
  const c = o(j, e[i]!, e[i + 1]!)
  const d = o(j, e[i + 2]!, e[i + 3]!)
  return a * b < -slack && c * d < -slack
}
