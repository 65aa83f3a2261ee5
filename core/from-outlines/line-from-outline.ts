import type { Cap, Line, WidthStop } from '../model/model'
import type { Path } from '../geometry/path'
import { fewStops } from '../fit/few-stops'
import { fitTrace } from '../fit/fit-trace'
import type { WidthPoint } from '../fit/pressure-widths'
import { InputError } from '../errors'
import { ArcLength } from '../geometry/arc-length'
import { boxOfPoints } from '../geometry/bounds'
import { areaOfCubics } from '../geometry/area'
import type { Cubic } from '../geometry/cubic'
import { pointAt, tangentAt } from '../geometry/cubic'
import { cubicsOfPath, pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { distance, dot as along, leftNormal, scale } from '../geometry/point'
import { polylineLength } from '../geometry/polyline'
import { outlineOf } from '../outline/expand'
import { Profile } from '../weight/profile'
import { subtractShapes } from '../shapes/combine'
import { deviationBetween } from '../shapes/deviation'
import { FlatRings, spreadRound } from './flat-ring'
import type { Middle } from './middle-line'
import { middleOf, middleOfSpot } from './middle-line'

/** A line whose ink is the shape that it was made of, but for the deviation. */
export interface TurnedBack {
  line: Pick<Line, 'path' | 'weight' | 'finish' | 'scrapes'>
  /** Measured between the shape's outline and that of the line's ink, px. */
  deviation: number
}

/** A shape this many times as long as it is wide is a stroke. */
const LONG = 2.2
/** Shares of the tolerance for the path and for the widths; the rest is for the caps. */
const PATH_SHARE = 0.3
const WIDTH_SHARE = 0.25
/** Ends thinner than this share of the line's width have no cap. */
const THIN = 0.12
/** An edge whose way differs more from that of the path, as a cosine, is another's. */
const ALONG = 0.7
/** As is one that lies so much farther away than most. */
const MOST_WIDE = 2.5
/** Spots are smaller than so many tolerances. */
const SPOT = 120
/** Lines that are farther off than so many tolerances are not worth mending; mended they are near enough at this share of it. */
const WORTH = 6
const DONE = 0.6

type Caps = readonly [Cap, Cap]
const CAPS: readonly Caps[] = [
  ['butt', 'butt'],
  ['round', 'round'],
  ['round', 'butt'],
  ['butt', 'round'],
]

/**
 * The line of which a machine made an outline: its middle as a path, its widths as a few stops, its caps. Null where the shape is no
 * stroke, or no line comes within the tolerance of it.
 *
 * @param contours one ring, or two for a line that closes; straight pieces and curves alike
 * @param tolerance px, above 0
 */
export function lineFromOutline(contours: readonly Path[], { tolerance }: { tolerance: number }): TurnedBack | null {
  if (!(tolerance > 0)) throw new InputError('tolerance', `The tolerance must be above 0 px, not ${tolerance}.`)
  const points = contours.flatMap((c) => c.nodes.map((n) => n.at))
  if (points.length < 3) return null
  const box = boxOfPoints(points)
  const size = Math.hypot(box.maxX - box.minX, box.maxY - box.minY)
  const rings = new FlatRings(contours, tolerance / 20)
  const dot = contours.length === 1 && dotOf(rings.rings[0]!, tolerance)
  if (dot) return dot
  const outline = contours.map((c) => cubicsOfPath({ ...c, closed: true })).flat()
  const measured = (line: TurnedBack['line']): TurnedBack => ({
    line,
    deviation: deviationBetween(outline, outlineOf({ ...EMPTY, ...line }, tolerance / 10).flat(), tolerance / 2),
  })
  const spacing = Math.max(tolerance * 3, size / 260)
  const found = middleOf(rings, spacing)
  const middle = found && isLong(found) ? found : size < SPOT * tolerance ? middleOfSpot(rings, size / 60) : null
  if (!middle) return null
  let best: TurnedBack | null = null
  for (const caps of middle.closed ? CAPS.slice(0, 1) : capsFor(middle)) {
    const line = lineOf(rings, middle, caps, tolerance)
    if (!line) continue
    const tried = measured(line)
    if (!best || tried.deviation < best.deviation - tolerance / 20) best = tried
  }
  if (best && best.deviation > tolerance && best.deviation < WORTH * tolerance)
    best = withCornersMoved(best, measured, tolerance)
  if (best && best.deviation <= tolerance) return best
  const cut = middle.closed ? null : cutBack(rings, middle, contours, tolerance)
  const tried = cut && measured(cut)
  return tried && tried.deviation <= tolerance ? tried : null
}

/**
 * A line that goes on beyond both ends, and is scraped back to the shape there: for ends that were cut along something else, which
 * no cap can be.
 */
function cutBack(
  rings: FlatRings,
  middle: Middle,
  contours: readonly Path[],
  tolerance: number,
): TurnedBack['line'] | null {
  const { points, left, right, sure } = middle
  const wide = usualOf(middle) * 2
  const [from, to] = [insideFrom(points, wide), points.length - 1 - insideFrom([...points].reverse(), wide)]
  const inner = points.slice(from, to + 1)
  if (inner.length < 8) return null
  const way = Math.min(3, inner.length - 1)
  const beyond = (p: Vec, q: Vec, end: Vec): Vec => {
    const far = (distance(q, end) + wide) / (distance(p, q) || 1)
    return { x: q.x + (q.x - p.x) * far, y: q.y + (q.y - p.y) * far }
  }
  const whole = [
    beyond(inner[way]!, inner[0]!, points[0]!),
    ...inner,
    beyond(inner[inner.length - 1 - way]!, inner[inner.length - 1]!, points[points.length - 1]!),
  ]
  const kept: Middle = {
    points: whole,
    closed: false,
    left: [0, ...left.slice(from, to + 1), 0],
    right: [0, ...right.slice(from, to + 1), 0],
    sure: [false, ...sure.slice(from, to + 1), false],
  }
  const total = polylineLength(whole)
  const [first, last] = [
    distance(whole[0]!, whole[1]!) / total,
    1 - distance(whole[whole.length - 2]!, whole[whole.length - 1]!) / total,
  ]
  const line = lineOf(rings, kept, ['butt', 'butt'], tolerance, (s) => s > first && s < last)
  if (!line) return null
  const ink = { id: 'ink', ink: '', from: [], contours: toPathsOf(outlineOf({ ...EMPTY, ...line }, tolerance / 10)) }
  const shape = { id: 'shape', ink: '', from: [], contours: [...contours] }
  const scrapes = subtractShapes(ink, [shape], { tolerance: tolerance / 20 }).filter((c) => isThick(c, tolerance))
  return scrapes.length ? { ...line, scrapes } : null
}

/** The first point that is farther from the start of a middle than it is wide. */
function insideFrom(points: readonly Vec[], wide: number): number {
  let run = 0
  let i = 0
  while (i < points.length - 1 && run < wide) run += distance(points[i]!, points[++i]!)
  return i
}

/** Pieces thinner than the tolerance are what the widths are off by. */
const isThick = (contour: Path, tolerance: number): boolean => {
  const cubics = cubicsOfPath({ ...contour, closed: true })
  const around = new ArcLength(cubics).total
  return Math.abs(areaOfCubics(cubics)) > (tolerance * around) / 4
}

const toPathsOf = (loops: readonly (readonly Cubic[])[]): Path[] => loops.map((l) => pathOfCubics(l, true))

/** A line whose corners lie where its ink is nearest to the outline: the ways that lead there say it only roughly. */
function withCornersMoved(
  from: TurnedBack,
  measured: (line: TurnedBack['line']) => TurnedBack,
  tolerance: number,
): TurnedBack {
  let best = from
  const corners = from.line.path.nodes.flatMap((n, i, all) =>
    n.joint === 'corner' && (from.line.path.closed || (i > 0 && i < all.length - 1)) ? [i] : [],
  )
  for (let step = tolerance * 2; step > tolerance / 8 && best.deviation > tolerance * DONE; step /= 2) {
    for (const i of corners) {
      for (const [dx, dy] of [
        [step, 0],
        [-step, 0],
        [0, step],
        [0, -step],
      ] as const) {
        const moved = (p: Vec | null): Vec | null => p && { x: p.x + dx, y: p.y + dy }
        const nodes = best.line.path.nodes.map((n, k) =>
          k === i ? { ...n, at: moved(n.at)!, in: moved(n.in), out: moved(n.out) } : n,
        )
        const tried = measured({ ...best.line, path: { ...best.line.path, nodes } })
        if (tried.deviation < best.deviation) best = tried
      }
    }
  }
  return best
}

/** A round spot is a line of one point with round caps. */
function dotOf(ring: readonly Vec[], tolerance: number): TurnedBack | null {
  const box = boxOfPoints(ring)
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
  const radii = spreadRound(ring, 90).map((p) => distance(p, middle))
  const [least, most] = [Math.min(...radii), Math.max(...radii)]
  if (most - least > tolerance) return null
  const path: Path = { nodes: [{ at: middle, in: null, out: null, joint: 'corner' }], closed: false }
  return {
    line: {
      path,
      weight: { ...PLAIN_WEIGHT, size: least + most, stops: [{ at: 0, left: 1, right: 1 }] },
      finish: { ...PLAIN_FINISH, dash: [], startCap: 'round', endCap: 'round' },
    },
    deviation: (most - least) / 2,
  }
}

const PLAIN_WEIGHT = { start: null, end: null, nib: null, pinned: false }
const PLAIN_FINISH = { join: 'round', miterLimit: 4, align: 'centre' } satisfies Partial<Line['finish']>

/** What a line has besides. */
const EMPTY: Pick<Line, 'id' | 'ink' | 'trace' | 'snips' | 'cover'> = {
  id: '',
  ink: '',
  trace: null,
  snips: [],
  cover: false,
}

function isLong({ points, left, right, sure, closed }: Middle): boolean {
  const widest = Math.max(...left.map((l, i) => (sure[i] ? l + right[i]! : 0)))
  return closed || polylineLength(points) > LONG * widest
}

/** The caps that are worth trying: none where an end runs out to a point. */
function capsFor({ points, left, right, sure }: Middle): Caps[] {
  const widest = Math.max(...left.map((l, i) => (sure[i] ? l + right[i]! : 0)))
  // A little way in from the end; of a round cap that is most of its width already.
  const near = (i: number): boolean => left[i]! + right[i]! > THIN * widest
  const step = Math.max(1, Math.round(points.length / 60))
  const [start, end] = [near(step), near(points.length - 1 - step)]
  return CAPS.filter(([a, b]) => (a === 'butt' || start) && (b === 'butt' || end))
}

function lineOf(
  rings: FlatRings,
  middle: Middle,
  [startCap, endCap]: Caps,
  tolerance: number,
  counts: (share: number) => boolean = () => true,
): TurnedBack['line'] | null {
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
function usualOf({ left, right, sure }: Middle): number {
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
