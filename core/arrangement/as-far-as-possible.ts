import { InputError } from '../errors'
import { ArrangementFault } from './check-arrangement'

/** Whether work failed over something among what it was given: a contradiction, or a reach that no grid spans. */
const isRefusal = (e: unknown): boolean =>
  e instanceof ArrangementFault || (e instanceof InputError && e.field === 'size')

/** What `work` answers, or `instead` where nothing mends its arrangement, or no grid spans it; then it is told. */
export function orElse<T>(work: () => T, instead: T, tell?: () => void): T {
  try {
    return work()
  } catch (e) {
    if (!isRefusal(e)) throw e
    tell?.()
    return instead
  }
}

/**
 * What `work` makes of as many of some things as it can be made of, and those that are left out: by halves the fewest from
 * the beginning with which it fails are found, and the last of these goes, until it is done.
 *
 * @throws ArrangementFault where it cannot be done with nothing at all
 */
export function asFarAsPossible<T, R>(
  things: readonly T[],
  work: (things: readonly T[]) => R,
): { result: R; left: T[] } {
  const left: T[] = []
  let kept = things
  for (;;) {
    try {
      return { result: work(kept), left }
    } catch (e) {
      if (!isRefusal(e) || !kept.length) throw e
    }
    let [works, fails] = [0, kept.length]
    while (fails - works > 1) {
      const mid = (works + fails) >> 1
      if (orElse(() => (work(kept.slice(0, mid)), true), false)) works = mid
      else fails = mid
    }
    left.push(kept[fails - 1]!)
    kept = kept.filter((_, i) => i !== fails - 1)
  }
}
