import type { Cubic } from '../geometry/cubic'
import type { Side, Strand } from './cell-strands'
import { isSameStrand, strandsOfLoops } from './cell-strands'
import type { Lattice } from './lattice'
import { cellBox, cellOf, keyOf } from './lattice'
import { loopOf } from '../arrangement/loop'
import { asFarAsPossible } from '../arrangement/as-far-as-possible'
import type { Contour, View } from './contour-views'
import { viewsOf } from './contour-views'
import { roundAbout } from './near-cell'
import type { Recall } from '../recall/recall'
import { recalled } from '../recall/recall'
import { byPlace, placeOf } from './by-place'
import { keyOfCell, strandCode } from './strand-code'
import { FINE_STEPS, resolveLoops } from '../arrangement/resolve'
import { contourOfRing, KnownPieces } from './ring'
import { finestStep } from '../arrangement/snap-grid'
import { joinAcross } from './stitch'

/** A gate is taken for the one beyond the side within so many grid steps. */
const NEAR = 64

/** Strands that follow one another and close, and the contour that they make. */
interface Ring {
  strands: readonly Strand[]
  contour: Cubic[]
  /** Nothing of it was taken apart. */
  isWhole: boolean
}

/**
 * The union of many closed contours, made cell by cell of a lattice: what a cell holds depends on nothing but the contours
 * near it. A change makes anew only the cells that it touches or touched and the contours through them, and the result is
 * the same as if all had been made anew; what stays the same stays the same object.
 */
export class LatticeUnion {
  private readonly views = new Map<Contour, Map<number, View>>()
  private readonly seen = new Map<number, View[]>()
  /** Cells that are to be made anew, and those that were and are to be joined to their neighbours. */
  private readonly stale = new Set<number>()
  private readonly remade = new Set<number>()
  private readonly cells = new Map<number, readonly Strand[]>()
  private readonly next = new Map<Strand, Strand>()
  private readonly ringOf = new Map<Strand, Ring>()
  /** Rings with a contour, in the order of their places, and those that were closed since. */
  private ordered: Ring[] = []
  private readonly closed = new Set<Ring>()
  /** Strands that belong to no ring yet. */
  private readonly loose = new Set<Strand>()
  /** Contours too large for the cells: with one of them, all is united in one go. */
  private readonly vast = new Set<Contour>()
  /** Contours that cannot be united with the others: they are left out, and tried again next time. */
  private readonly left = new Set<Contour>()
  /** Sides at which cells could not be brought together. */
  private readonly torn = new Set<string>()
  private readonly known = new KnownPieces()
  private readonly step: number
  /** How many cells the last union made anew, and how many there are. */
  readonly count = { fresh: 0, all: 0 }

  /**
   * @param tolerance px
   * @param recall where what was worked out before is found
   */
  constructor(
    private readonly lattice: Lattice,
    private readonly tolerance: number,
    private readonly recall: Recall | null = null,
  ) {
    this.step = finestStep(tolerance)
  }

  /** Contours of the last union that could not be united with the others, and are not in it. */
  get leftOut(): ReadonlySet<Contour> {
    return this.left
  }

  /** The union of these contours, whatever the last was of: its contours, the region on their left. Yields shares done. */
  *of(contours: readonly Contour[]): Generator<number, Cubic[][]> {
    this.left.clear()
    this.exchange(contours)
    if (this.vast.size) return this.inOneGo(contours)
    const all = this.stale.size
    this.count.fresh = all
    // Whoever drops this between two cells leaves the rest to the next union.
    for (const key of this.stale) {
      this.remake(key)
      this.stale.delete(key)
      this.remade.add(key)
      yield Math.max(0, 1 - this.stale.size / all)
    }
    this.count.all = this.cells.size
    this.rejoin()
    if (this.torn.size || !this.close()) return this.inOneGo(contours.filter((c) => !this.left.has(c)))
    return this.inOrder()
  }

  private inOneGo(contours: readonly Contour[]): Cubic[][] {
    // Should anything have to go, it is what reaches too far, not what it is too far from.
    const inOrder = [...contours].sort((a, b) => Number(this.vast.has(a)) - Number(this.vast.has(b)))
    const { result, left } = asFarAsPossible(inOrder, (some) => resolveLoops(some.map(loopOf), this.tolerance))
    for (const contour of left) this.left.add(contour)
    return result
  }

  /** The contours of all rings by place; those of before are in order already. */
  private inOrder(): Cubic[][] {
    const fresh = [...this.closed].filter((r) => r.contour.length).sort((a, b) => byPlace(a.contour, b.contour))
    this.closed.clear()
    const kept = this.ordered.filter((r) => r.isWhole)
    const out: Ring[] = []
    let from = 0
    for (const ring of fresh) {
      const to = placeOf(ring, kept, from)
      for (; from < to; from++) out.push(kept[from]!)
      out.push(ring)
    }
    for (; from < kept.length; from++) out.push(kept[from]!)
    this.ordered = out
    return out.map((r) => r.contour)
  }

  /** Takes contours in and out of the cells; those in which anything changes are stale. */
  private exchange(contours: readonly Contour[]): void {
    const now = new Set(contours)
    this.vast.clear()
    for (const contour of this.views.keys()) if (!now.has(contour)) this.takeOut(contour)
    for (const contour of now) {
      if (this.views.has(contour)) continue
      const views = viewsOf(contour, this.lattice)
      if (!views) {
        this.vast.add(contour)
        continue
      }
      this.views.set(contour, views)
      for (const [key, view] of views) {
        this.stale.add(key)
        const all = this.seen.get(key)
        if (all) all.push(view)
        else this.seen.set(key, [view])
      }
    }
  }

  private takeOut(contour: Contour): void {
    const views = this.views.get(contour)!
    this.views.delete(contour)
    for (const key of views.keys()) {
      this.stale.add(key)
      const others = this.seen.get(key)!.filter((v) => v.contour !== contour)
      if (others.length) this.seen.set(key, others)
      else this.seen.delete(key)
    }
  }

  /** Makes the strands of a cell anew; those that come out as they were stay. */
  private remake(key: number): void {
    const before = this.cells.get(key) ?? []
    const after = this.strandsOf(key).map((s) => before.find((b) => isSameStrand(b, s)) ?? s)
    if (after.length) this.cells.set(key, after)
    else this.cells.delete(key)
    const kept = new Set(after)
    for (const strand of before) if (!kept.has(strand)) this.forget(strand)
    for (const strand of after) if (!this.ringOf.has(strand)) this.loose.add(strand)
  }

  private strandsOf(key: number): Strand[] {
    const views = this.seen.get(key)
    if (!views) return []
    const around = views.reduce((n, v) => n + v.around, 0)
    const near = views.filter((v) => v.loop)
    // What all of the cell lies in, and no hole of which comes near, covers it: there is no boundary.
    if (!near.length || around > near.filter((v) => v.isHole).length) return []
    const cell = cellBox(this.lattice, ...cellOf(key))
    // The order of the contours must not matter to the last digit.
    near.sort((a, b) => byPlace(a.contour, b.contour))
    const loops = near.map((v) => v.loop!)
    const by = (): string =>
      keyOfCell(
        cell,
        this.tolerance,
        around,
        near.map((v) => v.contour),
      )
    let left: View[] = []
    const code = strandCode(loops)
    const whole: typeof code = { ...code, encode: (strands) => (left.length ? null : code.encode(strands)) }
    const result = recalled(this.recall, by, whole, () => {
      const made = asFarAsPossible(near, (some) =>
        strandsOfLoops([...some.map((v) => v.loop!), ...roundAbout(cell, around)], cell, this.tolerance),
      )
      left = made.left
      return made.result
    })
    // It goes from all cells, each of which is made anew without it.
    for (const { contour } of left) {
      this.left.add(contour)
      this.takeOut(contour)
    }
    return result
  }

  private forget(strand: Strand): void {
    this.open(strand)
    this.next.delete(strand)
    this.loose.delete(strand)
  }

  /** Takes the ring of a strand apart. */
  private open(strand: Strand): void {
    const ring = this.ringOf.get(strand)
    if (!ring) return
    ring.isWhole = false
    this.closed.delete(ring)
    for (const s of ring.strands) {
      this.ringOf.delete(s)
      this.loose.add(s)
    }
  }

  /** Joins strands anew over all sides of the cells that changed. */
  private rejoin(): void {
    const sides = new Set<string>()
    for (const key of this.remade) {
      const [i, j] = cellOf(key)
      for (const side of [`${i} ${j} 0`, `${i + 1} ${j} 0`, `${i} ${j} 1`, `${i} ${j + 1} 1`]) sides.add(side)
    }
    this.remade.clear()
    for (const side of sides) {
      const [i, j, level] = side.split(' ').map(Number) as [number, number, number]
      const low = this.cells.get(level ? keyOf(i, j - 1) : keyOf(i - 1, j)) ?? []
      const high = this.cells.get(keyOf(i, j)) ?? []
      const names: [Side, Side] = level ? ['below', 'above'] : ['right', 'left']
      const joined = joinAcross(low, high, names, NEAR * this.step)
      if (!joined) {
        this.torn.add(side)
        continue
      }
      this.torn.delete(side)
      for (const [a, b] of joined) {
        if (this.next.get(a) === b) continue
        this.next.set(a, b)
        this.open(a)
        this.open(b)
      }
    }
  }

  /** Closes loose strands into rings; answers whether all close. */
  private close(): boolean {
    const fine = FINE_STEPS * this.step
    for (const first of this.loose) {
      const strands: Strand[] = []
      const met = new Set<Strand>()
      let strand: Strand | undefined = first
      while (strand && this.loose.has(strand) && !met.has(strand)) {
        strands.push(strand)
        met.add(strand)
        strand = strand.from ? this.next.get(strand) : first
      }
      if (strand !== first) return false
      const ring = { strands, contour: contourOfRing(strands, this.known, fine, this.tolerance), isWhole: true }
      this.closed.add(ring)
      for (const s of strands) {
        this.loose.delete(s)
        this.ringOf.set(s, ring)
      }
    }
    return true
  }
}
