/** What relative lengths are meant against, px. */
export interface LengthBase {
  /** Of which a percentage is a share. */
  whole: number
  /** Size of the font. */
  em?: number
}

/** Px of a unit (CSS Values and Units, 96 px to an inch). */
const UNITS: Record<string, number> = {
  '': 1,
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
  pt: 96 / 72,
  pc: 16,
}
const FONT = 16

/** A length in px; undefined where it cannot be read. */
export function lengthOf(text: string | undefined, { whole, em = FONT }: LengthBase): number | undefined {
  const found = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '')
  if (!found) return undefined
  const value = Number.parseFloat(found[1]!)
  const unit = found[2]!.toLowerCase()
  if (unit === '%') return (value / 100) * whole
  if (unit === 'em' || unit === 'rem') return value * em
  if (unit === 'ex' || unit === 'ch') return (value * em) / 2
  return unit in UNITS ? value * UNITS[unit]! : undefined
}
