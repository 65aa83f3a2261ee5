import type { LightRule, Line, Weight, WidthStop } from '../model/model'
import { courseOf } from '../geometry/course'
import type { Side } from '../relations/outside'
import { fewestStops } from './fewest-stops'
import { unlitStops, withOwnStops } from './own-stops'
import { Profile } from './profile'

/** How much of its width an edge loses at full strength where it faces the light, and gains where it faces away. */
const LOSS = 0.7
const GAIN = 0.5
/** The profile under a light lies so near to it, as a share of the width. */
const EXACT = 0.01

/**
 * How the light counts along a line: factors at the places of its course. An edge that faces the light gets less than 1,
 * one that faces away more; the softer, the more gently it passes from one to the other.
 */
export function lightAlong(line: Line, outside: Side, { at, strength, softness }: LightRule): Float64Array {
  const { x, y, nx, ny } = courseOf(line.path)
  const sign = outside === 'left' ? 1 : -1
  // From a straight passage (soft) to one that turns within a few degrees (hard).
  const steep = 0.4 + 6 * (1 - softness) ** 2
  const full = Math.tanh(steep)
  const out = new Float64Array(x.length)
  for (let i = 0; i < x.length; i++) {
    const dx = at.x - x[i]!
    const dy = at.y - y[i]!
    const far = Math.hypot(dx, dy)
    const facing = far > 0 ? (sign * (dx * nx[i]! + dy * ny[i]!)) / far : 0
    const turned = Math.tanh(steep * facing) / full
    out[i] = 1 - strength * turned * (turned > 0 ? LOSS : GAIN)
  }
  return out
}

/** The weight of a line under a light: its own profile times the light's factors, as few stops. */
function litWeight(line: Line, outside: Side | null, rule: LightRule): Weight {
  const own = unlitStops(line.weight)
  if (!outside || rule.strength === 0) return unlitWeight(line.weight)
  const { at } = courseOf(line.path)
  const factors = lightAlong(line, outside, rule)
  const profile = new Profile(own, line.path.closed)
  const stopAt = (u: number): WidthStop => {
    const k = factorAt(at, factors, u, line.path.closed)
    const sharp = own.find((s) => s.at === u)?.sharp
    return {
      at: u,
      left: profile.sampleLeft(u).value * k,
      right: profile.sampleRight(u).value * k,
      ...(sharp && { sharp }),
    }
  }
  const course = {
    at,
    left: at.map((u, i) => profile.sampleLeft(u).value * factors[i]!),
    right: at.map((u, i) => profile.sampleRight(u).value * factors[i]!),
  }
  const widest = course.left.reduce((most, w, i) => Math.max(most, w, course.right[i]!), 0)
  const stops = fewestStops(
    course,
    line.path.closed,
    EXACT * widest,
    own.length > 1 ? own.map((s) => stopAt(s.at)) : [],
  )
  return {
    ...line.weight,
    stops: stops.map((s) => ({ ...s, left: rounded(s.left), right: rounded(s.right) })),
    unlit: own,
  }
}

/** The weight as it is without the light. */
export function unlitWeight(weight: Weight): Weight {
  return weight.unlit ? withOwnStops(weight, weight.unlit) : weight
}

const rounded = (w: number): number => Math.round(w * 1e4) / 1e4

function factorAt(at: Float64Array, factors: Float64Array, u: number, closed: boolean): number {
  const n = at.length
  const spans = closed ? n : n - 1
  const s = Math.min(spans, Math.max(0, u * spans))
  const i = Math.min(spans - 1, Math.floor(s))
  const [a, b] = [factors[i]!, factors[(i + 1) % n]!]
  return a + (b - a) * (s - i)
}

/** Every line with an outside that is not pinned, under the light; the same object where nothing changes. */
export function litLine(line: Line, outside: Side | null, rule: LightRule): Line {
  if (line.weight.pinned) return line
  const weight = litWeight(line, outside, rule)
  return sameWeight(weight, line.weight) ? line : { ...line, weight }
}

function sameWeight(a: Weight, b: Weight): boolean {
  return (
    a === b ||
    (sameStops(a.stops, b.stops) && (a.unlit === b.unlit || (!!a.unlit && !!b.unlit && sameStops(a.unlit, b.unlit))))
  )
}

const sameStops = (a: readonly WidthStop[], b: readonly WidthStop[]): boolean =>
  a.length === b.length &&
  a.every((s, i) => s.at === b[i]!.at && s.left === b[i]!.left && s.right === b[i]!.right && s.sharp === b[i]!.sharp)
