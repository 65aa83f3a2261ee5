import { perUsualPx } from '../../model/fineness'
import type { Drawing, Fineness, Line, PlaceBy } from '../../model/model'
import { linesOf } from '../../model/queries'
import type { Cubic } from '../../geometry/cubic'
import { arcOfPath } from '../../geometry/known'
import { windingAt } from '../../geometry/winding-at'
import { islandAt, islandsOf } from '../../shapes/islands'
import { amended } from './stack'
import { pointBy } from '../pieces/trim-place'

/** So many places of a line are looked at for one in an island. */
const PLACES = 24

/** Places on the middle of lines that lie in the ink of an island, one a line: which lines are in it, and where. */
export function placesIn(
  contours: readonly (readonly Cubic[])[],
  lines: readonly Line[],
): { line: string; place: PlaceBy }[] {
  return lines.flatMap((line) => {
    const arc = arcOfPath(line.path)
    for (let i = 0; i <= PLACES; i++) {
      // From the middle outwards: ends lie beneath others, or are trimmed.
      const at = 0.5 + (i % 2 ? -i : i) / (2 * PLACES)
      if (windingAt(contours, arc.point(at * arc.total)) !== 0)
        return [{ line: line.id, place: { at, ahead: 0, left: 0 } }]
    }
    return []
  })
}

/** The islands of a drawing that are simplified by tolerances of their own. */
export class OwnFineness {
  private readonly all: readonly Fineness[]
  private readonly lines: ReadonlyMap<string, Line>
  private readonly found = new Set<string>()
  private readonly scale: number

  constructor(drawing: Drawing) {
    this.all = amended(drawing, 'fineness')
    this.lines = this.all.length ? new Map(linesOf(drawing).map((l) => [l.id, l])) : new Map()
    this.scale = perUsualPx(drawing.page)
  }

  /** The tolerances of contours, px, that have another than the rest; `from` are the lines that they came from. */
  of(
    contours: readonly (readonly Cubic[])[],
    from: ReadonlySet<string>,
  ): ReadonlyMap<readonly Cubic[], number> | undefined {
    const here = this.all.filter((f) => from.has(f.line))
    if (!here.length) return undefined
    const islands = islandsOf(contours)
    const out = new Map<readonly Cubic[], number>()
    for (const { id, line, place, simplify } of here) {
      const island = islandAt(contours, islands, pointBy(this.lines.get(line)!, place))
      if (!island) continue
      this.found.add(id)
      for (const i of island) out.set(contours[i]!, simplify * this.scale)
    }
    return out.size ? out : undefined
  }

  /** Ids of those that found no island so far. */
  waits(): string[] {
    return this.all.flatMap((f) => (this.found.has(f.id) ? [] : [f.id]))
  }
}
