import { newId } from '#core/new-id'
import type { Trim as Trimmed } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { PieceHit } from '#core/ink/pieces/piece-at'
import type { Mark } from '~/canvas/marks'
import { findLine } from '#core/model/find'
import { placesOnTheWay } from './along-the-way'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, Selection, Shapes, View } from './worktop'

/** What a drag has taken so far. */
interface Sweep {
  back: boolean
  last: Vec
  taken: PieceHit[]
  /** What is asked about the way up to here is asked in order. */
  asked: Promise<void>
  dropped: boolean
}

const keyOf = ({ line, place }: PieceHit['trim']): string =>
  `${line} ${place.at.toFixed(4)} ${place.left.toFixed(3)} ${place.ahead.toFixed(3)}`

/** Takes pieces of lines away, of one line each, and brings them back. */
export class Trim implements Instrument {
  readonly name = 'Trim'
  readonly cursor = 'default'
  private hits: PieceHit[] = []
  private index = 0
  private sweep: Sweep | null = null
  private looks = 0
  /** What lies under the hand is locked. */
  private locked = false

  constructor(private readonly worktop: Edits & Selection & Hits & View & Shapes) {}

  hint(): string {
    if (this.sweep)
      return this.sweep.back ? 'Release: bring these back · Esc: leave them' : 'Release: trim these · Esc: leave them'
    const hit = this.meant()
    if (this.locked) return 'This line is locked, or its layer is. Unlock it in Layers to trim it'
    if (!hit)
      return this.worktop.trims().length
        ? 'Point at a piece · Shift with a hatched one: bring it back'
        : 'Point at a piece of a line that others divide: click takes it away'
    const more = this.hits.length > 1 ? ' · N: the line below' : ''
    if (hit.taken) return `This piece is trimmed · Shift+click: bring it back${more}`
    return `Click: trim this piece of its line · Drag: trim several${more}`
  }

  /** The piece that a click takes: that of a chosen line first, else the front one, or the one stepped to. */
  private meant(): PieceHit | null {
    return this.hits[this.index] ?? null
  }

  private async look(at: Vec): Promise<PieceHit[]> {
    const open = new Set(this.worktop.allLines(true).map((l) => l.id))
    const chosen = new Set(this.worktop.selection())
    const all = await this.worktop.piecesAt(at)
    const hits = all.filter((h) => open.has(h.trim.line))
    this.locked = all.length > 0 && !hits.length
    return [...hits.filter((h) => chosen.has(h.trim.line)), ...hits.filter((h) => !chosen.has(h.trim.line))]
  }

  move(hand: Hand): void {
    const { sweep } = this
    if (sweep) {
      for (const p of placesOnTheWay(sweep.last, hand.at, this.worktop.zoom())) this.ask(sweep, p)
      sweep.last = hand.at
      return
    }
    const mine = ++this.looks
    void this.look(hand.at).then((hits) => {
      if (mine !== this.looks) return
      // Stepping lasts as long as the same lines lie under the hand.
      if (hits.map((h) => h.trim.line).join() !== this.hits.map((h) => h.trim.line).join()) this.index = 0
      this.hits = hits
      this.worktop.refresh()
    })
  }

  press(hand: Hand): void {
    this.looks++
    const sweep: Sweep = { back: hand.shift, last: hand.at, taken: [], asked: Promise.resolve(), dropped: false }
    const stepped = this.index
    this.sweep = sweep
    this.ask(sweep, hand.at, stepped)
    this.worktop.refresh()
  }

  private ask(sweep: Sweep, at: Vec, index = 0): void {
    sweep.asked = sweep.asked.then(async () => {
      if (sweep.dropped) return
      const hits = await this.look(at)
      if (sweep.dropped) return
      const fit = hits.filter((h) => !!h.taken === sweep.back)
      const hit = (hits[index] && fit.includes(hits[index]) ? hits[index] : fit[0]) ?? null
      if (!hit || sweep.taken.some((t) => keyOf(t.trim) === keyOf(hit.trim))) return
      sweep.taken.push(hit)
      this.worktop.refresh()
    })
  }

  release(): void {
    const { sweep } = this
    if (!sweep) return
    // The next press, or another instrument, may come before all is answered: what was taken is kept all the same.
    this.sweep = null
    void sweep.asked.then(() => {
      this.hits = []
      this.keep(sweep)
      this.worktop.refresh()
    })
  }

  private keep({ back, taken }: Sweep): void {
    const n = taken.length
    if (!n) return
    if (back) {
      const ids = new Set(taken.map((t) => t.taken))
      this.worktop.edit(
        n > 1 ? `Bring ${n} pieces back` : 'Bring a piece back',
        (draft) => void (draft.amendments = draft.amendments?.filter((a) => !ids.has(a.id))),
      )
    } else addTrims(this.worktop, n > 1 ? `Trim ${n} pieces` : 'Trim a piece', taken)
  }

  cancel(): void {
    if (this.sweep) this.sweep.dropped = true
    this.sweep = null
    this.hits = []
  }

  away(): void {
    this.looks++
    this.hits = []
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key.toLowerCase() === 'n' && this.hits.length > 1) this.index = (this.index + 1) % this.hits.length
    else if (key === 'Escape' && this.sweep) this.cancel()
    else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const gone = this.worktop.trims().flatMap((t) => t.piece ?? [])
    const marks: Mark[] = gone.length ? [{ kind: 'pieces', paths: gone, look: 'gone' }] : []
    if (this.sweep)
      return [
        ...marks,
        { kind: 'pieces', paths: this.sweep.taken.flatMap((t) => t.contours), look: this.sweep.back ? 'back' : 'take' },
      ]
    const hit = this.meant()
    const line = hit && findLine(this.worktop.drawing(), hit.trim.line)?.line
    if (!hit || !line) return marks
    return [
      ...marks,
      { kind: 'paths', paths: [line.path], tone: 'next' },
      { kind: 'pieces', paths: hit.contours, look: hit.taken ? 'back' : 'take' },
    ]
  }
}

/** Makes the trims of some pieces a step. */
export function addTrims(worktop: Edits, label: string, pieces: readonly PieceHit[]): void {
  const fresh = addedTrims(pieces)
  worktop.edit(label, (draft) => void (draft.amendments = [...(draft.amendments ?? []), ...fresh]))
}

export const addedTrims = (pieces: readonly PieceHit[]): Trimmed[] =>
  pieces.map(({ trim }) => ({ id: newId(), kind: 'trim', ...trim }))
