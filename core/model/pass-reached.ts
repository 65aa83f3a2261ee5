import type { Drawing } from './model'

/** Ways of looking at a drawing, in the order of the work. */
export const PASS_NAMES = ['sketch', 'lines', 'weight', 'shapes', 'fill', 'deliver'] as const
export type PassName = (typeof PASS_NAMES)[number]

/** The farthest pass whose work a drawing holds; `deliver` is never among them, for a delivery leaves nothing in the drawing. */
export function passReached(drawing: Drawing): Exclude<PassName, 'deliver'> {
  const lines = drawing.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
  if (drawing.fills?.length) return 'fill'
  if (drawing.amendments?.length) return 'shapes'
  if (lines.some(({ weight }) => weight.start || weight.end || weight.nib || weight.stops.length > 1)) return 'weight'
  return lines.length ||
    drawing.layers.some((l) => l.kind !== 'lines' && l.kind !== 'sketch' && l.items.length) ||
    !drawing.layers.some((l) => l.kind === 'sketch' && l.items.length)
    ? 'lines'
    : 'sketch'
}
