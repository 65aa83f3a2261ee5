import { linesOf } from '../../model/queries'
import type { Drawing, Hold } from '../../model/model'

/** Stretches that lie across from each other along a line overlap by so much of its length at least. */
const LEAST = 0.02

/**
 * Which inks lie side by side: those of two fills with a stretch of one line between them, and that of a line with those of
 * the fills that it bounds. Pairs of ids, each once, the lesser first.
 */
export function inksSideBySide(drawing: Pick<Drawing, 'layers' | 'fills'>): [string, string][] {
  const pairs = new Map<string, [string, string]>()
  const add = (a: string, b: string): void => {
    if (a !== b) pairs.set(a < b ? `${a} ${b}` : `${b} ${a}`, a < b ? [a, b] : [b, a])
  }
  const inkOf = new Map(linesOf(drawing).map((l) => [l.id, l.ink]))
  const byLine = new Map<string, { ink: string; hold: Hold }[]>()
  for (const { ink, hold } of drawing.fills ?? []) {
    for (const h of hold) {
      const own = inkOf.get(h.line)
      if (own === undefined) continue
      add(ink, own)
      const others = byLine.get(h.line) ?? []
      for (const o of others)
        if (o.hold.side !== h.side && Math.min(o.hold.to, h.to) - Math.max(o.hold.from, h.from) > LEAST) add(ink, o.ink)
      byLine.set(h.line, [...others, { ink, hold: h }])
    }
  }
  return [...pairs.values()]
}
