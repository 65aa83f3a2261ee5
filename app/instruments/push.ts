import { bentPath } from '#core/editing/bent-path'
import { changeLines } from '#core/editing/change-items'
import { takeBent, tolerableBend } from '#core/editing/push'
import { PushField } from '#core/editing/push-field'
import type { Vec } from '#core/geometry/point'
import { distance, subtract } from '#core/geometry/point'
import type { Line } from '#core/model/model'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Selection, View } from './worktop'

/** The hand's way is taken in steps of this share of the radius: events that come thick and fast are one. */
const STEP = 0.06
/** A key makes the radius so much larger or smaller. */
const GROWS = 1.2
/** Radii, px of the page. */
const LEAST = 4
const MOST = 800
/** A key makes it so much stronger or weaker. */
const STRONGER = 0.1

/** Pushes lines softly, several together: those that are chosen, or all that lie under it. */
export class Push implements Instrument {
  readonly name = 'Push'
  readonly cursor = 'crosshair'
  private way: { at: Vec; by: Vec }[] = []
  private last: Vec | null = null
  private pointer: Vec | null = null
  /** Lines as they were when the hand came down. */
  private lines: readonly Line[] = []
  private pushed = false

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine) {}

  hint(): string {
    if (this.last) return 'Release: done · Esc: back'
    const n = this.worktop.selection().length
    return `Drag: push ${n ? (n > 1 ? `the ${n} chosen lines` : 'the chosen line') : 'all lines beneath'} · ↑ ↓: how wide · ← →: how strongly`
  }

  press({ at }: Hand): void {
    this.way = []
    this.pushed = false
    const chosen = new Set(this.worktop.selection())
    this.lines = this.worktop.allLines(true).filter((l) => !chosen.size || chosen.has(l.id))
    this.last = this.pointer = at
    this.worktop.refresh()
  }

  move({ at }: Hand): void {
    this.pointer = at
    if (this.last && distance(at, this.last) >= STEP * this.worktop.preferences().push.radius) this.pushTo(at)
    this.worktop.refresh()
  }

  private pushTo(at: Vec): void {
    const { radius, strength } = this.worktop.preferences().push
    this.way.push({ at: this.last!, by: subtract(at, this.last!) })
    this.last = at
    const field = new PushField(this.way, { radius, strength })
    const tolerance = tolerableBend(radius)
    const bent = new Map(
      this.lines.flatMap((l) => {
        const path = bentPath(l.path, field, tolerance)
        return path ? [[l.id, path] as const] : []
      }),
    )
    this.pushed = bent.size > 0
    this.worktop.change((draft) => {
      changeLines(draft, [...bent.keys()], (line) => takeBent(line, bent.get(line.id)!, field, tolerance, draft))
    })
  }

  release({ at }: Hand): void {
    if (!this.last) return
    if (distance(at, this.last) > 0) this.pushTo(at)
    this.last = null
    if (this.pushed) this.worktop.finish('Push')
    else {
      this.worktop.drop()
      this.worktop.say(
        this.worktop.selection().length
          ? 'No chosen line lies under the push. Push over them, or choose none to push all.'
          : 'No line that can be changed lies under the push. Make it wider, or unlock the layer first.',
      )
    }
    this.worktop.refresh()
  }

  cancel(): void {
    this.last = null
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  away(): void {
    this.pointer = null
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    const { push } = this.worktop.preferences()
    if (key === 'Escape' && this.last) this.cancel()
    else if (key === 'ArrowUp' || key === 'ArrowDown')
      push.radius = Math.round(Math.min(MOST, Math.max(LEAST, push.radius * (key === 'ArrowUp' ? GROWS : 1 / GROWS))))
    else if (key === 'ArrowRight' || key === 'ArrowLeft') {
      const stronger = push.strength + (key === 'ArrowRight' ? STRONGER : -STRONGER)
      push.strength = Math.round(10 * Math.min(1, Math.max(STRONGER, stronger))) / 10
    } else return false
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    if (!this.pointer) return []
    return [{ kind: 'brush', at: this.pointer, width: 2 * this.worktop.preferences().push.radius }]
  }
}
