import { shapeSettingsOf } from '../../model/fineness'
import type { Drawing, Page } from '../../model/model'
import type { Recall } from '../../recall/recall'
import { latticeOf } from '../../shapes/lattice'
import { LatticeUnion } from '../../shapes/lattice-union'
import type { Failure } from '../outlines/outlines'
import type { Stack } from './stack'
import type { UnitedParts } from './united-parts'
import { unitedParts } from './united-parts'

/** Cells along the longer side of a page: about so many for the square root of the number of parts, a power of two. */
const CELLS = 0.8
const MOST_CELLS = 64

/** The size of cells that suits a page and a number of parts, px. */
export function cellsFor(page: Pick<Page, 'width' | 'height'>, parts: number): number {
  const cells = Math.min(MOST_CELLS, 2 ** Math.max(1, Math.round(Math.log2(CELLS * Math.sqrt(parts) + 1))))
  return Math.max(page.width, page.height) / cells
}

/** The union of all ink, whatever inks it is of; kept from edit to edit. */
export class AllInk {
  /**
   * @param recall where what was worked out before is found
   * @param parts so many parts, at least, the cells are to suit
   */
  constructor(
    private readonly recall: Recall | null,
    private readonly parts = 0,
  ) {}

  *of(stack: Stack, drawing: Pick<Drawing, 'page' | 'settings'>): Generator<number, UnitedParts> {
    const { tolerance } = shapeSettingsOf(drawing)
    const size = cellsFor(drawing.page, Math.max(this.parts, stack.parts.length))
    const key = `${size} ${tolerance}`
    if (this.last?.key !== key)
      this.last = {
        key,
        union: new LatticeUnion(latticeOf(size), tolerance, this.recall),
        of: null,
        ink: { contours: [], failed: [] },
      }
    const { last } = this
    if (last.of !== stack) {
      last.ink = yield* unitedParts(last.union, stack.parts)
      last.of = stack
    }
    return last.ink
  }

  /** Items that have no ink in the stack that was united last, or none that is finished as it should be. */
  get failed(): readonly Failure[] {
    return [...(this.last?.of?.failed ?? []), ...(this.last?.ink.failed ?? [])]
  }

  private last: { key: string; union: LatticeUnion; of: Stack | null; ink: UnitedParts } | null = null
}
