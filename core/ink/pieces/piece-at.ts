import type { Line, Trim } from '../../model/model'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { isWithin, overlap } from '../../geometry/bounds'
import { windingAt } from '../../geometry/winding-at'
import { cubicsOfPath } from '../../geometry/path'
import { DividedInk, pathsOf } from './divided-ink'
import type { Pieces } from './divided-ink'
import type { Region } from '../outlines/outlines'
import { holdOf } from './trim-place'
import type { Shown, Trimmed } from './trim-stage'
import { isWhole } from './trim-stage'
import { remembered } from '../../remembered'

/** A piece of a line's ink under the hand. */
export interface PieceHit {
  contours: Path[]
  /** The trim that takes it away, all but its id. */
  trim: Omit<Trim, 'id' | 'kind'>
  /** The id of the trim that has taken it away already, if one has. */
  taken: string | null
}

/** How a line's ink is divided by all that overlaps it. */
interface Division {
  line: Line
  met: readonly Region[]
  ids: readonly string[]
  pieces: Pieces | null
}

const known = new WeakMap<Region, Division>()

/** The pieces under a point, one of each line that has ink there; the front line first. Lines that nothing divides have none. */
export function piecesUnder(p: Vec, { shown, trims }: Trimmed, tolerance: number): PieceHit[] {
  const hits: PieceHit[] = []
  for (const own of [...shown.values()].reverse()) {
    const { item, region } = own
    if (!('path' in item) || !isWithin(p, region.box) || windingAt(region.contours, p) === 0) continue
    const whole = trims.find((t) => t.trim.line === item.id && t.piece && isWhole(t.trim))
    if (whole) {
      const { line, place, over, bounds, id } = whole.trim
      hits.push({ contours: whole.piece!, trim: { line, place, over, bounds }, taken: id })
      continue
    }
    const { pieces, ids } = divisionOf(item, own, shown, tolerance)
    const piece = pieces?.at(p)
    if (!piece?.bounds.length) continue
    const trim = { line: item.id, ...holdOf(item, piece, ids) }
    const taken = trims.find((t) => t.trim.line === item.id && t.piece && isIn(p, t.piece))
    hits.push({ contours: taken?.piece ?? pathsOf(piece), trim, taken: taken?.trim.id ?? null })
  }
  return hits
}

function divisionOf(line: Line, own: Shown, shown: ReadonlyMap<string, Shown>, tolerance: number): Division {
  const others = [...shown.values()].filter((o) => o !== own && overlap(o.region.box, own.region.box))
  const was = known.get(own.region)
  if (was?.line === line && was.met.length === others.length && was.met.every((m, i) => m === others[i]!.region))
    return was
  const divided = DividedInk.of(
    own.region.contours,
    others.map((o) => o.region.contours),
    tolerance,
  )
  const division = {
    line,
    met: others.map((o) => o.region),
    ids: others.map((o) => o.item.id),
    pieces: divided?.pieces() ?? null,
  }
  known.set(own.region, division)
  return division
}

const isIn = (p: Vec, piece: readonly Path[]): boolean => windingAt(cubicsOf(piece), p) !== 0

const cubicsOf = remembered((piece: readonly Path[]): ReturnType<typeof cubicsOfPath>[] => piece.map(cubicsOfPath))
