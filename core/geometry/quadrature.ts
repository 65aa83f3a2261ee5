/** Gauss-Legendre nodes and weights on [-1, 1] (Abramowitz and Stegun, Handbook of Mathematical Functions, 1964, 25.4). */
export interface Rule {
  nodes: readonly number[]
  weights: readonly number[]
}

/** The rule of `n` points, by Newton on the Legendre polynomial; exact for polynomials of degree 2n - 1. */
function gaussLegendre(n: number): Rule {
  const nodes: number[] = []
  const weights: number[] = []
  for (let i = 1; i <= n; i++) {
    let x = Math.cos((Math.PI * (i - 0.25)) / (n + 0.5))
    let slope = 1
    for (let k = 0; k < 50; k++) {
      let p0 = 1
      let p1 = x
      for (let j = 2; j <= n; j++) [p0, p1] = [p1, ((2 * j - 1) * x * p1 - (j - 1) * p0) / j]
      slope = (n * (x * p1 - p0)) / (x * x - 1)
      const step = p1 / slope
      x -= step
      if (Math.abs(step) < 1e-16) break
    }
    nodes.push(x)
    weights.push(2 / ((1 - x * x) * slope * slope))
  }
  return { nodes, weights }
}

export const GAUSS_5 = gaussLegendre(5)
