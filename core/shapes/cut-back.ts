import type { Cubic } from '../geometry/cubic'
import { derivativeAt, isStraight, moveEnds, pointAt, reach, straight, subcurve } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { cross, distance, dot, lerp, subtract } from '../geometry/point'
import type { Run } from './boundary'
import type { EdgeSoup } from './edge-soup'

/**
 * The true curves of a traced loop: whole curves come back as they went in, crossed ones are cut where the curves
 * themselves (not their chords) meet. `fine` (px) is the length below which a piece is noise of the grid.
 */
export function cutBack(soup: EdgeSoup, runs: readonly Run[], fine: number): Cubic[] {
  const n = runs.length
  const cuts = runs.map((r) => ({ curve: soup.curves[r.curve]!, t0: r.t0, t1: r.t1 }))
  const corners: Vec[] = []
  for (let i = 0; i < n; i++) {
    const a = cuts[i]!
    const b = cuts[(i + 1) % n]!
    const snapped = {
      x: (runs[i]!.endX + soup.originX) * soup.step,
      y: (runs[i]!.endY + soup.originY) * soup.step,
    }
    corners.push(meet(a, b, snapped, n > 1, fine))
  }
  const out: Cubic[] = []
  cuts.forEach((c, i) => {
    const start = corners[(i + n - 1) % n]!
    const end = corners[i]!
    const piece = subcurve(c.curve, c.t0, c.t1)
    out.push(piece.p0 === start && piece.p3 === end ? piece : moveEnds(piece, start, end))
  })
  return mergeStraights(dropFine(out, fine), fine)
}

interface Cut {
  curve: Cubic
  t0: number
  t1: number
}

const isEnd = (t: number): boolean => t === 0 || t === 1
const endOf = (c: Cubic, t: number): Vec => (t === 0 ? c.p0 : c.p3)

/** The corner between cut `a` and the next one `b`; moves their parameters onto the true crossing. */
function meet(a: Cut, b: Cut, snapped: Vec, separate: boolean, fine: number): Vec {
  if (isEnd(a.t1)) return endOf(a.curve, a.t1)
  if (isEnd(b.t0)) return endOf(b.curve, b.t0)
  if (!separate) return pointAt(a.curve, a.t1)
  const hit = intersectFrom(a.curve, a.t1, b.curve, b.t0)
  if (hit && distance(hit.at, snapped) < 64 * fine && inOrder(a.t0, hit.t, a.t1) && inOrder(b.t1, hit.u, b.t0)) {
    a.t1 = hit.t
    b.t0 = hit.u
    return hit.at
  }
  return lerp(pointAt(a.curve, a.t1), pointAt(b.curve, b.t0), 0.5)
}

/** The refined parameter keeps the cut's direction. */
const inOrder = (far: number, refined: number, near: number): boolean =>
  refined >= 0 && refined <= 1 && (refined - far) * (near - far) > 0

/** Crossing of two cubics by Newton from (t, u); null where it does not settle. */
export function intersectFrom(a: Cubic, t: number, b: Cubic, u: number): { t: number; u: number; at: Vec } | null {
  const size = Math.max(reach(a), reach(b))
  for (let i = 0; i < 12; i++) {
    const gap = subtract(pointAt(b, u), pointAt(a, t))
    if (Math.hypot(gap.x, gap.y) < 1e-13 * size) break
    const da = derivativeAt(a, t)
    const db = derivativeAt(b, u)
    const det = cross(da, db)
    if (Math.abs(det) < 1e-12 * Math.hypot(da.x, da.y) * Math.hypot(db.x, db.y)) return null
    t += cross(gap, db) / det
    u += cross(gap, da) / det
    if (!(t > -0.1 && t < 1.1 && u > -0.1 && u < 1.1)) return null
  }
  const p = pointAt(a, t)
  const q = pointAt(b, u)
  return distance(p, q) < 1e-9 * size ? { t, u, at: lerp(p, q, 0.5) } : null
}

/** Pieces shorter than `fine` go; their neighbours meet in their middle. */
function dropFine(cubics: Cubic[], fine: number): Cubic[] {
  const kept = cubics.filter((c) => reach(c) > fine)
  if (kept.length === cubics.length) return cubics
  if (kept.length < 2) return []
  return kept.map((c, i) => {
    const before = kept[(i + kept.length - 1) % kept.length]!
    const after = kept[(i + 1) % kept.length]!
    const start = before.p3 === c.p0 ? c.p0 : lerp(before.p3, c.p0, 0.5)
    const end = after.p0 === c.p3 ? c.p3 : lerp(c.p3, after.p0, 0.5)
    return start === c.p0 && end === c.p3 ? c : moveEnds(c, start, end)
  })
}

/** Straight pieces that go on in one line become one. */
function mergeStraights(cubics: Cubic[], fine: number): Cubic[] {
  const out: Cubic[] = []
  for (const c of cubics) {
    const last = out[out.length - 1]
    if (last && goesOn(last, c, fine)) out[out.length - 1] = straight(last.p0, c.p3)
    else out.push(c)
  }
  if (out.length > 2 && goesOn(out[out.length - 1]!, out[0]!, fine)) {
    out[0] = straight(out.pop()!.p0, out[0]!.p3)
  }
  return out
}

function goesOn(a: Cubic, b: Cubic, fine: number): boolean {
  if (!isStraight(a, 1e-9 + fine * 1e-3) || !isStraight(b, 1e-9 + fine * 1e-3)) return false
  const whole = subtract(b.p3, a.p0)
  const size = Math.hypot(whole.x, whole.y)
  const part = subtract(a.p3, a.p0)
  return size > 0 && Math.abs(cross(whole, part)) <= fine * 0.5 * size && dot(part, subtract(b.p3, a.p3)) > 0
}
