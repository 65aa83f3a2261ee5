import type { Weight, WidthStop } from '../model/model'

/** The profile of a line without the light. */
export const unlitStops = (weight: Weight): WidthStop[] => weight.unlit ?? weight.stops

/** `weight` with other stops as its own profile: no light lies on them. */
export function withOwnStops<T extends Weight>(weight: T, stops: WidthStop[]): T {
  const next = { ...weight, stops }
  delete next.unlit
  return next
}

/** `weight` with its profile, and the one that it has without the light, put through `change`. */
export const withStopsChanged = (weight: Weight, change: (stops: readonly WidthStop[]) => WidthStop[]): Weight => ({
  ...weight,
  stops: change(weight.stops),
  ...(weight.unlit && { unlit: change(weight.unlit) }),
})

/** `weight` with stops that were set by hand: from now on rules leave it alone. */
export const withHandStops = (weight: Weight, stops: WidthStop[]): Weight => ({
  ...withOwnStops(weight, stops),
  pinned: true,
})
