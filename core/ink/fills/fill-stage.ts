import { perUsualPx, shapeSettingsOf } from '../../model/fineness'
import { orElse } from '../../arrangement/as-far-as-possible'
import type { Drawing, Fill, Hold, Line } from '../../model/model'
import { seenLines } from '../../model/queries'
import type { Box } from '../../geometry/bounds'
import { boxOfPoints, emptyBox, uniteBoxes } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { straight } from '../../geometry/cubic'
import type { Changed, Claim, Claims, Sides } from './claims'
import { claimsOf, isStale } from './claims'
import { edgeOf, holdOf } from '../regions/edge'
import type { Face } from '../regions/faces'
import type { Paper } from '../regions/regions'
import { boxOfSides, finderOf } from '../regions/side-finder'
import { trapped } from './trapping'

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

/** Of one reach of bridges: its regions, and what of its fills is known. */
interface Kept {
  paper: Paper
  known: Map<Fill, Known>
}

/** What a fill claimed, and what it became. */
interface Known {
  claims: Claims
  poured: Poured | null
}

/** Where so many places changed, all fills are worked out anew. */
const MANY = 256

/** The fills of a drawing as its regions are now: those near which nothing changed stay the same objects. */
export class Fills {
  /** @param paperFor gives the regions by the reach of bridges, px */
  *of(drawing: Drawing, paperFor: (gap: number) => Generator<number, Paper>): Generator<number, Poured[]> {
    const fills = drawing.fills ?? []
    const { pxPerMm } = drawing.page
    const papers = new Map<number, Paper>()
    for (const { gap } of fills) {
      if (!papers.has(gap * pxPerMm)) papers.set(gap * pxPerMm, yield* paperFor(gap * pxPerMm))
    }
    const sides: Sides = {
      lines: new Map(seenLines(drawing).map((l) => [l.id, l])),
      finder: finderOf(drawing),
      perPx: perUsualPx(drawing.page),
    }
    const changedBy = this.changed(drawing, sides.lines, papers)
    const kept = new Map<number, Kept>(
      [...papers].map(([gap, paper]) => [gap, { paper, known: new Map<Fill, Known>() }]),
    )
    const holders = new Map<Face, Claim>()
    for (const [i, fill] of fills.entries()) {
      if (fill.where !== 'region') continue
      const gap = fill.gap * pxPerMm
      const changed = changedBy.get(gap)
      let known = changed ? this.kept.get(gap)!.known.get(fill) : undefined
      if (!known || isStale(known.claims, changed!)) {
        known = { claims: claimsOf(fill, papers.get(gap)!, sides), poured: null }
        if (i % 16 === 15) yield i / fills.length / 2
      }
      kept.get(gap)!.known.set(fill, known)
      for (const claim of known.claims.claims) {
        const other = holders.get(claim.face)
        if (!other || claim.length > other.length) holders.set(claim.face, claim)
      }
    }
    const out: Poured[] = []
    for (const fill of fills) {
      const { paper, known } = kept.get(fill.gap * pxPerMm)!
      const was = known.get(fill)
      const poured = was ? this.region(was, paper, holders, drawing, sides) : this.ground(drawing, fill, paper, sides)
      out.push(poured)
      if (was?.poured === poured) continue
      if (was) known.set(fill, { claims: was.claims, poured })
      yield 0.5 + out.length / fills.length / 2
    }
    this.kept = kept
    this.last = { drawing, lines: sides.lines }
    return out
  }

  private readonly shapes = new WeakMap<Face, Map<string, { edge: unknown; contours: Cubic[][] }>>()
  private kept = new Map<number, Kept>()
  private last: { drawing: Drawing; lines: ReadonlyMap<string, Line> } | null = null

  /** What changed since the last time, by reach; null where nothing of then is of use. */
  private changed(
    { page, settings }: Drawing,
    lines: ReadonlyMap<string, Line>,
    papers: ReadonlyMap<number, Paper>,
  ): Map<number, Changed | null> {
    const { last } = this
    const isLike = last?.drawing.page === page && last.drawing.settings === settings
    return new Map(
      [...papers].map(([gap, paper]) => {
        const was = this.kept.get(gap)
        return [gap, isLike && was ? changes(last!.lines, lines, was.paper, paper) : null]
      }),
    )
  }

  private region(
    { claims: { fill, claims }, poured: was }: Known,
    paper: Paper,
    holders: ReadonlyMap<Face, Claim>,
    drawing: Drawing,
    sides: Sides,
  ): Poured {
    const faces = claims.flatMap((c) => (holders.get(c.face)!.fill === fill ? [c.face] : []))
    const lostTo = faces.length ? null : ((claims[0] && holders.get(claims[0].face)!.fill.id) ?? null)
    if (was && was.lostTo === lostTo && was.faces.length === faces.length && was.faces.every((f, i) => f === faces[i]))
      return was
    const contours = faces.flatMap((face) => this.shapeOf(face, fill, paper, drawing, sides))
    const hold = faces.flatMap((face) => holdOf(edgeOf(face, sides.finder, paper.bridges, sides.perPx)))
    return { fill, faces, contours, hold, lostTo }
  }

  /** The shape of a fill in a face, kept for as long as the face and its edge are the same. */
  private shapeOf(
    face: Face,
    { under }: Fill,
    { bridges }: Paper,
    drawing: Drawing,
    { finder, perPx }: Sides,
  ): Cubic[][] {
    const { tolerance } = shapeSettingsOf(drawing)
    const edge = edgeOf(face, finder, bridges, perPx)
    const key = `${under ?? ''} ${tolerance}`
    let byKey = this.shapes.get(face)
    if (!byKey) this.shapes.set(face, (byKey = new Map()))
    let known = byKey.get(key)
    if (known?.edge !== edge)
      byKey.set(
        key,
        (known = {
          edge,
          // Where nothing can be worked out to run beneath the ink, the region as it is.
          contours: orElse(
            () =>
              trapped(face, edge, under === undefined ? null : under * drawing.page.pxPerMm, {
                tolerance,
                perPx,
              }),
            face.contours.map((c) => [...c]),
          ),
        }),
      )
    return known!.contours
  }

  private ground(drawing: Drawing, fill: Fill, paper: Paper, sides: Sides): Poured {
    return {
      fill,
      faces: [],
      contours: fill.where === 'page' ? [pageOf(drawing)] : this.openGround(drawing, fill, paper, sides),
      hold: [],
      lostTo: null,
    }
  }

  /** All open ground of the page. */
  private openGround(drawing: Drawing, fill: Fill, { index, bridges }: Paper, { finder, perPx }: Sides): Cubic[][] {
    const { open } = index
    if (!open) return [pageOf(drawing)]
    const contours = [pageOf(drawing), ...open.contours]
    const edge = edgeOf({ ...open, contours, hollow: [false, ...open.hollow] }, finder, bridges, perPx)
    // The page ends at its border: nothing runs beneath that.
    const face = { contours, hollow: [false, ...open.hollow], box: null }
    return trapped(
      face,
      [edge[0]!.map((p) => ({ ...p, middle: 0 })), ...edge.slice(1)],
      fill.under === undefined ? null : fill.under * drawing.page.pxPerMm,
      { tolerance: shapeSettingsOf(drawing).tolerance, perPx },
    )
  }
}

const pageOf = ({ page: { width, height } }: Drawing): Cubic[] => {
  const [a, b, c, d] = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]
  return [straight(a, b), straight(b, c), straight(c, d), straight(d, a)]
}

/** What changed from lines and regions to others; null where that is so much that all is looked at anew. */
function changes(
  before: ReadonlyMap<string, Line>,
  lines: ReadonlyMap<string, Line>,
  was: Paper,
  paper: Paper,
): Changed | null {
  const ids = new Set<string>()
  const boxes: Box[] = []
  const other = (line: Line): void => {
    ids.add(line.id)
    boxes.push(boxOfSides(line))
  }
  for (const line of before.values()) if (lines.get(line.id) !== line) other(line)
  for (const line of lines.values()) if (before.get(line.id) !== line) other(line)
  for (const face of onlyIn(was.index.faces, paper.index.faces)) if (face.box) boxes.push(face.box)
  for (const { curve } of onlyIn(was.bridges, paper.bridges))
    boxes.push(boxOfPoints([curve.p0, curve.p1, curve.p2, curve.p3]))
  return boxes.length > MANY ? null : { lines: ids, boxes, box: boxes.reduce(uniteBoxes, emptyBox()) }
}

/** What is only in one of two lists. */
function onlyIn<T>(a: readonly T[], b: readonly T[]): T[] {
  if (a === b) return []
  const [inA, inB] = [new Set(a), new Set(b)]
  return [...a.filter((x) => !inB.has(x)), ...b.filter((x) => !inA.has(x))]
}
