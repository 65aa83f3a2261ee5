/** Median of the times that `work` takes, ms, over `rounds` rounds after one that warms up. */
export function medianTime(work: () => void, rounds = 3): number {
  work()
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now()
    work()
    return performance.now() - start
  })
  return times.sort((a, b) => a - b)[rounds >> 1]!
}

/** Medians of several works, taken in turn so that a noisy machine is as unkind to one as to the other. */
export function sideBySide(works: readonly (() => void)[], rounds = 3): number[] {
  const times = works.map((): number[] => [])
  for (let i = -1; i < rounds; i++) {
    works.forEach((work, k) => {
      const start = performance.now()
      work()
      if (i >= 0) times[k]!.push(performance.now() - start)
    })
  }
  return times.map((t) => t.sort((a, b) => a - b)[rounds >> 1]!)
}

export function timeOnce(work: () => void): number {
  const start = performance.now()
  work()
  return performance.now() - start
}
