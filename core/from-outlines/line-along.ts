import type { Cap, Line, WidthStop } from '../model/model'
import type { Path } from '../geometry/path'
import { fewStops } from '../fit/few-stops'
import { fitTrace } from '../fit/fit-trace'
import type { WidthPoint } from '../fit/pressure-widths'
import { ArcLength } from '../geometry/arc-length'
import { pointAt, tangentAt } from '../geometry/cubic'
import { cubicsOfPath } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance, dot as along, leftNormal, scale } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import { Profile } from '../weight/profile'
import type { FlatRings } from './flat-ring'
import type { Middle } from './middle-line'

/** What of a line its ink follows from. */
export type LineInk = Pick<Line, 'path' | 'weight' | 'finish' | 'scrapes'>

export type Caps = readonly [Cap, Cap]

/** Shares of the tolerance for the path and for the widths; the rest is for the caps. */
const PATH_SHARE = 0.3
const WIDTH_SHARE = 0.25
/** An edge whose way differs more from that of the path, as a cosine, is another's. */
const ALONG = 0.7
/** As is one that lies so much farther away than most. */
const MOST_WIDE = 2.5

/** What a line has besides. */
export const EMPTY: Pick<Line, 'id' | 'ink' | 'trace' | 'snips' | 'cover'> = {
  id: '',
  ink: '',
  trace: null,
  snips: [],
  cover: false,
}

export const PLAIN_WEIGHT = { start: null, end: null, nib: null, pinned: false }
export const PLAIN_FINISH = { join: 'round', miterLimit: 4, align: 'centre' } satisfies Partial<Line['finish']>

/** The line along a middle: its path, its widths as a few stops, its caps; null where there is none. `counts` says which shares of it are measured. */
export function lineOf(
  rings: FlatRings,
  middle: Middle,
  [startCap, endCap]: Caps,
  tolerance: number,
  counts: (share: number) => boolean = () => true,
): LineInk | null {
  let points = middle.points
  if (endCap === 'round') points = shortened(rings, points)
  if (startCap === 'round') points = shortened(rings, [...points].reverse()).reverse()
  if (points.length < 3) return null
  const path = pathOf(points, middle.closed, tolerance * PATH_SHARE)
  const widths = widthsAlong(rings, path, tolerance, usualOf(middle), counts)
  if (widths.left.length < 2 || widths.right.length < 2) return null
  const size = 2 * Math.max(...widths.left.map((p) => p.w), ...widths.right.map((p) => p.w))
  if (!(size > 0)) return null
  const stops = stopsOf(widths, size, tolerance, middle.closed)
  return {
    path,
    weight: { ...PLAIN_WEIGHT, size, stops },
    finish: { ...PLAIN_FINISH, dash: [], startCap, endCap },
  }
}

/** A middle less the radius of the round cap at its end: a place whose distance to the edge ahead is its half-width. */
function shortened(rings: FlatRings, points: readonly Vec[]): Vec[] {
  const end = points[points.length - 1]!
  for (let i = points.length - 2; i > points.length / 2; i--) {
    const p = points[i]!
    const way = { x: (end.x - p.x) / (distance(end, p) || 1), y: (end.y - p.y) / (distance(end, p) || 1) }
    const half =
      ((rings.ray(p, leftNormal(way))?.distance ?? 0) + (rings.ray(p, scale(leftNormal(way), -1))?.distance ?? 0)) / 2
    const far = distance(p, end)
    if (far < half) continue
    // Between this point and the one before it, where both are the same.
    const next = points[i + 1]!
    const share = Math.min(1, Math.max(0, (far - half) / (distance(p, next) || 1)))
    return [...points.slice(0, i + 1), { x: p.x + (next.x - p.x) * share, y: p.y + (next.y - p.y) * share }]
  }
  return [...points]
}

function pathOf(points: readonly Vec[], closed: boolean, tolerance: number): Path {
  const all = closed ? [...points, points[0]!] : points
  const samples = all.map(({ x, y }, t) => ({ x, y, t, pressure: 0.5 }))
  const grain = Math.max(tolerance, polylineLength(all) / 500)
  const { path } = fitTrace(
    { samples, device: 'mouse', steadiness: 0, response: 1 },
    { steadiness: 0, tolerance, grain },
  )
  if (!closed) return path
  const nodes = path.nodes.slice(0, -1)
  return { nodes: [{ ...nodes[0]!, in: path.nodes[path.nodes.length - 1]!.in }, ...nodes.slice(1)], closed: true }
}

/** How wide most of a middle is, to one side, px. */
export function usualOf({ left, right, sure }: Middle): number {
  const all = [...left, ...right].filter((_, i) => sure[i % left.length]).sort((a, b) => a - b)
  return all[Math.floor(all.length * 0.75)] ?? Infinity
}

/** Half-widths along a path, px, by share of its length; about corners, where rays go astray, as on either side of them. */
function widthsAlong(
  rings: FlatRings,
  path: Path,
  tolerance: number,
  usual: number,
  counts: (share: number) => boolean,
): { left: WidthPoint[]; right: WidthPoint[] } {
  const cubics = cubicsOfPath(path)
  const arc = new ArcLength(cubics)
  const count = Math.max(40, Math.min(400, Math.round(arc.total / (tolerance * 4))))
  const left: WidthPoint[] = []
  const right: WidthPoint[] = []
  for (let i = 0; i <= count; i++) {
    // The very end lies on the edge of a shape without a cap: just before it the sides are still there.
    const s = i === 0 ? 1e-4 : i === count ? 1 - 1e-4 : i / count
    const { segment, t } = arc.locate(s * arc.total)
    const [c, way] = [pointAt(cubics[segment]!, t), tangentAt(cubics[segment]!, t) ?? { x: 1, y: 0 }]
    const at = i / count
    if (!counts(at)) continue
    for (const [side, points] of [
      [1, left],
      [-1, right],
    ] as const) {
      const hit = rings.ray(c, scale(leftNormal(way), side))
      if (!hit) points.push({ s: at, w: 0 })
      else if (
        hit.distance < MOST_WIDE * usual &&
        ((!path.closed && (i < 3 || i > count - 3)) || Math.abs(along(hit.edge, way)) > ALONG)
      )
        points.push({ s: at, w: hit.distance })
    }
  }
  return { left, right }
}

/** Few stops for the two courses, alike on both sides where these are. */
function stopsOf(
  { left, right }: ReturnType<typeof widthsAlong>,
  size: number,
  tolerance: number,
  closed: boolean,
): WidthStop[] {
  const near = (tolerance * WIDTH_SHARE) / (size / 2)
  const share = (points: readonly WidthPoint[]): WidthPoint[] => points.map((p) => ({ s: p.s, w: p.w / (size / 2) }))
  const [l, r] = [share(left), share(right)]
  if (l.length === r.length && l.every((p, i) => p.s === r[i]!.s && Math.abs(p.w - r[i]!.w) < 2 * near))
    return fewStops(
      l.map((p, i) => ({ s: p.s, w: (p.w + r[i]!.w) / 2 })),
      near,
    )
  const [a, b] = [fewStops(l, near), fewStops(r, near)]
  const [pa, pb] = [new Profile(a, closed), new Profile(b, closed)]
  return [...new Set([...a, ...b].map((s) => s.at))]
    .sort((x, y) => x - y)
    .map((at) => ({ at, left: Math.max(0, pa.sampleLeft(at).value), right: Math.max(0, pb.sampleRight(at).value) }))
}
