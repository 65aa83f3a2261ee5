import type { Vec } from '#core/drawing/model'
import { movedLine } from '#core/drawing/move'
import { changeLines, findLine } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import { Gathering } from './gathering'
import type { Bench, Hand, Instrument } from './instrument'
import { arrowStep, DRAG_START, screenDistance, straightened } from './instrument'
import { chosenMarks, endMarks } from './line-marks'

const REACH = 8

/** Chooses lines, moves and deletes them. */
export class Select implements Instrument {
  readonly name = 'Select'
  readonly cursor = 'default'
  private pressed: { at: Vec; screen: Vec; onLine: boolean; moving: boolean; shift: boolean } | null = null
  private gathering: Gathering | null = null

  constructor(private readonly bench: Bench) {}

  hint(): string {
    if (this.pressed?.moving) return 'Release: put down · Shift: straight · Esc: back'
    const n = this.bench.selection().length
    if (!n) return 'Click a line · Drag over paper: choose several'
    const what = n === 1 ? '1 line' : `${n} lines`
    return `${what} · Drag: move · Shift+click: add or leave out · Delete: remove`
  }

  press(hand: Hand): void {
    const hit = this.bench.lineAt(hand.at, REACH)
    const chosen = this.bench.selection()
    if (hit) {
      const id = hit.line.id
      if (hand.shift) this.bench.select(chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id])
      else if (!chosen.includes(id)) this.bench.select([id])
    } else {
      this.gathering = new Gathering(this.bench.preferences().gather, hand.at, hand.shift)
      if (!hand.shift) this.bench.select([])
    }
    this.pressed = { at: hand.at, screen: hand.screen, onLine: !!hit, moving: false, shift: hand.shift }
    this.bench.refresh()
  }

  move(hand: Hand): void {
    const { pressed } = this
    if (!pressed) return
    if (!pressed.moving && screenDistance(pressed.screen, hand.screen) < DRAG_START) return
    pressed.moving = true
    if (pressed.onLine) this.shift(this.offset(hand))
    else this.gathering?.move(hand)
    this.bench.refresh()
  }

  private offset(hand: Hand): Vec {
    const d = { x: hand.at.x - this.pressed!.at.x, y: hand.at.y - this.pressed!.at.y }
    return hand.shift && !this.pressed!.shift ? straightened(d) : d
  }

  private shift(d: Vec): void {
    const ids = this.bench.selection()
    this.bench.change((draft) => {
      changeLines(draft, ids, (line) => {
        Object.assign(line, movedLine(line, d))
      })
    })
  }

  release(): void {
    const { pressed, gathering } = this
    this.pressed = null
    this.gathering = null
    if (pressed?.moving && pressed.onLine) this.bench.finish(this.bench.selection().length > 1 ? 'Move lines' : 'Move a line')
    else if (pressed?.moving && gathering) {
      const found = gathering.linesAmong(this.bench.allLines(true)).map((l) => l.id)
      this.bench.select(gathering.adding ? [...new Set([...this.bench.selection(), ...found])] : found)
    }
    this.bench.refresh()
  }

  cancel(): void {
    this.pressed = null
    this.gathering = null
    this.bench.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string, shift: boolean): boolean {
    const ids = this.bench.selection()
    if (key === 'Escape') {
      if (this.pressed) this.cancel()
      else this.bench.select([])
      this.bench.refresh()
      return true
    }
    if (!ids.length) return false
    if (key === 'Delete' || key === 'Backspace') {
      this.remove(ids)
      return true
    }
    const d = arrowStep(key, shift)
    if (!d) return false
    this.shift(d)
    this.bench.finish('Nudge')
    return true
  }

  private remove(ids: readonly string[]): void {
    this.bench.edit(ids.length > 1 ? `Delete ${ids.length} lines` : 'Delete a line', (draft) => {
      for (const id of ids) {
        const found = findLine(draft, id)
        if (found && !found.layer.locked) found.layer.items.splice(found.index, 1)
      }
    })
    this.bench.select([])
    this.bench.refresh()
  }

  marks(): Mark[] {
    const marks = chosenMarks(this.bench, endMarks)
    return this.pressed?.moving && this.gathering ? [...marks, ...this.gathering.marks()] : marks
  }
}
