import type { Line } from '#core/model/model'
import { arcOfPath } from '#core/geometry/known'
import { short } from '#core/geometry/path'
import type { PencilMap } from '#core/sketch/pencil-map'
import type { ClingOptions } from '#core/sketch/settle'
import { settled } from '#core/sketch/settle'
import type { Mark } from '~/canvas/marks'
import { changeLines } from '#core/editing/change-items'
import { repath } from '#core/editing/repath'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, Pencil, Selection, View } from './worktop'

/** A line is pointed at within so many screen px of it. */
const REACH = 6
/** Lines that would move by less, px, stay as they are. */
const LEAST = 0.1
/** A line's move is looked at in so many places. */
const PLACES = 40

/** Draws lines that are there onto the pencil beneath them: the chosen ones, else all; tried on first. */
export class Settle implements Instrument {
  readonly name = 'Settle'
  readonly cursor = 'default'
  private lines = new Map<Line, Line>()
  private seen: { pencil: PencilMap | null; lines: readonly Line[]; key: string } | null = null

  constructor(private readonly worktop: Edits & Selection & Hits & View & Pencil) {
    this.review()
  }

  hint(): string {
    if (!this.worktop.pencil()) return 'Settle draws lines onto the pencil beneath them: bring in a sketch first'
    return this.lines.size
      ? 'Enter: draw these lines onto the pencil · Click a line: only this one · Esc: not now'
      : 'Click a line that lies beside its pencil'
  }

  /** The chosen lines; all that can be edited where none are. */
  private wanted(): readonly Line[] {
    const chosen = new Set(this.worktop.selection())
    const all = this.worktop.allLines(true)
    return chosen.size ? all.filter((l) => chosen.has(l.id)) : all
  }

  review(): void {
    const pencil = this.worktop.pencil()
    const options = this.worktop.clinging()
    const lines = this.wanted()
    const key = `${options.reach} ${options.strength}`
    if (
      this.seen?.pencil === pencil &&
      this.seen.key === key &&
      this.seen.lines.length === lines.length &&
      lines.every((l, i) => l === this.seen!.lines[i])
    )
      return
    this.seen = { pencil, lines, key }
    if (!pencil) {
      this.tell(new Map(), 0)
      return
    }
    this.worktop.inTurns('Settling lines on the pencil', settling(lines, pencil, options), ({ lines: found, most }) =>
      this.tell(found, most),
    )
  }

  private tell(lines: Map<Line, Line>, most: number): void {
    this.lines = lines
    const n = lines.size
    const summary = n
      ? `${n} ${n === 1 ? 'line' : 'lines'} would move onto the pencil, by up to ${short(most, 1)} px.`
      : ''
    this.worktop.tryOn(
      n
        ? { of: (l) => lines.get(l) ?? l, summary, changes: true, accept: () => this.accept(), drop: () => this.drop() }
        : null,
    )
    this.worktop.refresh()
  }

  private accept(): void {
    const paths = new Map([...this.lines].map(([was, is]) => [was.id, is.path]))
    this.worktop.tryOn(null)
    this.worktop.edit(
      paths.size > 1 ? 'Settle lines on the pencil' : 'Settle a line on the pencil',
      (draft) => void changeLines(draft, [...paths.keys()], (l) => repath(l, paths.get(l.id)!, draft)),
    )
  }

  private drop(): void {
    this.worktop.tryOn(null)
    this.lines = new Map()
    this.worktop.refresh()
  }

  press(hand: Hand): void {
    const hit = this.worktop.lineAt(hand.at, REACH)
    this.worktop.select(hit ? [hit.line.id] : [])
    this.review()
  }

  key(key: string): boolean {
    if (!this.lines.size || (key !== 'Enter' && key !== 'Escape')) return false
    if (key === 'Enter') this.accept()
    else this.drop()
    return true
  }

  leave(): void {
    this.worktop.tryOn(null)
  }

  marks(): Mark[] {
    return this.lines.size ? [{ kind: 'paths', paths: [...this.lines.values()].map((l) => l.path), tone: 'plum' }] : []
  }
}

/** Of lines those that settling moves, as they would be, and by how much at most, px. */
function* settling(
  lines: readonly Line[],
  pencil: PencilMap,
  options: ClingOptions,
): Generator<number, { lines: Map<Line, Line>; most: number }> {
  const found = new Map<Line, Line>()
  let most = 0
  for (const [i, line] of lines.entries()) {
    yield i / lines.length
    const path = settled(line.path, pencil, options)
    if (path === line.path) continue
    const [was, is] = [arcOfPath(line.path), arcOfPath(path)]
    const off = Math.max(
      ...Array.from({ length: PLACES + 1 }, (_, k) => was.nearest(is.point((k / PLACES) * is.total)).distance),
    )
    if (off < LEAST) continue
    found.set(line, { ...line, path })
    most = Math.max(most, off)
  }
  return { lines: found, most }
}
