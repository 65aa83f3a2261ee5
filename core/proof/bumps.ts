import { boxOfPoints, grown } from '../geometry/bounds'
import type { Cubic } from '../geometry/cubic'
import { flatten, tangentAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { cross, direction, distance, dot, subtract } from '../geometry/point'
import type { Face } from '../ink/regions/faces'
import { finderOf } from '../ink/regions/side-finder'
import { rememberedBy } from '../remembered'
import type { Finding, Proofed } from './finding'

/** A bump is no longer along the edge than this, and stands out by no less and no more than these, mm. */
const LONGEST = 0.9
const LEAST = 0.06
const MOST = 0.6
/** The edge turns off its way, and back onto it, by corners of more than this, radians. */
const CORNER = 0.6
/** Before and after, the edge goes the same way within this, radians. */
const ALIKE = 0.6
/** That way is looked at over so many mm. */
const WAY = 0.5

interface Bump {
  /** Its top, and the corners at which it begins and ends. */
  at: Vec
  from: Vec
  to: Vec
  /** Ink that stands out of the edge; else paper that cuts into it. */
  isInk: boolean
}

/** Ink that stands out of the edge of what it belongs to. */
export const lumps = (p: Proofed): Finding[] => bumps(p, 'lump')

/** Paper that cuts into the edge of the ink. */
export const notches = (p: Proofed): Finding[] => bumps(p, 'notch')

/** Places where the edge of the ink leaves its way by a corner, and comes back to it by another close by. */
function bumps({ paper, drawing, pxPerMm }: Proofed, kind: 'lump' | 'notch'): Finding[] {
  const found = bumpsOf(paper.index.faces, pxPerMm).filter((b) => b.isInk === (kind === 'lump'))
  if (!found.length) return []
  const finder = finderOf(drawing)
  return found.map(({ at, from, to }): Finding => {
    const items = finder.near(grown(boxOfPoints([at]), MOST * pxPerMm)).map((l) => l.id)
    // Known by the sides that it lies between, so that it is the same wherever its lines go; on solids there are none.
    const places = [from, to]
      .map((p) => finder.at(p))
      .map((p) => (p ? `${p.line} ${p.side} ${Math.round(p.share * 50)}` : ''))
    const where = places.some((p) => p) ? places.join(' ') : `${Math.round(at.x)} ${Math.round(at.y)}`
    return { key: `${kind} ${where}`.slice(0, 280), kind, at, items, mend: null }
  })
}

const bumpsOf = rememberedBy((faces: readonly Face[], mm: number): Bump[] =>
  faces.flatMap((face) => bumpsAbout(face, mm)),
)

const bumpsAbout = rememberedBy((face: Face, mm: number): Bump[] => face.contours.flatMap((c) => bumpsAlong(c, mm)))

// A contour of the open ground, whose face is another after every edit, is the same for as long as its ink.
const bumpsAlong = rememberedBy((contour: readonly Cubic[], mm: number): Bump[] => {
  const n = contour.length
  if (n < 3) return []
  const lengths = contour.map((c) => distance(c.p0, c.p3))
  const turns = contour.map((c, i) => turnBetween(contour[(i + n - 1) % n]!, c))
  const out: Bump[] = []
  for (let i = 0; i < n; i++) {
    if (Math.abs(turns[i]!) < CORNER) continue
    // Up to the next corner that turns the same way; between them the edge turns back.
    let length = 0
    for (let k = 0; k < n - 1 && length <= LONGEST * 3 * mm; k++) {
      length += lengths[(i + k) % n]!
      const j = (i + k + 1) % n
      if (Math.sign(turns[j]!) !== Math.sign(turns[i]!) || Math.abs(turns[j]!) < CORNER) continue
      const bump = bumpBetween(contour, i, k + 1, turns[i]!, mm)
      if (bump) out.push(bump)
      break
    }
  }
  return out
})

/** The bump on `count` curves from the one at `first` on, if that is one. */
function bumpBetween(contour: readonly Cubic[], first: number, count: number, turn: number, mm: number): Bump | null {
  const n = contour.length
  const [a, b] = [contour[first]!.p0, contour[(first + count) % n]!.p0]
  const across = direction(subtract(b, a))
  if (!across || distance(a, b) > LONGEST * mm) return null
  const [into, out] = [wayFrom(contour, first - 1, -1, WAY * mm), wayFrom(contour, first + count, 1, WAY * mm)]
  if (!into || !out || angle(into, out) > ALIKE || angle(into, across) > ALIKE || angle(across, out) > ALIKE)
    return null
  const points = Array.from({ length: count }, (_, k) => contour[(first + k) % n]!).flatMap((c) =>
    flatten(c, 0.01 * mm),
  )
  const top = points.reduce(
    (best, p) => (Math.abs(cross(across, subtract(p, a))) > Math.abs(cross(across, subtract(best, a))) ? p : best),
    a,
  )
  const height = cross(across, subtract(top, a))
  // It stands out on the side to which the first corner turns.
  if (Math.abs(height) < LEAST * mm || Math.abs(height) > MOST * mm || Math.sign(height) !== Math.sign(turn))
    return null
  // The outline goes round the paper from x towards y: what turns that way leads into the paper.
  return { at: top, from: a, to: b, isInk: height > 0 }
}

const angle = (u: Vec, v: Vec): number => Math.abs(Math.atan2(cross(u, v), dot(u, v)))

function turnBetween(before: Cubic, after: Cubic): number {
  const [u, v] = [tangentAt(before, 1), tangentAt(after, 0)]
  return u && v ? Math.atan2(cross(u, v), dot(u, v)) : 0
}

/** Which way a contour goes over a length on one side of a curve's end, px; null where it is all corners. */
function wayFrom(contour: readonly Cubic[], from: number, step: 1 | -1, length: number): Vec | null {
  const n = contour.length
  const at = (i: number): Cubic => contour[((i % n) + n) % n]!
  const start = step > 0 ? at(from).p0 : at(from).p3
  for (let k = 0; k < Math.min(n, 24); k++) {
    const c = at(from + step * k)
    const far = step > 0 ? c.p3 : c.p0
    if (distance(start, far) >= length || k === 23)
      return direction(step > 0 ? subtract(far, start) : subtract(start, far))
  }
  return null
}
