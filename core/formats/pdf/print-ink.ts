import { rgb } from 'd3-color'
import type { Ink, PrintInk } from '../../model/model'

/** Neutral inks at most so light print with black alone, 0..255. */
const DARK = 64
/** Channels no farther apart than this are neutral. */
const NEUTRAL = 12

/**
 * Percentages that an ink is printed with: those that were given, else from its colour without any profile, as much grey as
 * can be made of black. Dark neutral inks are black alone, so that lines stay sharp.
 */
export function printInkOf({ colour, print }: Pick<Ink, 'colour' | 'print'>): PrintInk {
  if (print) return print
  const { r, g, b } = rgb(colour)
  const lightest = Math.max(r, g, b)
  if (lightest <= DARK && lightest - Math.min(r, g, b) <= NEUTRAL) return { c: 0, m: 0, y: 0, k: 100 }
  const of = (v: number): number => Math.round((100 * (lightest - v)) / (lightest || 1))
  return { c: of(r), m: of(g), y: of(b), k: Math.round(100 * (1 - lightest / 255)) }
}
