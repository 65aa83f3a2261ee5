import type { Fill, Hold, Line } from '../../model/model'
import type { Box } from '../../geometry/bounds'
import { emptyBox, include, overlap, uniteBoxes } from '../../geometry/bounds'
import { arcOfPath } from '../../geometry/known'
import { edgeOf, holdOf } from '../regions/edge'
import type { Face } from '../regions/faces'
import type { Paper } from '../regions/regions'
import type { SideFinder } from '../regions/side-finder'
import { besideOf } from '../regions/side-finder'

/** A region is a fill's when so much of the region's edge is its, or so much of its edge is the region's. */
const OF_REGION = 0.4
const OF_FILL = 0.5
/** A region lies so far beside the ink of its lines, px of the usual page: a small one ends before a larger one begins. */
const BESIDE = [0.08, 0.4]
/** Where along a stretch of a line its region is looked for. */
const ALONG = [0.15, 0.5, 0.85]
/** Places along a line are the same within so many px of the usual page. */
const SAME = 2

/** A region that a fill is meant for. */
export interface Claim {
  fill: Fill
  face: Face
  /** Length of edge that both have, px. */
  length: number
}

/** The claims of a fill, and about where they were looked for: as long as nothing changes there they are the same. */
export interface Claims {
  fill: Fill
  claims: readonly Claim[]
  box: Box
}

/** The lines by id, how they are found, and px for each px of the usual page. */
export interface Sides {
  lines: ReadonlyMap<string, Line>
  finder: SideFinder
  perPx: number
}

/** The regions that a fill is meant for, as they lie beside the lines that it was bounded by. */
export function claimsOf(fill: Fill, { index, bridges }: Paper, { lines, finder, perPx }: Sides): Claims {
  const box = emptyBox()
  const faces = new Set<Face>()
  const look = (p: Fill['at']): void => {
    include(box, p.x, p.y)
    const face = index.at(p)
    if (face) faces.add(face)
  }
  const hold = fill.hold.filter((h) => lines.has(h.line))
  if (!hold.length) {
    look(fill.at)
    return { fill, claims: [...faces].map((face) => ({ fill, face, length: 0 })), box }
  }
  for (const h of hold) {
    for (const t of ALONG) {
      for (const off of BESIDE) {
        const p = besideOf(lines.get(h.line)!, h.side, h.from + (h.to - h.from) * t, off * perPx)
        if (p) look(p)
      }
    }
  }
  const whole = hold.reduce((n, h) => n + lengthOf(h, lines), 0)
  const claims = [...faces].flatMap((face): Claim[] => {
    const all = holdOf(edgeOf(face, finder, bridges, perPx))
    const edge = all.reduce((n, h) => n + lengthOf(h, lines), 0)
    const length = common(all, hold, lines, perPx)
    const isIts = length >= OF_REGION * edge || length >= OF_FILL * whole
    return length > 0 && isIts ? [{ fill, face, length }] : []
  })
  return { fill, claims, box: [...faces].reduce((b, f) => uniteBoxes(b, f.box!), box) }
}

/** How much of the stretches `hold` is among `all`, px. */
function common(all: readonly Hold[], hold: readonly Hold[], lines: ReadonlyMap<string, Line>, perPx: number): number {
  let length = 0
  for (const a of all) {
    for (const b of hold) {
      if (a.line !== b.line || a.side !== b.side) continue
      const same = (SAME * perPx) / (arcOfPath(lines.get(a.line)!.path).total || 1)
      const [from, to] = [Math.max(a.from, b.from - same), Math.min(a.to, b.to + same)]
      // The edge of a very small region is no more than a point of a line.
      if (to >= from) length += lengthOf({ ...a, from, to }, lines)
    }
  }
  return length
}

const lengthOf = ({ line, from, to }: Hold, lines: ReadonlyMap<string, Line>): number => {
  const path = lines.get(line)?.path
  return path ? Math.max(to - from, 1e-4) * arcOfPath(path).total : 0
}

/** What changed in a drawing since claims were worked out. */
export interface Changed {
  /** Ids of lines that are others now, new or gone. */
  lines: ReadonlySet<string>
  /** Where regions, bridges or lines were or are others. */
  boxes: readonly Box[]
  /** About all of these. */
  box: Box
}

/** Whether claims may be others than they were. */
export const isStale = ({ fill, box }: Claims, { lines, boxes, box: all }: Changed): boolean =>
  (lines.size > 0 && fill.hold.some((h) => lines.has(h.line))) ||
  (overlap(all, box) && boxes.some((b) => overlap(b, box)))
