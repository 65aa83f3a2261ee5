import { findLayer } from '../model/find'
import type { Drawing, Line } from '../model/model'

/** Puts lines that were laid on top of a layer; they go along with what is mirrored or repeated as it is drawn. */
export function layLines(draft: Drawing, layer: string, lines: readonly Line[]): void {
  findLayer(draft, layer)?.items.push(...lines)
  const ids = lines.map((l) => l.id)
  for (const a of draft.amendments ?? [])
    if ((a.kind === 'mirror' || a.kind === 'repeat') && a.fresh) a.lines.push(...ids)
}
