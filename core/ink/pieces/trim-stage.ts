import type { Line, Shape, Trim } from '../../model/model'
import type { Path } from '../../geometry/path'
import { toPaths } from '../../arrangement/contours'
import { overlap } from '../../geometry/bounds'
import { DividedInk, pathsOf } from './divided-ink'
import type { Region } from '../outlines/outlines'
import { regionOf } from '../outlines/outlines'
import { pieceFor } from './trim-place'
import { isSameList } from '../../same-list'

/** What a trim came to: the piece that it takes away, or null where it waits because that is gone. */
export interface TrimResult {
  trim: Trim
  piece: Path[] | null
}

/** An item and its ink, tucked. */
export interface Shown {
  item: Line | Shape
  region: Region
}

/** Ink and what was trimmed away of it. */
export interface Trimmed {
  /** By id, every item with its ink as the trims find it, in their order. */
  shown: ReadonlyMap<string, Shown>
  /** What each trim came to. */
  trims: readonly TrimResult[]
}

interface Known {
  line: Line
  region: Region
  trims: readonly Trim[]
  met: readonly (Region | undefined)[]
  trimmed: Region
  results: readonly TrimResult[]
}

/** Whether a trim takes all of its line's ink away. */
export const isWhole = (t: Pick<Trim, 'over' | 'bounds'>): boolean => !t.over.length && !t.bounds.length

/** The ink of lines less the pieces that were trimmed away, kept for as long as they and what bounds these are the same. */
export class Trims {
  private known = new Map<string, Known>()

  /** @param tolerance px */
  constructor(private readonly tolerance: number) {}

  /** By the id of a line that has trims, its ink without them; and what each trim came to, in their order. */
  of(
    shown: ReadonlyMap<string, Shown>,
    trims: readonly Trim[],
  ): { clipped: ReadonlyMap<string, Region>; results: TrimResult[] } {
    const before = this.known
    this.known = new Map()
    const byLine = new Map<string, Trim[]>()
    for (const t of trims) byLine.set(t.line, [...(byLine.get(t.line) ?? []), t])
    const clipped = new Map<string, Region>()
    const results = new Map<Trim, TrimResult>()
    for (const [id, mine] of byLine) {
      const own = shown.get(id)
      if (!own || !('path' in own.item)) continue
      const ids = [...new Set(mine.flatMap((t) => [...t.over, ...t.bounds.map((b) => b.by)]))]
      const met = ids.map((o) => shown.get(o)?.region)
      let known = before.get(id)
      if (
        known?.line !== own.item ||
        known.region !== own.region ||
        !isSameList(known.trims, mine) ||
        !isSameList(known.met, met)
      ) {
        known = {
          line: own.item,
          region: own.region,
          trims: mine,
          met,
          ...this.worked(own.item, own.region, mine, ids, met),
        }
      }
      this.known.set(id, known)
      if (known.trimmed !== own.region) clipped.set(id, known.trimmed)
      for (const r of known.results) results.set(r.trim, r)
    }
    return { clipped, results: trims.map((trim) => results.get(trim) ?? { trim, piece: null }) }
  }

  private worked(
    line: Line,
    region: Region,
    trims: readonly Trim[],
    ids: readonly string[],
    met: readonly (Region | undefined)[],
  ): { trimmed: Region; results: TrimResult[] } {
    const whole = trims.find(isWhole)
    if (whole)
      return {
        trimmed: regionOf([]),
        results: trims.map((trim) => ({
          trim,
          piece: trim === whole ? toPaths(region.contours.map((c) => [...c])) : null,
        })),
      }
    const divided = DividedInk.of(
      region.contours,
      met.map((m) => (m && overlap(m.box, region.box) ? m.contours : [])),
      this.tolerance,
    )
    if (!divided) return { trimmed: region, results: trims.map((trim) => ({ trim, piece: null })) }
    const gone = new Set<number>()
    const results = trims.map((trim): TrimResult => {
      const by = new Set([...trim.over, ...trim.bounds.map((b) => b.by)].map((id) => ids.indexOf(id)))
      const piece = pieceFor(line, trim, divided.pieces(by), ids)
      for (const f of piece?.faces ?? []) gone.add(f)
      return { trim, piece: piece && pathsOf(piece) }
    })
    return { trimmed: gone.size ? regionOf(divided.without(gone)) : region, results }
  }
}
