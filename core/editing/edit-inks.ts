import { newId } from '../new-id'
import { freeName } from '../model/free-name'
import type { Drawing, Ink } from '../model/model'

/** Adds an ink to a draft and answers its id. */
export function addInk(draft: Drawing, { name, colour }: Omit<Ink, 'id'>): string {
  const id = newId()
  draft.inks.push({ id, name: freeName(new Set(draft.inks.map((i) => i.name)), name), colour })
  return id
}

/** Everything in a draft that has one ink gets the other; where `swap`, the other way round as well. */
export function exchangeInk(draft: Drawing, from: string, to: string, swap = false): void {
  const other = (ink: string): string => (ink === from ? to : swap && ink === to ? from : ink)
  for (const layer of draft.layers) {
    if (layer.kind === 'sketch' || !layer.items.some((i) => other(i.ink) !== i.ink)) continue
    for (const item of layer.items) item.ink = other(item.ink)
  }
  for (const fill of draft.fills ?? []) {
    fill.ink = other(fill.ink)
    for (const shade of fill.shades ?? []) if (shade.ink) shade.ink = other(shade.ink)
  }
}

/** Takes an ink out of a draft; what has it gets another. The last ink stays. */
export function removeInk(draft: Drawing, id: string, to: string): void {
  if (draft.inks.length < 2 || id === to) return
  exchangeInk(draft, id, to)
  draft.inks = draft.inks.filter((i) => i.id !== id)
}

/** Moves an ink in the palette by so many places. */
export function moveInk(draft: Drawing, id: string, by: number): void {
  const from = draft.inks.findIndex((i) => i.id === id)
  const to = Math.min(draft.inks.length - 1, Math.max(0, from + by))
  if (from < 0 || from === to) return
  const [ink] = draft.inks.splice(from, 1)
  draft.inks.splice(to, 0, ink!)
}

/** How many lines, shapes and fills have an ink. */
export function usesOf(drawing: Drawing, id: string): number {
  const items = drawing.layers.reduce(
    (n, l) => n + (l.kind === 'sketch' ? 0 : l.items.filter((i) => i.ink === id).length),
    0,
  )
  return items + (drawing.fills ?? []).filter((f) => f.ink === id).length
}
