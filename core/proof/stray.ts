import { arcOfPath } from '../geometry/known'
import type { Finding, Proofed } from './finding'

/** Inks are nearly alike when no channel differs by more than this, of 255. */
const ALIKE = 12

const channels = (colour: string): number[] => [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16))

/** Lines in an ink that is nearly another one of which there is more. */
export function strayInks({ lines, drawing: { inks } }: Proofed): Finding[] {
  const used = new Map<string, number>()
  for (const { ink } of lines) used.set(ink, (used.get(ink) ?? 0) + 1)
  const meant = new Map<string, string>()
  for (const a of inks) {
    if (!used.has(a.id)) continue
    const more = inks.filter(
      (b) =>
        b !== a &&
        (used.get(b.id) ?? 0) > used.get(a.id)! &&
        channels(a.colour).every((v, i) => Math.abs(v - channels(b.colour)[i]!) <= ALIKE),
    )
    if (more[0]) meant.set(a.id, more[0].id)
  }
  return lines.flatMap((line): Finding[] => {
    const ink = meant.get(line.ink)
    return ink
      ? [
          {
            key: `stray ${line.id}`,
            kind: 'stray',
            at: arcOfPath(line.path).point(arcOfPath(line.path).total / 2),
            items: [line.id],
            mend: { do: 'ink', line: line.id, ink },
          },
        ]
      : []
  })
}
