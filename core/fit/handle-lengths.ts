/** Longest handle that is tried, as a share of the chord. */
const LONGEST = 2

/** The quartic is looked at this many places for changes of sign. */
const PLACES = 16

/**
 * Handle lengths, as shares of the chord, of the cubics from (0, 0) to (1, 0) that leave along (c0, s0), arrive along
 * (c1, -s1) and have the given area and first moment over the chord (the integrals of y dx and x y dx). The area is
 * linear in either length; with it the moment becomes a quartic in the first. Pairs go to `out`, ending with the even
 * handles of a circular arc.
 *
 * @returns the number of pairs, at most 7
 */
export function handleLengths(
  c0: number,
  s0: number,
  c1: number,
  s1: number,
  area: number,
  moment: number,
  out: Float64Array,
): number {
  const even = evenHandle(Math.atan2(s0, c0) + Math.atan2(s1, c1))
  let n = 0
  if (Math.abs(s0) > 1e-7 || Math.abs(s1) > 1e-7) {
    // area = 3/20 (2 d0 s0 + 2 d1 s1 - d0 d1 sin(theta0 + theta1)), so d1 = top / bottom.
    const both = s0 * c1 + c0 * s1
    const top = (d: number): number => (20 / 3) * area - 2 * d * s0
    const bottom = (d: number): number => 2 * s1 - d * both
    const quartic = (d: number): number => {
      const b = bottom(d)
      const a = top(d)
      const x1 = d * c0
      const x2 = b - a * c1
      const y1 = d * s0
      return (
        y1 * (9 * x1 * x2 * b + 6 * x1 * b * b + 9 * x2 * x2 + 15 * x2 * b + 10 * b * b) +
        a * s1 * (35 * b + 15 * x2 - 9 * x1 * x1 * b - 9 * x1 * x2) -
        280 * moment * b * b
      )
    }
    let low = 0
    let atLow = quartic(0)
    for (let i = 1; i <= PLACES && n < 6; i++) {
      const high = (LONGEST * i) / PLACES
      const atHigh = quartic(high)
      if (atLow > 0 !== atHigh > 0) {
        const d0 = rootBetween(quartic, low, high, atLow, atHigh)
        const d1 = top(d0) / bottom(d0)
        if (d0 > 1e-4 && d1 > 1e-4 && d1 < LONGEST) {
          out[2 * n] = d0
          out[2 * n + 1] = d1
          n++
        }
      }
      low = high
      atLow = atHigh
    }
  }
  out[2 * n] = out[2 * n + 1] = even
  return n + 1
}

/** A root where the function changes sign: the chord, with the standing end's weight halved (the Illinois rule). */
function rootBetween(f: (x: number) => number, a: number, b: number, fa: number, fb: number): number {
  for (let i = 0; i < 40; i++) {
    const x = (a * fb - b * fa) / (fb - fa)
    const fx = f(x)
    if (Math.abs(fx) < 1e-15 || Math.abs(b - a) < 1e-12) return x
    if (fx > 0 !== fb > 0) {
      a = b
      fa = fb
    } else fa /= 2
    b = x
    fb = fx
  }
  return b
}

/** Handle length of the circular arc that turns by `turn` in all. */
function evenHandle(turn: number): number {
  const half = Math.abs(turn) / 2
  return half > 2.6 ? 1 / 3 : 2 / (3 * (1 + Math.cos(half)))
}
