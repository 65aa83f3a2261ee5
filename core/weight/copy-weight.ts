import { withOwnStops } from './own-stops'
import type { Weight } from '../model/model'

/** What of a weight is put on another line: all of it, its course with the tapers, or its size. */
export type WeightPart = 'all' | 'profile' | 'size'

/** `onto` with a part of another line's weight; whether it is pinned stays. */
export function pastedWeight(onto: Weight, from: Weight, part: WeightPart): Weight {
  const { stops, unlit, start, end } = structuredClone(from)
  switch (part) {
    case 'all':
      return { ...withOwnStops(structuredClone(from), unlit ?? stops), pinned: onto.pinned }
    case 'profile':
      return { ...withOwnStops(onto, unlit ?? stops), start, end }
    case 'size':
      return { ...onto, size: from.size }
  }
}
