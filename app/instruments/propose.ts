import { newLine } from '#core/drawing/create'
import type { Line, Vec } from '#core/drawing/model'
import { arcOfPath, boxOfPath } from '#core/geometry/known'
import type { Mark } from '~/canvas/marks'
import { findLayer } from '~/stores/find'
import type { Offer } from '~/stores/proposals'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument, Worktop } from './instrument'

/** Screen px. */
const REACH = 9

/** Takes lines that were found in the sketch: by a click each, or a drag over several; Alt sweeps them away. */
export class Propose implements Instrument {
  readonly name = 'Propose'
  readonly cursor = 'default'
  private over: Offer | null = null
  private sweep: { away: boolean; last: Vec; taken: Set<Offer> } | null = null

  constructor(private readonly worktop: Worktop) {}

  hint(): string {
    if (this.sweep) return this.sweep.away ? 'Release: sweep these away · Esc: leave them' : 'Release: take these as lines · Esc: leave them'
    if (!this.worktop.proposals().length) return 'Find lines: what is found in the sketch shows as thin dashes, to be taken one by one'
    return 'Click a dashed line: take it · Drag: take all that you sweep over · Alt: sweep them away'
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
    const { sweep } = this
    this.sweep = null
    this.over = null
    if (!sweep?.taken.size) return
    if (!sweep.away) takeOffers(this.worktop, [...sweep.taken])
    this.worktop.dropProposals(sweep.taken)
    this.worktop.refresh()
  }

  cancel(): void {
    this.sweep = null
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
    if (key !== 'Escape' || !this.sweep) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const taken = this.sweep?.taken
    const offers = this.worktop.proposals()
    const strong = taken ? offers.filter((o) => taken.has(o)) : this.over ? [this.over] : []
    return [
      { kind: 'paths', paths: offers.filter((o) => !strong.includes(o)).map((o) => o.path), tone: 'next' },
      { kind: 'paths', paths: strong.map((o) => o.path), tone: this.sweep?.away ? 'mute' : 'strong' },
    ]
  }
}

/** Makes proposals ordinary lines, with the next weight and ink. */
export function takeOffers(worktop: Pick<Worktop, 'layerForInk' | 'edit' | 'nextWeight' | 'nextInk'>, offers: readonly Offer[]): void {
  const layer = worktop.layerForInk()
  if (!layer) return
  const lines = offers.map((o): Line => newLine(o.path, { weight: worktop.nextWeight(), ink: worktop.nextInk() }))
  worktop.edit(lines.length > 1 ? `Take ${lines.length} proposals` : 'Take a proposal', (draft) => void findLayer(draft, layer)?.items.push(...lines))
}
