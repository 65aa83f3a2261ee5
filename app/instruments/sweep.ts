import type { Vec } from '#core/geometry/point'
import { pastedWeight } from '#core/weight/copy-weight'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import { placesOnTheWay } from './along-the-way'
import type { LineHit } from '#core/outline/hit-line'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, View } from './worktop'

const REACH = 8

/** Paints the copied weight on lines: every line that the hand sweeps over gets it. */
export class Sweep implements Instrument {
  readonly name = 'Sweep'
  readonly cursor = 'crosshair'
  private sweep: { last: Vec; taken: Set<string> } | null = null
  private hover: LineHit | null = null

  constructor(private readonly worktop: Edits & Hits & View & NextLine) {}

  hint(): string {
    if (this.sweep) return 'Release: done · Esc: back'
    if (!this.worktop.copiedWeight()) return 'Click a line: take up its weight'
    return 'Sweep over lines: they get the copied weight · Alt+click a line: take up another'
  }

  press(hand: Hand): void {
    const hit = this.worktop.lineAt(hand.at, REACH)
    if (hand.alt || !this.worktop.copiedWeight()) {
      if (hit) this.worktop.copyWeight(findLine(this.worktop.drawing(), hit.line.id)!.line.weight)
      else this.worktop.say('No weight is copied yet. Click a line to take up its weight, then sweep over others.')
      this.worktop.refresh()
      return
    }
    this.sweep = { last: hand.at, taken: new Set() }
    this.sweepTo(hand.at)
  }

  move(hand: Hand): void {
    if (this.sweep) this.sweepTo(hand.at)
    else this.hover = this.worktop.lineAt(hand.at, REACH)
    this.worktop.refresh()
  }

  /** Takes every line between where the hand was and where it is. */
  private sweepTo(to: Vec): void {
    const { last, taken } = this.sweep!
    const before = taken.size
    for (const p of placesOnTheWay(last, to, this.worktop.zoom())) {
      const hit = this.worktop.lineAt(p, REACH)
      if (hit) taken.add(hit.line.id)
    }
    this.sweep!.last = to
    if (taken.size > before) this.paint(taken)
  }

  private paint(ids: ReadonlySet<string>): void {
    const weight = this.worktop.copiedWeight()!
    const { sweepPart } = this.worktop.preferences()
    this.worktop.change(
      (draft) =>
        void changeLines(draft, [...ids], (line) => void (line.weight = pastedWeight(line.weight, weight, sweepPart))),
    )
  }

  release(): void {
    if (!this.sweep) return
    const count = this.sweep.taken.size
    this.sweep = null
    if (count) this.worktop.finish(count > 1 ? `Weight on ${count} lines` : 'Weight on a line')
    else
      this.worktop.say(
        'No line was under the sweep that can be changed. Lines of locked layers stay as they are: unlock the layer first.',
      )
    this.worktop.refresh()
  }

  cancel(): void {
    this.sweep = null
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  away(): void {
    this.hover = null
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
    const ids = new Set([...(this.sweep?.taken ?? []), ...(this.hover ? [this.hover.line.id] : [])])
    const paths = [...ids].flatMap((id) => findLine(this.worktop.drawing(), id)?.line.path ?? [])
    return paths.length ? [{ kind: 'paths', paths, tone: 'plum' }] : []
  }
}
