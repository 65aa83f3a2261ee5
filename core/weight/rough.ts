import type { Line, Weight, WidthStop } from '../model/model'
import { smoothNoise } from '../geometry/noise'
import { Profile } from './profile'

/** An edge never swings by more than this share of the half-width that it has. */
const MOST = 0.9
/** Stops to a grain, and altogether at most. */
const TO_A_GRAIN = 2
const MOST_STOPS = 2000

/**
 * The weight of a line `total` px long with the unevenness of its finish: each edge swings in and out by up to `amount`
 * px, once a `grain` px, in its own way. The same seed gives the same edge; without roughness the very same weight.
 */
export function roughWeight({ weight, finish, path }: Pick<Line, 'weight' | 'finish' | 'path'>, total: number): Weight {
  const { rough } = finish
  if (!rough || !(rough.amount > 0) || !(total > 0) || !(weight.size > 0)) return weight
  const half = weight.size / 2
  const profile = new Profile(weight.stops, path.closed)
  const grains = Math.max(1, Math.round(total / Math.max(rough.grain, (TO_A_GRAIN * total) / MOST_STOPS)))
  const period = path.closed ? grains : Infinity
  const edge = (value: number, u: number, seed: number): number =>
    value + (Math.min(rough.amount, MOST * value * half) / half) * smoothNoise(u * grains, seed, period)
  const spans = grains * TO_A_GRAIN
  const places = new Set(Array.from({ length: path.closed ? spans : spans + 1 }, (_, i) => i / spans))
  for (const s of weight.stops) places.add(s.at)
  const stops = [...places]
    .sort((a, b) => a - b)
    .map((at): WidthStop => ({
      at,
      left: edge(profile.sampleLeft(at).value, at, 2 * rough.seed),
      right: edge(profile.sampleRight(at).value, at, 2 * rough.seed + 1),
    }))
  return { ...weight, stops }
}
