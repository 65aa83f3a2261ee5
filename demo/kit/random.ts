/** Repeatable random numbers in [0, 1): mulberry32 (T. Ettinger, 2017). */
export function random(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Smooth noise over a line: a sum of slow sines with random phases, about -1..1. */
export function wobble(next: () => number): (s: number) => number {
  const waves = [90, 41, 17].map((length, i) => ({
    k: (2 * Math.PI) / (length * (0.8 + 0.4 * next())),
    phase: next() * 7,
    size: [0.6, 0.3, 0.12][i]!,
  }))
  return (s) => waves.reduce((sum, w) => sum + w.size * Math.sin(s * w.k + w.phase), 0)
}
