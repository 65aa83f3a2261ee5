/** Heaviest line that can be asked for, px. */
export const HEAVIEST = 1000

/** Factor of one step lighter or heavier. */
const STEP = 1.1

/** Sizes stay readable: a tenth of a px, for hairlines a thousandth. */
const readable = (size: number): number => (size < 1 ? Math.round(size * 1000) / 1000 : Math.round(size * 10) / 10)

/** A size (px) one step heavier, up to HEAVIEST. */
export const heavier = (size: number): number => Math.min(HEAVIEST, Math.max(readable(size * STEP), size))

/** A size (px) one step lighter. */
export const lighter = (size: number): number => Math.min(readable(size / STEP), size)
