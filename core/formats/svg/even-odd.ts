import type { Path } from '../../geometry/path'
import { InputError } from '../../errors'
import { countCrossings } from '../../geometry/count-crossings'
import { pointAt } from '../../geometry/cubic'
import { cubicsOfPath } from '../../geometry/path'
import { evenOddContours } from '../../shapes/combine'

/** A filled path may cross itself so often. */
const MOST_CROSSINGS = 20_000

/**
 * What paths fill by the even-odd rule.
 *
 * @throws InputError where they cross so often that this would take many seconds
 */
export function evenOdd(paths: readonly Path[], tolerance: number): Path[] {
  // Curves are taken for four chords each: that is near enough to tell a tangle.
  const polygons = paths.map((p) =>
    cubicsOfPath({ ...p, closed: true }).flatMap((c) =>
      p.nodes.some((n) => n.in || n.out) ? [0, 0.25, 0.5, 0.75].map((t) => pointAt(c, t)) : [c.p0],
    ),
  )
  if (countCrossings(polygons, MOST_CROSSINGS) >= MOST_CROSSINGS)
    throw new InputError('path', `it crosses itself more than ${MOST_CROSSINGS.toLocaleString('en')} times`)
  return evenOddContours(paths, { tolerance })
}
