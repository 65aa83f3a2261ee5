import type { Drawing, Hold } from '../../model/model'
import type { Path } from '../../geometry/path'
import { perUsualPx } from '../../model/fineness'
import { toPaths } from '../../arrangement/contours'
import type { Cubic } from '../../geometry/cubic'
import { mapped } from '../../geometry/matrix'
import { originOf } from '../../model/image-ids'
import type { RegionAsDrawn } from '../../repetition/region-as-drawn'
import { regionsAsDrawn } from '../../repetition/region-as-drawn'
import { mapPath, pathOfCubics } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { add, scale } from '../../geometry/point'
import { windingOf } from '../../geometry/winding-at'
import type { Edge } from '../regions/edge'
import { edgeOf, holdOf } from '../regions/edge'
import type { Face } from '../regions/faces'
import { measureOfFace } from '../regions/faces'
import type { Poured } from '../fills/fill-stage'
import type { InkSession } from './ink-session'
import type { Paper } from '../regions/regions'
import { finderOf } from '../regions/side-finder'

/** A region under the hand, or open ground. */
export interface RegionHit {
  where: 'region' | 'open'
  contours: Path[]
  /** px squared; null for open ground. */
  area: number | null
  /** What holds it and its outer contour as it was drawn: of an image, the region of which it is one. */
  hold: Hold[]
  outer: Path
  /** The id of the fill that it has. */
  fill: string | null
}

/** The region about a point as it would be poured with gaps up to `gap` px bridged; the whole of a fill's own where one lies there. Null on ink. */
export function* regionHitAt(session: InkSession, p: Vec, gap: number): Generator<number, RegionHit | null> {
  const paper = yield* session.paper(gap)
  const { poured } = yield* session.fills()
  const own = poured.find((q) => q.faces.some((f) => holds(f, p)))
  const face = own?.faces.find((f) => holds(f, p)) ?? paper.index.at(p)
  const asDrawn = regionsAsDrawn(session.drawn)
  if (face)
    return { ...hitOf(face, asDrawn(holdOf(edgeIn(face, paper, session)))), fill: own ? originOf(own.fill.id) : null }
  const open = paper.index.openAt(p)
  if (!open) return null
  const ground = poured.findLast((q) => q.fill.where !== 'region')
  const page = pageOf(session.drawing)
  return {
    where: 'open',
    contours: [page, ...toPaths(open.contours.map((c) => [...c]))],
    area: null,
    hold: [],
    outer: page,
    fill: ground?.fill.id ?? null,
  }
}

/** Regions that no fill has, none smaller than `least` px squared, and which of them lie side by side. */
export function* emptyRegions(
  session: InkSession,
  gap: number,
  least: number,
): Generator<number, { regions: RegionHit[]; beside: number[][] }> {
  const paper = yield* session.paper(gap)
  const { poured } = yield* session.fills()
  const filled = new Set(poured.flatMap((q) => q.faces))
  const faces = paper.index.faces.filter(
    (f) => f.box && measureOfFace(f).area >= least && !filled.has(f) && !poured.some((q) => overlaps(q, f)),
  )
  const hits = new Map<Face, RegionHit>()
  const images: { face: Face; as: RegionAsDrawn }[] = []
  const asDrawn = regionsAsDrawn(session.drawn)
  for (const [i, face] of faces.entries()) {
    if (i % 8 === 7) yield i / faces.length
    const as = asDrawn(holdOf(edgeIn(face, paper, session)))
    if (as.back) images.push({ face, as })
    else hits.set(face, { ...hitOf(face, as), fill: null })
  }
  for (const { face, as } of images) {
    const inside = insideOf(face, edgeIn(face, paper, session), perUsualPx(session.drawing.page))
    const of = inside && hits.get(paper.index.at(mapped(as.back!, inside))!)
    if (of) of.contours.push(...contoursOf(face))
    else hits.set(face, { ...hitOf(face, as), fill: null })
  }
  const regions = [...hits.values()]
  return { regions, beside: neighboursOf(regions) }
}

/** What bridges gaps of up to `gap` px, as they lie across them. */
export function* bridgesOver(session: InkSession, gap: number): Generator<number, Path[]> {
  return (yield* session.paper(gap)).bridges.map(({ curve }) => pathOfCubics([curve], false, 1e-6))
}

function hitOf(face: Face, { hold, back }: RegionAsDrawn): Omit<RegionHit, 'fill'> {
  const contours = contoursOf(face)
  const outer = contours[0]!
  return {
    where: 'region',
    contours,
    area: measureOfFace(face).area,
    hold,
    outer: back ? mapPath(outer, (p) => mapped(back, p)) : outer,
  }
}

const contoursOf = (face: Face): Path[] => toPaths(face.contours.map((c) => [...c]))

const edgeIn = (face: Face, { bridges }: Paper, { drawing }: InkSession): Edge =>
  edgeOf(face, finderOf(drawing), bridges, perUsualPx(drawing.page))

/** So far within the edge of a region a point of it is looked for, px of the usual page: a small one ends before a larger one begins. */
const WITHIN = [0.4, 0.05]

/** A point in a region; null where it is too thin. */
function insideOf(face: Face, edge: Edge, perPx: number): Vec | null {
  for (const off of WITHIN) {
    for (const { at, inward } of edge[0]!) {
      const p = add(at, scale(inward, -off * perPx))
      if (holds(face, p)) return p
    }
  }
  return null
}

const holds = ({ contours, box }: Face, p: Vec): boolean =>
  !!box &&
  p.x >= box.minX &&
  p.x <= box.maxX &&
  p.y >= box.minY &&
  p.y <= box.maxY &&
  contours.reduce((n: number, c: readonly Cubic[]) => n + windingOf(c, p), 0) !== 0

/** Whether a fill, poured with other gaps, has this region or the larger part of it. */
const overlaps = ({ faces }: Poured, face: Face): boolean =>
  faces.some(
    (f) =>
      f.contours[0]!.some((c) => holds(face, { x: (c.p0.x + c.p3.x) / 2, y: (c.p0.y + c.p3.y) / 2 })) ||
      f.contours[0] === face.contours[0],
  )

/** Of each region those that have a stretch of one line between them and it, one on either side. */
function neighboursOf(regions: readonly RegionHit[]): number[][] {
  const bySide = new Map<string, { region: number; hold: Hold }[]>()
  regions.forEach(({ hold }, region) => {
    for (const h of hold) {
      const key = `${h.line} ${h.side}`
      const all = bySide.get(key)
      if (all) all.push({ region, hold: h })
      else bySide.set(key, [{ region, hold: h }])
    }
  })
  return regions.map(({ hold }, i) => [
    ...new Set(
      hold.flatMap((h) =>
        (bySide.get(`${h.line} ${h.side === 'left' ? 'right' : 'left'}`) ?? []).flatMap((o) =>
          o.region !== i && h.from < o.hold.to && o.hold.from < h.to ? [o.region] : [],
        ),
      ),
    ),
  ])
}

function pageOf({ page: { width, height } }: Drawing): Path {
  const corners = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]
  return { closed: true, nodes: corners.map((at) => ({ at, in: null, out: null, joint: 'corner' as const })) }
}
