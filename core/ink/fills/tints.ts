import { tonedInk } from '../../model/inks'
import type { Drawing, Line } from '../../model/model'
import { arcOfPath } from '../../geometry/known'
import type { Poured } from './fill-stage'
import type { Part } from '../stack/stack'
import { rememberedBy } from '../../remembered'

/** How strong the tint of a line is: its own, else that of all; 0 is none. */
const strengthOf = (line: Line, { settings }: Pick<Drawing, 'settings'>): number => line.tint ?? settings.tint ?? 0

/** By id of the lines that have a tone of the fill that they bound, the ink that they have: of several fills that of the longest stretch. */
export function tintsOf(
  drawing: Drawing,
  lines: readonly Line[],
  poured: readonly Poured[],
): ReadonlyMap<string, string> {
  const tinted = new Map(lines.flatMap((l) => (strengthOf(l, drawing) === 0 ? [] : [[l.id, l]])))
  const out = new Map<string, string>()
  if (!tinted.size) return out
  const longest = new Map<string, number>()
  const byInk = new Map<string, Map<string, number>>()
  for (const { fill, hold } of poured) {
    for (const h of hold) {
      const line = tinted.get(h.line)
      if (!line) continue
      const lengths = byInk.get(h.line) ?? new Map<string, number>()
      byInk.set(h.line, lengths)
      const length = (lengths.get(fill.ink) ?? 0) + (h.to - h.from) * arcOfPath(line.path).total
      lengths.set(fill.ink, length)
      if (length <= (longest.get(h.line) ?? 0)) continue
      longest.set(h.line, length)
      out.set(h.line, tonedInk(fill.ink, -strengthOf(line, drawing)))
    }
  }
  return out
}

const inTint = rememberedBy((part: Part, ink: string): Part => ({ ...part, item: { ...part.item, ink } }))

/** Parts with the inks that tinted lines have; the same objects for the same parts and inks. */
export const withTints = (parts: readonly Part[], tints: ReadonlyMap<string, string>): readonly Part[] =>
  tints.size
    ? parts.map((part) => {
        const ink = tints.get(part.item.id)
        return ink ? inTint(part, ink) : part
      })
    : parts
