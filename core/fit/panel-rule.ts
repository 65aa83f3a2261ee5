import { GAUSS_5 } from '../geometry/quadrature'

/** Places and weights of the three-point Gauss rule on [0, 1]: exact for polynomials of degree 5. */
export const PLACES = [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)]
export const WEIGHTS = [5 / 18, 8 / 18, 5 / 18]

/** Weights of a panel's five samples (its ends and the three places) for the integral over its first half. */
export const FIRST_HALF = halfWeights([0, ...PLACES, 1])

/** Samples of a panel: its start and the three places. */
export const PER_PANEL = 4

/** Weights for the integral over the first half of [0, 1] of the polynomial through the values at five places there. */
function halfWeights(places: readonly number[]): number[] {
  return places.map((p, i) =>
    GAUSS_5.nodes.reduce((sum, node, g) => {
      const x = 0.25 + 0.25 * node
      const basis = places.reduce((product, q, k) => (k === i ? product : (product * (x - q)) / (p - q)), 1)
      return sum + 0.25 * GAUSS_5.weights[g]! * basis
    }, 0),
  )
}
