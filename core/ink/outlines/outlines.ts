import type { Line, Shape } from '../../model/model'
import type { Path } from '../../geometry/path'
import { InputError } from '../../errors'
import type { Box } from '../../geometry/bounds'
import { boxOfCubics, overlap } from '../../geometry/bounds'
import { boxOfPath } from '../../geometry/known'
import type { Cubic } from '../../geometry/cubic'
import { outlineOf } from '../../outline/expand'
import { ArrangementFault } from '../../arrangement/check-arrangement'
import { loopOfPath } from '../../arrangement/contours'
import { loopOf } from '../../arrangement/loop'
import { resolveGroups, resolveLoops } from '../../arrangement/resolve'

/** The region that an item inks: closed contours that do not cross, the region on their left. */
export interface Region {
  contours: readonly Cubic[][]
  box: Box
}

/** An item whose ink cannot be worked out, and a sentence that says why. */
export interface Failure {
  id: string
  message: string
}

/** The region of some closed contours, px. */
export const regionOf = (contours: readonly Cubic[][]): Region => ({ contours, box: boxOfCubics(contours.flat()) })

/** The outlines of lines and solids at one tolerance, px, kept for as long as these are the same objects. */
export class Outlines {
  private readonly known = new WeakMap<Line | Shape, Region | Failure>()
  private readonly less = new WeakMap<Region, { covers: readonly Path[]; left: Region }>()

  /** @param tolerance px */
  constructor(readonly tolerance: number) {}

  has(item: Line | Shape): boolean {
    return this.known.has(item)
  }

  /** The region of an item; an item whose ink cannot be worked out loses nothing but its own. */
  of(item: Line | Shape): Region | Failure {
    let region = this.known.get(item)
    if (!region) this.known.set(item, (region = this.worked(item)))
    return region
  }

  private worked(item: Line | Shape): Region | Failure {
    try {
      return regionOf(
        'path' in item
          ? outlineOf(item, this.tolerance)
          : resolveLoops(
              item.contours.map(loopOfPath).filter((l) => l.length),
              this.tolerance,
            ),
      )
    } catch (e) {
      if (e instanceof InputError || e instanceof ArrangementFault) return { id: item.id, message: e.message }
      throw e
    }
  }

  /** What of a region `covers` do not hide: the insides of closed paths above it. The same object when nothing is hidden. */
  uncovered(region: Region, covers: readonly Path[]): Region {
    const near = covers.filter((c) => overlap(region.box, boxOfPath(c)))
    if (!near.length || !region.contours.length) return region
    const known = this.less.get(region)
    if (known && known.covers.length === near.length && known.covers.every((c, i) => c === near[i])) return known.left
    const groups = [region.contours.map(loopOf), ...near.map((c) => [loopOfPath(c)])]
    const left = regionOf(
      resolveGroups(groups, this.tolerance, ({ covered, winding }) => covered === 1 && winding[0] !== 0),
    )
    this.less.set(region, { covers: near, left })
    return left
  }
}
