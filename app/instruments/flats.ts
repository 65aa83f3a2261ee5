import type { RegionHit } from '#core/ink/session/region-hits'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Fills, NextLine, View } from './worktop'
import { isIn, pourIn } from './pour'

/** Fills for all regions that have none, neighbours in different inks: a preview, of which single ones are changed. */
export class Flats implements Instrument {
  readonly name = 'Flats'
  readonly cursor = 'default'
  private regions: RegionHit[] = []
  /** The ink proposed for each region; null: none. */
  private inks: (string | null)[] = []
  private looks = 0

  constructor(private readonly worktop: Edits & View & NextLine & Fills) {
    this.review()
  }

  hint(): string {
    if (!this.regions.length) return 'Every region has its fill'
    if (!this.worktop.palette().length) return 'Enter: take starter inks · or add inks of your own on the right'
    return 'Enter: pour all · Click: its next ink · Alt+click: none · Esc: none of these'
  }

  review(): void {
    const mine = ++this.looks
    void this.worktop.emptyRegions().then(({ regions, beside }) => {
      if (mine !== this.looks) return
      this.regions = regions
      this.inks = this.proposed(beside)
      this.tell()
    })
  }

  /** Inks that are no line's, by turns, so that neighbours differ; the largest regions choose first. */
  private proposed(beside: readonly (readonly number[])[]): (string | null)[] {
    const palette = this.worktop.palette()
    const out: (string | null)[] = this.regions.map(() => null)
    if (!palette.length) return out
    const order = this.regions
      .map((_, i) => i)
      .sort((a, b) => (this.regions[b]!.area ?? 0) - (this.regions[a]!.area ?? 0))
    const uses = new Map(palette.map((ink) => [ink, 0]))
    for (const i of order) {
      const taken = new Set(beside[i]!.map((k) => out[k]))
      const free = palette.filter((ink) => !taken.has(ink))
      const ink = (free.length ? free : palette).reduce((best, one) => (uses.get(one)! < uses.get(best)! ? one : best))
      uses.set(ink, uses.get(ink)! + 1)
      out[i] = ink
    }
    return out
  }

  private tell(): void {
    const n = this.inks.filter((ink) => ink).length
    const summary = this.worktop.palette().length
      ? `${n} ${n === 1 ? 'region' : 'regions'} would be poured as shown.`
      : 'Take starter inks, or add an ink: the regions get it.'
    this.worktop.tryOn(
      this.regions.length
        ? { of: (l) => l, summary, changes: n > 0, accept: () => this.accept(), drop: () => this.drop() }
        : null,
    )
    this.worktop.refresh()
  }

  private accept(): void {
    const all = this.regions.flatMap((hit, i) => (this.inks[i] ? [{ hit, ink: this.inks[i]! }] : []))
    this.worktop.tryOn(null)
    this.regions = []
    if (all.length)
      this.worktop.edit(`Flats: ${all.length} regions`, (draft) =>
        all.forEach(({ hit, ink }) => pourIn(draft, hit, ink, this.worktop)),
      )
    this.worktop.refresh()
  }

  private drop(): void {
    this.regions = []
    this.worktop.tryOn(null)
    this.worktop.refresh()
  }

  press(hand: Hand): void {
    const i = this.regions.findIndex((r) => isIn(r, hand.at))
    const palette = this.worktop.palette()
    if (i < 0 || !palette.length) return
    const at = this.inks[i] ? palette.indexOf(this.inks[i]) : -1
    this.inks[i] = hand.alt ? null : palette[(at + 1) % palette.length]!
    this.tell()
  }

  key(key: string): boolean {
    if (key === 'Enter' && this.regions.length && !this.worktop.palette().length) this.worktop.takeStarterInks()
    else if (key === 'Enter' && this.inks.some((ink) => ink)) this.accept()
    else if (key === 'Escape' && this.regions.length) this.drop()
    else return false
    return true
  }

  overtaken(): void {
    this.review()
  }

  leave(): void {
    this.looks++
    this.worktop.tryOn(null)
  }

  marks(): Mark[] {
    return this.regions.map((r, i): Mark => ({
      kind: 'region',
      paths: r.contours,
      colour: this.inks[i] ? this.worktop.colourOf(this.inks[i]) : null,
    }))
  }
}
