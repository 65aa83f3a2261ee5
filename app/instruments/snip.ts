import type { Line, Snip as Hidden } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { inSnip, stretchAround } from '#core/editing/snips'
import { partOfPath } from '#core/geometry/part-of-path'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, View } from './worktop'

const REACH = 8

/** What the hand points at: a stretch that would be hidden, or one that is. */
interface Target {
  line: string
  snip: Hidden
  hidden: boolean
}

/** Hides the part of a line beyond a crossing, without cutting the line; brings hidden parts back. */
export class Snip implements Instrument {
  readonly name = 'Snip'
  readonly cursor = 'default'
  private hover: Target | null = null
  private uncrossed = false
  private sweep: { hiding: boolean; last: Vec; taken: Target[] } | null = null

  constructor(private readonly worktop: Edits & Hits & View) {}

  hint(): string {
    if (this.sweep) return 'Release: done · Esc: back'
    if (this.hover?.hidden) return 'Click: bring this part back · Drag: bring back several'
    if (this.hover) return 'Click: hide this part · Drag: hide several'
    if (this.uncrossed) return 'No line crosses this one, so there is nothing to hide'
    return 'Point at a line beyond a crossing: that part can be hidden'
  }

  private targetAt(at: Vec): Target | null {
    const hit = this.worktop.lineAt(at, REACH, true)
    this.uncrossed = false
    if (!hit) return null
    const { line } = hit
    const hidden = line.snips.find((s) => !s.idle && inSnip(s, hit.at))
    if (hidden) return { line: line.id, snip: hidden, hidden: true }
    const others = this.worktop.allLines(false).flatMap((l) => this.worktop.asSeen(l) ?? [])
    const snip = stretchAround(line, others, hit.at)
    this.uncrossed = !snip
    return snip && { line: line.id, snip, hidden: false }
  }

  press(hand: Hand): void {
    const target = this.targetAt(hand.at)
    this.sweep = { hiding: !target?.hidden, last: hand.at, taken: [] }
    if (target) this.take(target)
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    const { sweep } = this
    if (!sweep) {
      this.hover = this.targetAt(hand.at)
      this.worktop.refresh()
      return
    }
    for (const p of placesOnTheWay(sweep.last, hand.at, this.worktop.zoom())) {
      const target = this.targetAt(p)
      if (target && target.hidden !== sweep.hiding) this.take(target)
    }
    sweep.last = hand.at
    this.worktop.refresh()
  }

  private take(target: Target): void {
    const { taken } = this.sweep!
    taken.push(target)
    this.hover = null
    this.worktop.change((draft) => {
      for (const { line, snip, hidden } of taken) {
        changeLines(draft, [line], (l) => {
          l.snips = hidden ? l.snips.filter((s) => s.from !== snip.from || s.to !== snip.to) : [...l.snips, snip]
        })
      }
    })
  }

  release(): void {
    const { sweep } = this
    this.sweep = null
    if (!sweep?.taken.length) return
    const n = sweep.taken.length
    this.worktop.finish(
      sweep.hiding ? (n > 1 ? `Snip ${n} parts` : 'Snip') : n > 1 ? `Bring back ${n} parts` : 'Bring back a part',
    )
    this.worktop.refresh()
  }

  cancel(): void {
    this.sweep = null
    this.worktop.drop()
  }

  away(): void {
    this.hover = null
    this.uncrossed = false
  }

  overtaken(): void {
    this.hover = null
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
    const parts = (line: Line): Mark => ({
      kind: 'paths',
      paths: line.snips.flatMap((s) => (s.idle ? [] : (partOfPath(line.path, s.from, s.to) ?? []))),
      tone: 'next',
    })
    const marks = this.worktop
      .allLines(true)
      .filter((l) => l.snips.length)
      .map(parts)
    const line = this.hover && findLine(this.worktop.drawing(), this.hover.line)?.line
    const part = line && partOfPath(line.path, this.hover!.snip.from, this.hover!.snip.to)
    if (part) marks.push({ kind: 'paths', paths: [part], tone: this.hover!.hidden ? 'plum' : 'strong' })
    return marks
  }
}
