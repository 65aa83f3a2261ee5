import type { Taper, Weight, WidthStop } from '../model/model'
import { unlitStops, withOwnStops } from './own-stops'
import { Profile } from './profile'
import { sizeTapers, taperAt } from './taper'

/** Stops that stand for a taper that reaches over a cut. */
const TAPER_STOPS = 8

/** A taper with its length in px. */
const inPx = (taper: Taper | null, total: number): Taper | null =>
  taper && (taper.unit === '%' ? { ...taper, unit: 'px', length: (taper.length / 100) * total } : taper)

/**
 * The weight of the part of an open line between two shares 0..1 of its length, `total` px: as wide everywhere as the
 * whole line is there. Ends of the line keep their taper where it ends before the cut; a taper that reaches over the cut
 * becomes stops.
 */
export function partOfWeight(weight: Weight, from: number, to: number, total: number): Weight {
  const { unlit, ...shown } = weight
  const part = partOfProfile(shown, from, to, total)
  return unlit ? { ...part, unlit: partOfProfile({ ...shown, stops: unlit }, from, to, total).stops } : part
}

function partOfProfile(weight: Weight, from: number, to: number, total: number): Weight {
  const profile = new Profile(weight.stops, false)
  const { start, end } = sizeTapers(weight.start, weight.end, total)
  const keepsStart = from <= 0 && (start?.length ?? 0) <= to * total
  const keepsEnd = to >= 1 && (end?.length ?? 0) <= (1 - from) * total
  const foreign = (u: number): number => {
    const s = u * total
    const atStart = start && !keepsStart ? taperAt(start, s).value : 1
    const atEnd = end && !keepsEnd ? taperAt(end, total - s).value : 1
    return atStart * atEnd
  }
  const inner = weight.stops.map((s) => s.at).filter((at) => at > from && at < to)
  const places = new Set([from, to, ...inner])
  // The span of the profile that is cut keeps its bend with a stop on its way.
  if (from > 0) places.add((from + Math.min(to, ...inner)) / 2)
  if (to < 1) places.add((Math.max(from, ...inner) + to) / 2)
  const spread = (a: number, b: number): void => {
    for (let i = 0; i <= TAPER_STOPS; i++) {
      const u = a + ((b - a) * i) / TAPER_STOPS
      if (u >= from && u <= to) places.add(u)
    }
  }
  if (start && !keepsStart && start.length > from * total) spread(from, Math.min(to, start.length / total))
  if (end && !keepsEnd && end.length > (1 - to) * total) spread(Math.max(from, 1 - end.length / total), to)
  const stops = [...places]
    .sort((a, b) => a - b)
    .map((u): WidthStop => {
      const own = weight.stops.find((s) => s.at === u)
      const k = foreign(u)
      return {
        at: to > from ? (u - from) / (to - from) : 0,
        left: profile.sampleLeft(u).value * k,
        right: profile.sampleRight(u).value * k,
        ...(own?.sharp && { sharp: true }),
      }
    })
  const plain = stops.every((s) => s.left === stops[0]!.left && s.right === stops[0]!.right)
  return {
    ...weight,
    stops: plain ? [{ ...stops[0]!, at: 0 }] : stops,
    start: keepsStart ? inPx(weight.start, total) : null,
    end: keepsEnd ? inPx(weight.end, total) : null,
  }
}

/** The weight of two lines that have become one: `a` px of the first, `gap` px between them, `b` px of the second. */
export function joinedWeight(first: Weight, second: Weight, a: number, gap: number, b: number): Weight {
  const joined = joinedProfiles(withOwnStops(first, first.stops), second, a, gap, b)
  if (!first.unlit && !second.unlit) return joined
  return {
    ...joined,
    unlit: joinedProfiles({ ...first, stops: unlitStops(first) }, { ...second, stops: unlitStops(second) }, a, gap, b)
      .stops,
  }
}

function joinedProfiles(first: Weight, second: Weight, a: number, gap: number, b: number): Weight {
  const total = a + gap + b || 1
  const k = first.size > 0 ? second.size / first.size : 1
  const along = (weight: Weight, offset: number, length: number, scale: number): WidthStop[] => {
    const profile = new Profile(weight.stops, false)
    const inner = weight.stops.filter((s) => s.at > 0 && s.at < 1)
    const end = (at: number): WidthStop => ({
      at,
      left: profile.sampleLeft(at).value,
      right: profile.sampleRight(at).value,
    })
    return [end(0), ...inner, end(1)].map((s) => ({
      ...s,
      at: (offset + s.at * length) / total,
      left: s.left * scale,
      right: s.right * scale,
    }))
  }
  const stops = [...along(first, 0, a, 1), ...along(second, a + gap, b, k)].filter(
    (s, i, all) => i === 0 || s.at > all[i - 1]!.at + 1e-6,
  )
  const plain = stops.every((s) => s.left === stops[0]!.left && s.right === stops[0]!.right)
  return {
    ...first,
    stops: plain ? [{ ...stops[0]!, at: 0 }] : stops,
    start: inPx(first.start, a),
    end: inPx(second.end, b),
  }
}
