import { lab } from 'd3-color'
import type { Ink } from './model'

/** How far the lightness (0..100) goes at full strength. */
const REACH = 45

/** The id of a tone of an ink, darker (below 0) or lighter (above 0), -1..1: nothing that a drawing lists, but `colourIn` knows it. */
export const tonedInk = (ink: string, tone: number): string =>
  tone === 0 ? ink : `${ink} ${tone < 0 ? '-' : '+'}${Math.abs(tone).toFixed(2)}`

const TONED = /^(.*) ([+-]\d\.\d\d)$/

/** The ink that an id stands for, and which tone of it. */
export function untoned(id: string): { ink: string; tone: number } {
  const found = TONED.exec(id)
  return found ? { ink: found[1]!, tone: Number(found[2]) } : { ink: id, tone: 0 }
}

/** The colour of an ink or of a tone of one, #rrggbb; black where there is no such ink. */
export function colourIn(inks: readonly Ink[], id: string): string {
  const own = inks.find((i) => i.id === id)
  if (own) return own.colour
  const { ink, tone } = untoned(id)
  const of = tone ? inks.find((i) => i.id === ink) : undefined
  return of ? tonedColour(of.colour, tone) : '#000000'
}

/** A colour made darker or lighter by its lightness in CIE Lab, which the eye takes for even steps. */
function tonedColour(colour: string, tone: number): string {
  const c = lab(colour)
  // Shade keeps its colour, light pales a little.
  const chroma = tone > 0 ? 1 - 0.35 * tone : 1
  return lab(Math.min(100, Math.max(0, c.l + REACH * tone)), c.a * chroma, c.b * chroma)
    .rgb()
    .clamp()
    .formatHex()
}

/** Difference of lightness and colour between two inks as the eye sees it, CIE 1976: under about 10 they are hard to tell apart side by side. */
export function differenceOf(a: string, b: string): number {
  const [p, q] = [lab(a), lab(b)]
  return Math.hypot(p.l - q.l, p.a - q.a, p.b - q.b)
}
