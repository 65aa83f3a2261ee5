import type { FrontChoice } from '#core/editing/fronts'
import { bendBridge, decideFronts, frontBetween } from '#core/editing/fronts'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { distance, lerp, subtract } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import { bowThrough, pathOfBridge } from '#core/ink/front/form-bridges'
import { isImage } from '#core/model/image-ids'
import { isIn } from '#core/ink/front/form'
import type { FrontsFound } from '~/workers/questions'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Shapes, View } from './worktop'

/** A bridge whose middle lies so near to straight is straight, screen px. */
const STRAIGHT = 6

/** The two forms of an overlap that is asked about. */
const TINTS = ['#7a2b58', '#4a6a3a'] as const

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
  /** The open form whose bridge is being drawn, and where its middle is. */
  private drawn: { form: number; to: Vec } | null = null
  private onBridge = false

  constructor(private readonly worktop: Edits & View & Shapes) {
    this.review()
  }

  hint(): string {
    const { overlaps } = this.found
    if (this.sweep)
      return this.sweep.both
        ? 'Release: see through these · Esc: leave them'
        : 'Release: in front, from the first to the last · Esc: leave them'
    if (this.drawn) return 'Drag: where the open form ends · Near straight: straight · Ctrl: just there · Esc: back'
    if (this.onBridge) return 'Drag: where this open form ends, in what it runs into'
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

  /** The bridges of open forms, each with its middle to be drawn. */
  private bridgeMarks(): Mark[] {
    const paths: Path[] = []
    const middles = this.found.forms.flatMap(({ bridge, lines }, index): Mark[] => {
      // A bridge is bent where its form was drawn, and follows elsewhere.
      if (!bridge || lines.some(isImage)) return []
      const now = this.drawn?.form === index ? { ...bridge, middle: this.drawn.to } : bridge
      paths.push(pathOfBridge(now))
      return [{ kind: 'belly', at: now.middle, along: subtract(bridge.to, bridge.from), index }]
    })
    return [{ kind: 'bridges', paths }, ...middles]
  }

  /** The bridge whose middle is drawn follows the hand. */
  private bend(form: number, to: Vec, free: boolean): void {
    const { lines, bridge } = this.found.forms[form]!
    // A bridge that is all but straight is.
    const isStraight = !free && distance(to, lerp(bridge!.from, bridge!.to, 0.5)) * this.worktop.zoom() < STRAIGHT
    const now = isStraight ? lerp(bridge!.from, bridge!.to, 0.5) : to
    this.drawn = { form, to: now }
    this.worktop.change((draft) => bendBridge(draft, lines, isStraight ? null : bowThrough(bridge!, now)))
  }

  press(hand: Hand): void {
    if (hand.mark?.kind === 'belly') {
      this.drawn = { form: hand.mark.index, to: this.found.forms[hand.mark.index]!.bridge!.middle }
      this.worktop.refresh()
      return
    }
    this.sweep = { both: hand.alt, last: hand.at, taken: [] }
    this.take(hand.at)
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    this.onBridge = hand.mark?.kind === 'belly'
    if (this.drawn) this.bend(this.drawn.form, hand.at, hand.free)
    else if (this.sweep) {
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
    if (this.drawn) {
      this.drawn = null
      this.worktop.finish('Bend a bridge')
      this.review()
      return
    }
    const { sweep } = this
    this.sweep = null
    const [form] = sweep?.taken ?? []
    if (form === undefined) return
    this.worktop.takeForm(this.linesOf(form))
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
    if (this.drawn) this.worktop.drop()
    this.drawn = null
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
      if (this.sweep ?? this.drawn) this.cancel()
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
        {
          kind: 'forms',
          forms: [
            { path: loop(asked.forms[0]), colour: TINTS[0] },
            { path: loop(asked.forms[1]), colour: TINTS[1] },
          ],
        },
        { kind: 'findings', at: [asked.at], current: asked.at },
      ]
    const shown = this.sweep?.taken ?? (this.hover === null ? [] : [this.hover])
    const others = this.hover === null || this.sweep ? [] : this.others(this.hover)
    return [
      ...(this.found.overlaps.length
        ? [{ kind: 'findings', at: this.found.overlaps.map((o) => o.at), current: null } as const]
        : []),
      ...(others.length
        ? [
            { kind: 'paths', paths: others.map(loop), tone: 'mute' } as const,
            { kind: 'hatched', by: loop(this.hover!), of: others.map(loop) } as const,
          ]
        : []),
      ...(shown.length ? [{ kind: 'paths', paths: shown.map(loop), tone: 'strong' } as const] : []),
      ...this.bridgeMarks(),
    ]
  }
}
