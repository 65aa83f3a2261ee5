/**
 * Smooth noise -1..1 over a coordinate, the same at every call: value noise, eased between whole coordinates (after
 * K. Perlin, An Image Synthesizer, 1985). With `period` it comes round after so many whole coordinates.
 */
export function smoothNoise(x: number, seed = 0, period = Infinity): number {
  const i = Math.floor(x)
  const u = x - i
  const eased = u * u * (3 - 2 * u)
  const at = (k: number): number => noiseAt(Number.isFinite(period) ? ((k % period) + period) % period : k, seed)
  const a = at(i)
  return a + (at(i + 1) - a) * eased
}

/** A number -1..1 for a whole number and a seed, the same at every call. */
export function noiseAt(i: number, seed: number): number {
  let h = Math.imul(i ^ 0x9e3779b9 ^ Math.imul(seed, 0x27d4eb2f), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 0x80000000 - 1
}
