import { layLines } from '#core/editing/lay'
import { newLine } from '#core/model/create'
import type { Line, Weight } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { arcOfPath, boxOfPath } from '#core/geometry/known'
import type { Mark } from '~/canvas/marks'

import type { Offer } from './offer'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, NextLine, Pencil, View } from './worktop'

/** Screen px. */
const REACH = 9
const LEAST_BOX = 12

/** Takes lines that were found in the sketch: by a click each, or a drag over several; Alt sweeps them away. */
export class Propose implements Instrument {
  readonly name = 'Propose'
  readonly cursor = 'default'
  private over: Offer | null = null
  private sweep: { away: boolean; last: Vec; taken: Set<Offer> } | null = null
  /** A box in which lines are to be looked for. */
  private box: { from: Vec; to: Vec } | null = null

  constructor(private readonly worktop: Edits & View & NextLine & Pencil) {}

  hint(): string {
    if (this.box) return 'Release: look for lines in this box · Esc: leave it'
    if (this.sweep)
      return this.sweep.away
        ? 'Release: sweep these away · Esc: leave them'
        : 'Release: take these as lines · Esc: leave them'
    if (!this.worktop.proposals().length)
      return 'Enter: find lines · Shift+drag: only in a box. They show as thin dashes, to be taken one by one'
    return 'Click a dash: take it · Drag: all swept over · Enter: all · Alt: sweep away · Shift+drag: find in a box'
  }

  private at(p: Vec): Offer | null {
    const reach = REACH / this.worktop.zoom()
    let best: { offer: Offer; off: number } | null = null
    for (const offer of this.worktop.proposals()) {
      const b = boxOfPath(offer.path)
      if (p.x < b.minX - reach || p.x > b.maxX + reach || p.y < b.minY - reach || p.y > b.maxY + reach) continue
      const off = arcOfPath(offer.path).nearest(p).distance
      if (off <= reach && (!best || off < best.off)) best = { offer, off }
    }
    return best?.offer ?? null
  }

  move(hand: Hand): void {
    const { sweep } = this
    if (this.box) {
      this.box.to = hand.at
      this.worktop.refresh()
      return
    }
    if (!sweep) {
      this.over = this.at(hand.at)
      this.worktop.refresh()
      return
    }
    for (const p of placesOnTheWay(sweep.last, hand.at, this.worktop.zoom())) this.take(p)
    sweep.last = hand.at
    this.worktop.refresh()
  }

  press(hand: Hand): void {
    if (hand.shift) {
      this.box = { from: hand.at, to: hand.at }
      return
    }
    if (!hand.alt && !this.worktop.layerForInk()) return
    this.sweep = { away: hand.alt, last: hand.at, taken: new Set() }
    this.take(hand.at)
    this.worktop.refresh()
  }

  private take(p: Vec): void {
    const offer = this.at(p)
    if (offer) this.sweep!.taken.add(offer)
  }

  release(): void {
    const { sweep, box } = this
    this.box = null
    if (box && Math.hypot(box.to.x - box.from.x, box.to.y - box.from.y) * this.worktop.zoom() > LEAST_BOX)
      this.worktop.findProposals([box.from, box.to])
    this.sweep = null
    this.over = null
    if (!sweep?.taken.size) return
    // What is taken lies under a line from then on, and comes back with undo.
    if (sweep.away) this.worktop.dropProposals(sweep.taken)
    else takeOffers(this.worktop, [...sweep.taken])
    this.worktop.refresh()
  }

  cancel(): void {
    this.sweep = null
    this.box = null
  }

  away(): void {
    this.over = null
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key === 'Enter' && !this.sweep && !this.box) {
      const offers = this.worktop.proposals()
      if (offers.length) takeOffers(this.worktop, offers)
      else this.worktop.findProposals(null)
      this.worktop.refresh()
      return true
    }
    if (key !== 'Escape' || !(this.sweep || this.box)) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const taken = this.sweep?.taken
    const offers = this.worktop.proposals()
    const strong = taken ? offers.filter((o) => taken.has(o)) : this.over ? [this.over] : []
    return [
      ...(this.box ? [{ kind: 'box' as const, ...this.box }] : []),
      { kind: 'paths', paths: offers.filter((o) => !strong.includes(o)).map((o) => o.path), tone: 'next' },
      { kind: 'paths', paths: strong.map((o) => o.path), tone: this.sweep?.away ? 'mute' : 'strong' },
    ]
  }
}

/** Makes proposals ordinary lines, with the next weight, or with a profile from the pencil's own thickness, and the next ink. */
export function takeOffers(
  worktop: Pick<Edits, 'layerForInk' | 'edit'> &
    Pick<NextLine, 'nextWeight' | 'nextInk' | 'preferences'> &
    Pick<Pencil, 'usualThickness'>,
  offers: readonly Offer[],
): void {
  const layer = worktop.layerForInk()
  if (!layer) return
  const fromPencil = worktop.preferences().proposals.weight === 'pencil'
  const lines = offers.map((o): Line =>
    newLine(o.path, {
      weight: fromPencil ? asThick(worktop.nextWeight(), o, worktop.usualThickness()) : worktop.nextWeight(),
      ink: worktop.nextInk(),
    }),
  )
  worktop.edit(lines.length > 1 ? `Take ${lines.length} proposals` : 'Take a proposal', (draft) =>
    layLines(draft, layer, lines),
  )
}

/** A weight that swells as the pencil does; as thick as most of it is the size of the next line. */
const asThick = (next: Weight, { thickness }: Offer, usual: number): Weight => ({
  ...next,
  size: next.size * Math.min(3, Math.max(0.3, thickness.mean / usual)),
  stops: thickness.stops.map((s) => ({ ...s })),
  start: null,
  end: null,
  nib: null,
})
