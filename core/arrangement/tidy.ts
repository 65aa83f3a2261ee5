import type { Cubic } from '../geometry/cubic'
import { isStraight, moveEnds, reach, straight } from '../geometry/cubic'
import { cross, dot, lerp, subtract } from '../geometry/point'

/** A contour without pieces shorter than `fine` px, straight pieces that go on in one line made one. */
export const tidied = (cubics: Cubic[], fine: number): Cubic[] => mergeStraights(dropFine(cubics, fine), fine)

/** Drops the pieces of a contour that are shorter than `fine` px; their neighbours meet in their middle. */
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

/** Straight pieces of a contour that go on in one line, within a share of `fine` px, become one. */
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
