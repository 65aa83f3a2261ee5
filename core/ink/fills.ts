import type { Drawing, Fill, Hold, Line } from '../drawing/model'
import { perUsualPx, shapeSettingsOf } from '../drawing/fineness'
import type { Cubic } from '../geometry/cubic'
import { straight } from '../geometry/cubic'
import { arcOfPath } from '../geometry/known'
import { besideOf, edgeOf, holdOf, SideFinder } from './edge'
import type { Face } from './faces'
import type { Paper } from './regions'
import { underRun } from './under-run'

/** What became of a fill. */
export interface Poured {
  fill: Fill
  /** The regions that it fills; none where it waits. */
  faces: readonly Face[]
  contours: Cubic[][]
  /** The stretches of lines that bound its regions now. */
  hold: readonly Hold[]
  /** Another fill, which is larger there, has the region that this one would fill. */
  lostTo: string | null
}

/** A region is a fill's when so much of the region's edge is its, or so much of its edge is the region's. */
const OF_REGION = 0.4
const OF_FILL = 0.5
/** A region lies so far beside the ink of its lines, px of the usual page: a small one ends before a larger one begins. */
const BESIDE = [0.08, 0.4]
/** Places along a line are the same within so many px of the usual page. */
const SAME = 2

interface Claim {
  fill: Fill
  face: Face
  /** Length of edge that both have, px. */
  length: number
}

/** The fills of a drawing as its regions are now; `paperFor` gives these by the reach of bridges, px. */
export class Fills {
  private readonly shapes = new WeakMap<Face, Map<string, { edge: unknown; contours: Cubic[][] }>>()

  /** The shape of a fill in a face, kept for as long as the face and its edge are the same. */
  private shapeOf(face: Face, { under }: Fill, { bridges }: Paper, finder: SideFinder, fine: { tolerance: number; perPx: number }, pxPerMm: number): Cubic[][] {
    const edge = edgeOf(face, finder, bridges, fine.perPx)
    const key = `${under ?? ''} ${fine.tolerance}`
    let byKey = this.shapes.get(face)
    if (!byKey) this.shapes.set(face, (byKey = new Map()))
    let known = byKey.get(key)
    if (known?.edge !== edge) byKey.set(key, (known = { edge, contours: underRun(face, edge, under === undefined ? null : under * pxPerMm, fine) }))
    return known!.contours
  }

  *of(drawing: Drawing, lines: readonly Line[], paperFor: (gap: number) => Generator<number, Paper>): Generator<number, Poured[]> {
    const fills = drawing.fills ?? []
    if (!fills.length) return []
    const perPx = perUsualPx(drawing.page)
    const { tolerance } = shapeSettingsOf(drawing)
    const finder = new SideFinder(lines)
    const known = new Map(lines.map((l) => [l.id, l]))
    const claims: Claim[] = []
    const papers = new Map<number, Paper>()
    for (const [i, fill] of fills.entries()) {
      if (i % 16 === 15) yield i / fills.length
      const gap = fill.gap * drawing.page.pxPerMm
      let paper = papers.get(gap)
      if (!paper) papers.set(gap, (paper = yield* paperFor(gap)))
      if (fill.where === 'region') claims.push(...claimsOf(fill, paper, finder, known, perPx))
    }
    const holders = new Map<Face, Claim>()
    for (const claim of claims) {
      const other = holders.get(claim.face)
      if (!other || claim.length > other.length) holders.set(claim.face, claim)
    }
    const byFill = new Map<Fill, Claim[]>()
    for (const claim of claims) byFill.set(claim.fill, [...(byFill.get(claim.fill) ?? []), claim])
    const out: Poured[] = []
    for (const fill of fills) {
      const paper = papers.get(fill.gap * drawing.page.pxPerMm)!
      if (fill.where !== 'region') {
        out.push({ fill, faces: [], contours: fill.where === 'page' ? [pageOf(drawing)] : this.openGround(drawing, fill, paper, finder), hold: [], lostTo: null })
        continue
      }
      const mine = byFill.get(fill) ?? []
      const faces = mine.flatMap((c) => (holders.get(c.face)!.fill === fill ? [c.face] : []))
      const lost = faces.length ? null : mine.map((c) => holders.get(c.face)!.fill.id)[0]
      const contours = faces.flatMap((face) => this.shapeOf(face, fill, paper, finder, { tolerance, perPx }, drawing.page.pxPerMm))
      const hold = faces.flatMap((face) => holdOf(edgeOf(face, finder, paper.bridges, perPx)))
      out.push({ fill, faces, contours, hold, lostTo: lost ?? null })
      yield out.length / fills.length
    }
    return out
  }

  /** All open ground of the page. */
  private openGround(drawing: Drawing, fill: Fill, { index, bridges }: Paper, finder: SideFinder): Cubic[][] {
    const open = index.faces.find((f) => !f.box)
    if (!open) return [pageOf(drawing)]
    const contours = [pageOf(drawing), ...open.contours]
    const perPx = perUsualPx(drawing.page)
    const edge = edgeOf({ ...open, contours, hollow: [false, ...open.hollow] }, finder, bridges, perPx)
    // The page ends at its border: nothing runs beneath that.
    const face = { contours, hollow: [false, ...open.hollow], box: null }
    return underRun(face, [edge[0]!.map((p) => ({ ...p, middle: 0 })), ...edge.slice(1)], fill.under === undefined ? null : fill.under * drawing.page.pxPerMm, { tolerance: shapeSettingsOf(drawing).tolerance, perPx })
  }
}

const pageOf = ({ page: { width, height } }: Drawing): Cubic[] => {
  const [a, b, c, d] = [{ x: 0, y: 0 }, { x: width, y: 0 }, { x: width, y: height }, { x: 0, y: height }]
  return [straight(a, b), straight(b, c), straight(c, d), straight(d, a)]
}

/** The regions that a fill is meant for, as they lie beside the lines that it was bounded by. */
function claimsOf(fill: Fill, { index, bridges }: Paper, finder: SideFinder, lines: ReadonlyMap<string, Line>, perPx: number): Claim[] {
  const hold = fill.hold.filter((h) => lines.has(h.line))
  if (!hold.length) {
    const face = index.at(fill.at)
    return face ? [{ fill, face, length: 0 }] : []
  }
  const faces = new Set<Face>()
  for (const h of hold) {
    for (const t of [0.15, 0.5, 0.85]) {
      for (const off of BESIDE) {
        const p = besideOf(lines.get(h.line)!, h.side, h.from + (h.to - h.from) * t, off * perPx)
        const face = p && index.at(p)
        if (face) faces.add(face)
      }
    }
  }
  const whole = hold.reduce((n, h) => n + lengthOf(h, lines), 0)
  return [...faces].flatMap((face): Claim[] => {
    const all = holdOf(edgeOf(face, finder, bridges, perPx))
    const edge = all.reduce((n, h) => n + lengthOf(h, lines), 0)
    let common = 0
    for (const a of all) {
      for (const b of hold) {
        if (a.line !== b.line || a.side !== b.side) continue
        const same = (SAME * perPx) / (arcOfPath(lines.get(a.line)!.path).total || 1)
        const [from, to] = [Math.max(a.from, b.from - same), Math.min(a.to, b.to + same)]
        // The edge of a very small region is no more than a point of a line.
        if (to >= from) common += lengthOf({ ...a, from, to }, lines)
      }
    }
    const isIts = common >= OF_REGION * edge || common >= OF_FILL * whole
    return common > 0 && isIts ? [{ fill, face, length: common }] : []
  })
}

const lengthOf = ({ line, from, to }: Hold, lines: ReadonlyMap<string, Line>): number => {
  const path = lines.get(line)?.path
  return path ? Math.max(to - from, 1e-4) * arcOfPath(path).total : 0
}
