import type { Cubic } from '../../geometry/cubic'
import { shapeSettingsOf } from '../../model/fineness'
import type { Drawing } from '../../model/model'
import type { Recall } from '../../recall/recall'
import { lastOf } from '../../remembered'
import { latticeOf } from '../../shapes/lattice'
import { LatticeUnion } from '../../shapes/lattice-union'
import { scaled } from '../../turns'
import type { AllInk } from '../stack/all-ink'
import { cellsFor } from '../stack/all-ink'
import type { Group } from '../stack/groups'
import { groupsOf } from '../stack/groups'
import { unitedParts } from '../stack/united-parts'
import type { Failure } from '../outlines/outlines'
import type { Part, Stack } from '../stack/stack'

/** The groups of a drawing's parts, and the contours of each. */
export interface United {
  stack: Stack
  groups: Group[]
  contours: Cubic[][][]
  /** Items that could not be united with the others. */
  failed: Failure[]
}

/** Unites the parts of each group; what a group was united of is kept from edit to edit. */
export class Unions {
  /** The union of each group, by its id, on the lattice that suits the page and the number of parts. */
  private readonly kept = lastOf((_size: number, _tolerance: number) => new Map<string, LatticeUnion>())

  /**
   * @param how `recall`: where what was worked out before is found; `parts`: so many, at least, the cells are to suit; `keyOf`:
   * which parts unite, told for a drawing, those of one ink when absent
   */
  constructor(
    private readonly allInk: AllInk,
    private readonly how: {
      recall: Recall | null
      parts: number
      keyOf?: (drawing: Drawing) => (part: Part) => string
    },
  ) {}

  /** @param parts what is drawn, bottom to top: what was poured, then the stack in its tints */
  *of(drawing: Drawing, stack: Stack, parts: readonly Part[]): Generator<number, United> {
    const { unite, tolerance } = shapeSettingsOf(drawing)
    if (!unite) {
      const groups = parts.map((p): Group => ({
        id: 'path' in p.item ? `${p.item.id}:shape` : p.item.id,
        ink: p.item.ink,
        parts: [p],
      }))
      return { stack, groups, contours: groups.map((g) => [...g.parts[0]!.region.contours]), failed: [] }
    }
    const groups = groupsOf(parts, this.how.keyOf?.(drawing))
    const unionOf = this.unionsOn(cellsFor(drawing.page, Math.max(this.how.parts, parts.length)), tolerance, groups)
    const contours: Cubic[][][] = []
    const failed: Failure[] = []
    for (const [i, { id, parts: mine }] of groups.entries()) {
      const isAll = mine.length === stack.parts.length && mine.every((p, k) => p.region === stack.parts[k]!.region)
      const made = isAll ? this.allInk.of(stack, drawing) : unitedParts(unionOf(id), mine)
      const united = yield* scaled(made, i / groups.length, 1 / groups.length)
      contours.push(united.contours)
      failed.push(...united.failed)
    }
    return { stack, groups, contours, failed }
  }

  private unionsOn(size: number, tolerance: number, groups: readonly Group[]): (id: string) => LatticeUnion {
    const kept = this.kept(size, tolerance)
    const ids = new Set(groups.map((g) => g.id))
    for (const id of kept.keys()) if (!ids.has(id)) kept.delete(id)
    return (id) => {
      let union = kept.get(id)
      if (!union) kept.set(id, (union = new LatticeUnion(latticeOf(size), tolerance, this.how.recall)))
      return union
    }
  }
}
