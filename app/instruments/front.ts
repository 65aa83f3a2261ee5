import type { FrontChoice } from '#core/editing/fronts'
import { decideFronts, frontBetween } from '#core/editing/fronts'
import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import { isIn } from '#core/ink/front/forms'
import type { FrontsFound } from '~/workers/questions'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Shapes, View } from './worktop'

const NOTHING: FrontsFound = { forms: [], pairs: [], overlaps: [] }

/** Says which forms lie in front: by a click each, a drag over several, or from overlap to overlap by keys. */
export class Front implements Instrument {
  readonly name = 'Front'
  readonly cursor = 'default'
  private found = NOTHING
  private hover: number | null = null
  /** Of several forms under the pointer the one stepped to. */
  private below = 0
  private sweep: { both: boolean; last: Vec; taken: number[] } | null = null
  private looks = 0

  constructor(private readonly worktop: Edits & View & Shapes) {
    this.review()
  }

  hint(): string {
    const { overlaps } = this.found
    if (this.sweep)
      return this.sweep.both
        ? 'Release: see through these · Esc: leave them'
        : 'Release: in front, from the first to the last · Esc: leave them'
    if (this.worktop.frontAsked())
      return '← the plum form in front · → the other · ↓ both show · ↑ the next · Esc: end the walk'
    if (this.hover !== null) {
      const others = this.others(this.hover)
      if (!others.length) return 'This form overlaps no other'
      const goesBehind = this.isBefore(this.hover, others)
      return `Click: ${goesBehind ? 'behind' : 'in front of'} ${others.length === 1 ? 'the other' : `the ${others.length} others`} · Alt+click: see-through · N: the form below`
    }
    if (!this.found.forms.length) return 'No lines bound a form here: close a line, or let ends meet'
    return overlaps.length
      ? `Point at a form · ↑ go through ${overlaps.length} ${overlaps.length === 1 ? 'overlap' : 'overlaps'} · Enter: take what is sure`
      : 'Point at a form: a click brings it in front'
  }

  review(): void {
    const mine = ++this.looks
    void this.worktop.fronts().then((found) => {
      if (mine !== this.looks) return
      this.found = found
      this.hover = null
      this.worktop.noteFronts(found)
      this.worktop.refresh()
    })
  }

  /** The forms under a point, the topmost first. */
  private formsAt(p: Vec): number[] {
    return this.found.forms.flatMap(({ loop }, i) => (isIn({ loop }, p) ? [i] : [])).reverse()
  }

  /** The forms that overlap one. */
  private others(form: number): number[] {
    return this.found.pairs.flatMap(([a, b]) => (a === form ? [b] : b === form ? [a] : []))
  }

  private linesOf(form: number): string[] {
    return this.found.forms[form]!.lines
  }

  /** Whether it was decided that a form lies before all of others. */
  private isBefore(form: number, others: readonly number[]): boolean {
    const { amendments } = this.worktop.drawing()
    return others.every((o) => frontBetween(amendments, this.linesOf(form), this.linesOf(o)) === 'before')
  }

  press(hand: Hand): void {
    this.sweep = { both: hand.alt, last: hand.at, taken: [] }
    this.take(hand.at)
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    if (this.sweep) {
      for (const p of placesOnTheWay(this.sweep.last, hand.at, this.worktop.zoom())) this.take(p)
      this.sweep.last = hand.at
    } else {
      const all = this.formsAt(hand.at)
      const next = all[this.below % (all.length || 1)] ?? null
      if (next !== this.hover && !all.includes(this.hover!)) this.below = 0
      this.hover = all[this.below % (all.length || 1)] ?? null
    }
    this.worktop.refresh()
  }

  private take(p: Vec): void {
    const all = this.formsAt(p)
    const form = this.hover !== null && all.includes(this.hover) ? this.hover : all[0]
    if (form !== undefined && !this.sweep!.taken.includes(form)) this.sweep!.taken.push(form)
  }

  release(): void {
    const { sweep } = this
    this.sweep = null
    const [form] = sweep?.taken ?? []
    if (form === undefined) return
    const others = this.others(form)
    if (!others.length) return
    const choice: FrontChoice = sweep!.both ? 'both' : this.isBefore(form, others) ? 'behind' : 'before'
    if (sweep!.taken.length === 1) this.decide(others.map((to) => ({ form, to, choice })))
    else {
      // Over several: each in front of those that the hand came to after it.
      const { taken } = sweep!
      this.decide(
        taken.flatMap((one, i) =>
          taken
            .slice(i + 1)
            .flatMap((to) =>
              this.others(one).includes(to)
                ? [{ form: one, to, choice: sweep!.both ? 'both' : 'before' } as const]
                : [],
            ),
        ),
      )
    }
  }

  private decide(all: readonly { form: number; to: number; choice: FrontChoice }[]): void {
    if (!all.length) return
    const label = { before: 'In front', behind: 'Behind', both: 'Both forms show', none: 'Nothing decided' }
    this.worktop.edit(label[all[0]!.choice ?? 'none'], (draft) =>
      decideFronts(
        draft,
        all.map(({ form, to, choice }) => ({ form: this.linesOf(form), to: this.linesOf(to), choice })),
      ),
    )
    this.worktop.refresh()
  }

  cancel(): void {
    this.sweep = null
  }

  away(): void {
    this.hover = null
    this.worktop.refresh()
  }

  overtaken(): void {
    this.cancel()
    this.review()
  }

  leave(): void {
    this.looks++
    this.cancel()
    this.worktop.endFronts()
  }

  key(key: string): boolean {
    if (key === 'Escape') {
      if (this.sweep) this.cancel()
      else if (this.worktop.frontAsked()) this.worktop.endFronts()
      else return false
      this.worktop.refresh()
      return true
    }
    if (key === 'ArrowUp') this.worktop.askFront(1)
    else if (key === 'ArrowLeft') return this.worktop.answerFront(0)
    else if (key === 'ArrowRight') return this.worktop.answerFront(1)
    else if (key === 'ArrowDown') return this.worktop.answerFront('both')
    else if (key === 'Enter') this.worktop.takeSureFronts()
    else if (key === 'n' && this.hover !== null) this.below++
    else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const asked = this.found.overlaps.find((o) => o.key === this.worktop.frontAsked())
    const loop = (form: number) => this.found.forms[form]!.loop
    if (asked)
      return [
        { kind: 'region', paths: [loop(asked.forms[0])], colour: '#7a2b58' },
        { kind: 'region', paths: [loop(asked.forms[1])], colour: '#4a6a3a' },
        { kind: 'findings', at: [asked.at], current: asked.at },
      ]
    const shown = this.sweep?.taken ?? (this.hover === null ? [] : [this.hover])
    const others = this.hover === null || this.sweep ? [] : this.others(this.hover)
    return [
      ...(this.found.overlaps.length
        ? [{ kind: 'findings', at: this.found.overlaps.map((o) => o.at), current: null } as const]
        : []),
      ...(others.length ? [{ kind: 'paths', paths: others.map(loop), tone: 'mute' } as const] : []),
      ...(shown.length ? [{ kind: 'paths', paths: shown.map(loop), tone: 'strong' } as const] : []),
    ]
  }
}
