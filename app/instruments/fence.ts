import type { Vec } from '#core/geometry/point'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import type { PieceHit } from '#core/ink/pieces/piece-at'
import type { Mark } from '~/canvas/marks'
import { findLine } from '#core/model/find'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Selection, Shapes, View } from './worktop'
import { toggled } from './instrument'
import { addTrims } from './trim'

const REACH = 8

/** The chosen lines are a fence: what sticks out beyond them is shown, and trimmed when it is accepted. */
export class Fence implements Instrument {
  readonly name = 'Fence'
  readonly cursor = 'default'
  private found: PieceHit[] = []
  private readonly spared = new Set<PieceHit>()
  private looks = 0

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Shapes) {
    this.review()
  }

  hint(): string {
    if (!this.worktop.selection().length) return 'Click the lines beyond which nothing of others may stick out'
    if (!this.found.length) return 'Nothing sticks out beyond these lines · Click another line: add it to the fence'
    return 'Enter: trim these · Click a piece: spare it · Click a line: in or out · Esc: no fence'
  }

  review(): void {
    const mine = ++this.looks
    const fence = this.worktop.selection()
    const show = (found: PieceHit[]): void => {
      if (mine !== this.looks) return
      const spared = [...this.spared]
      this.spared.clear()
      this.found = found
      // What was spared stays so while settings change.
      for (const f of found)
        if (spared.some((s) => s.trim.line === f.trim.line && Math.abs(s.trim.place.at - f.trim.place.at) < 1e-3))
          this.spared.add(f)
      this.tell()
    }
    if (fence.length) void this.worktop.beyond(fence, this.worktop.preferences().fenceWidths).then(show)
    else show([])
  }

  private wanted(): PieceHit[] {
    return this.found.filter((f) => !this.spared.has(f))
  }

  private tell(): void {
    const n = this.wanted().length
    const fence = this.worktop.selection().length
    const spared = this.spared.size ? `, ${this.spared.size} spared` : ''
    const summary = `${n} ${n === 1 ? 'piece sticks' : 'pieces stick'} out beyond ${fence === 1 ? 'this line' : `these ${fence} lines`}${spared}.`
    this.worktop.tryOn(
      this.found.length
        ? { of: (l) => l, summary, changes: n > 0, accept: () => this.accept(), drop: () => this.worktop.select([]) }
        : null,
    )
    this.worktop.refresh()
  }

  private accept(): void {
    const wanted = this.wanted()
    this.worktop.tryOn(null)
    if (wanted.length)
      addTrims(
        this.worktop,
        wanted.length > 1 ? `Trim ${wanted.length} pieces at a fence` : 'Trim a piece at a fence',
        wanted,
      )
    this.spared.clear()
    this.review()
  }

  press(hand: Hand): void {
    const piece = this.found.find((f) => holds(f, hand.at))
    if (piece) {
      if (!this.spared.delete(piece)) this.spared.add(piece)
      this.tell()
      return
    }
    const hit = this.worktop.lineAt(hand.at, REACH)
    if (hit) this.worktop.select(toggled(this.worktop.selection(), hit.line.id))
    this.review()
  }

  key(key: string): boolean {
    if (key === 'Enter' && this.wanted().length) this.accept()
    else if (key === 'Escape' && this.worktop.selection().length) {
      this.worktop.select([])
      this.review()
    } else return false
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
    const fence = this.worktop.selection().flatMap((id) => findLine(this.worktop.drawing(), id)?.line.path ?? [])
    return [
      { kind: 'paths', paths: fence, tone: 'strong' },
      { kind: 'pieces', paths: this.wanted().flatMap((f) => f.contours), look: 'take' },
      { kind: 'pieces', paths: [...this.spared].flatMap((f) => f.contours), look: 'gone' },
    ]
  }
}

const holds = ({ contours }: PieceHit, p: Vec): boolean => windingAt(contours.map(cubicsOfPath), p) !== 0
