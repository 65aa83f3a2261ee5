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
import { codeOfContours, decodedContours } from '../../recall/contour-code'
import { digestOf, digestOfContours, digestOfData } from '../../recall/digest'
import type { Code, Recall } from '../../recall/recall'
import { recalled } from '../../recall/recall'

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

/** Regions as numbers. */
export const REGION: Code<Region> = {
  encode: ({ contours }) => codeOfContours(contours),
  decode: (numbers) => regionOf(decodedContours(numbers)),
  owner: (region) => region,
}

/** Regions as numbers, none for `same`. */
export const regionOr = (same: Region): Code<Region> => ({
  encode: (region) => (region === same ? new Float64Array(0) : REGION.encode(region)),
  decode: (numbers) => (numbers.length ? REGION.decode(numbers) : same),
  owner: REGION.owner,
})

/** An outline as numbers; one that could not be worked out is tried again. */
const OUTLINE: Code<Region | Failure> = {
  encode: (result) => ('message' in result ? null : REGION.encode(result)),
  decode: REGION.decode,
  owner: (result) => result,
}

/** The outlines of lines and solids at one tolerance, px, kept for as long as these are the same objects. */
export class Outlines {
  private readonly known = new WeakMap<Line | Shape, Region | Failure>()
  private readonly less = new WeakMap<Region, { covers: readonly Path[]; left: Region }>()

  /**
   * @param tolerance px
   * @param recall where what was worked out before is found
   */
  constructor(
    readonly tolerance: number,
    private readonly recall: Recall | null = null,
  ) {}

  has(item: Line | Shape): boolean {
    return this.known.has(item)
  }

  /** The region of an item; an item whose ink cannot be worked out loses nothing but its own. */
  of(item: Line | Shape): Region | Failure {
    let region = this.known.get(item)
    if (!region) {
      const key = (): string => digestOf(`outline ${this.tolerance} ${digestOfData(item)}`)
      region = recalled(this.recall, key, OUTLINE, () => this.worked(item))
      this.known.set(item, region)
    }
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
    const key = (): string =>
      digestOf(`uncovered ${this.tolerance} ${digestOfContours(region.contours)} ${near.map(digestOfData).join('')}`)
    const left = recalled(this.recall, key, REGION, () => {
      const groups = [region.contours.map(loopOf), ...near.map((c) => [loopOfPath(c)])]
      return regionOf(
        resolveGroups(groups, this.tolerance, ({ covered, winding }) => covered === 1 && winding[0] !== 0),
      )
    })
    this.less.set(region, { covers: near, left })
    return left
  }
}
