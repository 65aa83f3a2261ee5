import type { Weight, WidthStop } from '#core/model/model'

type Stop = readonly [at: number, width: number] | readonly [at: number, left: number, right: number]

const stopOf = (s: Stop): WidthStop => ({ at: s[0], left: s[1], right: s[2] ?? s[1] })

/** A weight of a size (px) through stops: place and width, or place, left and right. */
export const weight = (size: number, ...stops: Stop[]): Weight => ({
  size,
  stops: stops.map(stopOf),
  start: null,
  end: null,
  nib: null,
  pinned: false,
})

/** Both ends float in space: thin, swelling at `peak`, thin again. */
export const floating = (size: number, peak = 0.5): Weight => weight(size, [0, 0], [peak, 1], [1, 0])

/** Tucks under a line at its start and floats at its end. */
export const outward = (size: number, belly = 0.3): Weight => weight(size, [0, 0.8], [belly, 1], [1, 0])

/** Both ends touch other lines; in shadow between. */
export const between = (size: number, peak = 0.5, ends = 0.55): Weight => weight(size, [0, ends], [peak, 1], [1, ends])
