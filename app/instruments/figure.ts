import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { layLines } from '#core/editing/lay'
import { newLine } from '#core/model/create'
import { figurePath } from '#core/editing/figures'

import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { DRAG_START, screenDistance } from './instrument'
import { Snapping } from './snapping'

/** Smaller figures than this are slips of the hand, screen px. */
const SLIP = 4

type Began = { at: Vec; screen: Vec; layer: string }
interface Laid {
  began: Began
  box: { a: Vec; b: Vec }
}

/** Draws an ellipse, a rectangle, a polygon, a star, a spiral or an arc as an editable line. */
export class Figure implements Instrument {
  readonly name = 'Figure'
  readonly cursor = 'crosshair'
  private began: Began | null = null
  private box: { a: Vec; b: Vec } | null = null

  private readonly snapping: Snapping

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.snapping = new Snapping(worktop)
  }

  hint(): string {
    if (this.box) return 'Release: finish · Shift: as wide as high · Alt: from the middle · Enter: keep · Esc: drop'
    return `Drag: ${article(this.worktop.preferences().figure.kind)} · Shift: as wide as high · Alt: from the middle`
  }

  press(hand: Hand): void {
    // One that was brought back is drawn on.
    if (this.box && this.began) return void (this.began = { ...this.began, screen: hand.screen })
    const layer = this.worktop.layerForInk()
    if (!layer) return
    this.worktop.select([])
    this.began = { at: this.snapping.point(hand), screen: hand.screen, layer }
  }

  move(hand: Hand): void {
    const { began } = this
    if (began && !this.box && screenDistance(began.screen, hand.screen) < DRAG_START) return
    if (began) this.box = this.boxTo(began.at, hand)
    else this.snapping.point(hand)
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    const { began } = this
    if (!began) return
    if (!this.box) this.worktop.say('Drag to give the figure its size.')
    else this.box = this.boxTo(began.at, hand)
    this.keep()
  }

  private boxTo(from: Vec, hand: Hand): { a: Vec; b: Vec } {
    return boxOf(from, { ...hand, at: this.snapping.point(hand, from) })
  }

  /** Another instrument is taken up in the middle of a drag: what is shown is kept. */
  leave(): void {
    this.keep()
  }

  private keep(): void {
    const path = this.path()
    const layer = this.began?.layer
    this.cancel()
    if (path && layer) {
      const line = newLine(path, { weight: this.worktop.nextWeight(), ink: this.worktop.nextInk() })
      this.worktop.edit(`Draw ${article(this.worktop.preferences().figure.kind)}`, (draft) => {
        layLines(draft, layer, [line])
      })
      this.worktop.select([line.id])
    }
    this.worktop.refresh()
  }

  cancel(): void {
    this.began = null
    this.box = null
    this.snapping.clear()
  }

  away(): void {
    this.snapping.clear()
  }

  laid(): Laid | null {
    const { began, box } = this
    return began && box && { began, box }
  }

  takeUp(laid: unknown): void {
    Object.assign(this, laid as Laid)
    this.worktop.refresh()
  }

  key(key: string): boolean {
    if (!this.began || (key !== 'Escape' && key !== 'Enter')) return false
    if (key === 'Enter') this.keep()
    else this.cancel()
    this.worktop.refresh()
    return true
  }

  /** The figure in the box that the hand has drawn; none while that is a slip. */
  private path(): Path | null {
    const { box } = this
    if (!box) return null
    const size = Math.max(Math.abs(box.b.x - box.a.x), Math.abs(box.b.y - box.a.y)) * this.worktop.zoom()
    if (size < SLIP) return null
    return figurePath(this.worktop.preferences().figure, box.a, box.b)
  }

  freshInk(): Line | null {
    const path = this.path()
    return path && newLine(path, { id: 'fresh', weight: this.worktop.nextWeight(), ink: this.worktop.nextInk() })
  }

  marks(): Mark[] {
    const path = this.path()
    const drawn: Mark[] =
      path && this.box
        ? [
            { kind: 'box', from: this.box.a, to: this.box.b },
            { kind: 'paths', paths: [path], tone: 'plum' },
          ]
        : []
    return [...drawn, ...this.snapping.marks()]
  }
}

const article = (kind: string): string => `${/^[aeiou]/.test(kind) ? 'an' : 'a'} ${kind}`

/** The box from where the hand began to where it is: square with Shift, about its beginning with Alt. */
function boxOf(from: Vec, { at, shift, alt }: Hand): { a: Vec; b: Vec } {
  let dx = at.x - from.x
  let dy = at.y - from.y
  if (shift) {
    const side = Math.max(Math.abs(dx), Math.abs(dy))
    dx = side * (dx < 0 ? -1 : 1)
    dy = side * (dy < 0 ? -1 : 1)
  }
  const b = { x: from.x + dx, y: from.y + dy }
  return { a: alt ? { x: from.x - dx, y: from.y - dy } : from, b }
}
