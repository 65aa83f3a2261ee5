/**
 * Runs long work, told as a generator of its progress, in short turns, so that whoever shares the thread is not kept
 * waiting. Answers the work's result, or null when `go` says no at the end of a turn.
 *
 * @param turn longest time between two rests, ms
 * @param rest lets others have the thread
 * @param go hears the progress at the end of each turn and says whether to go on
 */
export async function inTurns<P, R>(
  work: Generator<P, R>,
  { turn, rest, go = () => true }: { turn: number; rest: () => Promise<unknown>; go?: (progress: P) => boolean },
): Promise<R | null> {
  let since = performance.now()
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    if (performance.now() - since < turn) continue
    await rest()
    if (!go(step.value)) return null
    since = performance.now()
  }
}

/** Runs the same work in one go. */
export function atOnce<R>(work: Generator<unknown, R>): R {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** The shares of a part of the work as shares of the whole. */
export function* scaled<R>(work: Generator<number, R>, from: number, share: number): Generator<number, R> {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    yield from + share * step.value
  }
}
