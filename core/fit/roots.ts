/** Value of the polynomial sum(coefficients[i] x^i). */
export function evaluate(coefficients: readonly number[], x: number): number {
  let y = 0
  for (let i = coefficients.length - 1; i >= 0; i--) y = y * x + coefficients[i]!
  return y
}

/**
 * Real roots in [low, high] of the polynomial sum(coefficients[i] x^i), ascending: the roots of the derivative cut the
 * range into monotone parts, each with at most one root, found by bisection.
 */
export function realRoots(coefficients: readonly number[], low: number, high: number): number[] {
  let degree = coefficients.length - 1
  const size = Math.max(...coefficients.map(Math.abs))
  while (degree > 0 && Math.abs(coefficients[degree]!) <= 1e-14 * size) degree--
  if (degree === 0) return []
  if (degree === 1) {
    const x = -coefficients[0]! / coefficients[1]!
    return x >= low && x <= high ? [x] : []
  }
  const poly = coefficients.slice(0, degree + 1)
  const slope = poly.slice(1).map((c, i) => c * (i + 1))
  const cuts = [low, ...realRoots(slope, low, high), high]
  const roots: number[] = []
  for (let i = 0; i + 1 < cuts.length; i++) {
    let a = cuts[i]!
    let b = cuts[i + 1]!
    let fa = evaluate(poly, a)
    const fb = evaluate(poly, b)
    if (fa === 0) roots.push(a)
    if (fa * fb >= 0) continue
    for (let k = 0; k < 60 && b - a > 1e-14 * (1 + Math.abs(a)); k++) {
      const mid = (a + b) / 2
      const fm = evaluate(poly, mid)
      if (fa * fm <= 0) b = mid
      else {
        a = mid
        fa = fm
      }
    }
    roots.push((a + b) / 2)
  }
  if (evaluate(poly, high) === 0) roots.push(high)
  return roots
}

/** Coefficients of the polynomial of degree n - 1 through n points (Newton's divided differences). */
export function interpolate(xs: readonly number[], ys: readonly number[]): number[] {
  const n = xs.length
  const table = [...ys]
  for (let j = 1; j < n; j++) {
    for (let i = n - 1; i >= j; i--) table[i] = (table[i]! - table[i - 1]!) / (xs[i]! - xs[i - j]!)
  }
  let poly = [table[n - 1]!]
  for (let i = n - 2; i >= 0; i--) {
    const next = new Array<number>(poly.length + 1).fill(0)
    poly.forEach((c, k) => {
      next[k + 1]! += c
      next[k]! -= c * xs[i]!
    })
    next[0]! += table[i]!
    poly = next
  }
  return poly
}
