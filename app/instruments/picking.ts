import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { LineHit } from '#core/outline/hit-line'
import type { Hand } from './instrument'
import type { Hits, Selection } from './worktop'
import { DRAG_START, screenDistance } from './instrument'

/** Which line a click takes: it lights up under the pointer, and clicks on one place step through all that lie there. */
export class Picking {
  private over: string | null = null
  private count = 0
  private pressed: Vec | null = null
  /** The line that was taken already when the press came: a click takes the next one there. */
  private again: { from: string; hits: LineHit[] } | null = null

  constructor(
    private readonly worktop: Selection & Hits,
    private readonly reach: number,
  ) {}

  /** The pointer hovers. Answers whether another line lights up. */
  hover(hand: Hand): boolean {
    const hits = this.worktop.linesAt(hand.at, this.reach)
    const before = this.over
    this.over = hits[0]?.line.id ?? null
    this.count = hits.length
    if (this.over !== before) this.worktop.noteOver(this.over)
    return this.over !== before
  }

  away(): void {
    if (this.over) this.worktop.noteOver(null)
    this.over = null
  }

  /** A press without Shift: the line that it takes, the one that is chosen first. */
  press(hand: Hand): LineHit | null {
    const hits = this.worktop.linesAt(hand.at, this.reach)
    const [first] = hits
    if (!first) {
      this.again = null
      return null
    }
    const chosen = this.worktop.selection()
    const mine = hits.find((h) => chosen.includes(h.line.id))
    this.again = mine && chosen.length === 1 && hits.length > 1 ? { from: mine.line.id, hits } : null
    this.pressed = hand.screen
    return mine ?? first
  }

  /** The release of that press: the next line there where it was a click on the one that was chosen; null where it was not. */
  next(hand: Hand): LineHit | null {
    const { again, pressed } = this
    this.again = null
    if (!again || !pressed || screenDistance(pressed, hand.screen) >= DRAG_START) return null
    const at = again.hits.findIndex((h) => h.line.id === again.from)
    return again.hits[(at + 1) % again.hits.length]!
  }

  /** What to say of what lies under the pointer, '' for nothing. */
  hint(): string {
    if (!this.over) return ''
    return this.count > 1 ? `Click: take this line, again: the next of ${this.count} here` : 'Click: take this line'
  }

  marks(): Mark[] {
    const line =
      this.over && !this.worktop.selection().includes(this.over)
        ? this.worktop.allLines(true).find((l) => l.id === this.over)
        : null
    return line ? [{ kind: 'paths', paths: [line.path], tone: 'strong' }] : []
  }
}
