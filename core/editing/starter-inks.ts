import { addInk } from './edit-inks'
import type { Drawing, Ink } from '../model/model'

/** Inks to begin with: quiet garden colours that lie well beneath black lines, and are told from each other at a glance. */
export const STARTER_INKS: readonly Omit<Ink, 'id'>[] = [
  { name: 'Leaf', colour: '#7f9a55' },
  { name: 'Straw', colour: '#e8c96a' },
  { name: 'Clay', colour: '#c9764f' },
  { name: 'Beet', colour: '#9c3f5c' },
  { name: 'Rain', colour: '#9dbccb' },
  { name: 'Linen', colour: '#efe2cb' },
]

/** Whether a drawing has but the inks that its lines are drawn in: then no colour can be poured that is told from them. */
export function lacksInks(drawing: Drawing): boolean {
  const ofLines = new Set<string>()
  for (const layer of drawing.layers) if (layer.kind === 'lines') for (const line of layer.items) ofLines.add(line.ink)
  return drawing.inks.every((i, k) => ofLines.has(i.id) || (k === 0 && !ofLines.size))
}

/** Adds the starter inks to a draft; answers the id of the first. */
export const addStarterInks = (draft: Drawing): string => STARTER_INKS.map((ink) => addInk(draft, ink))[0]!
