import { changeSketchAndPage } from '#core/editing/page-of-sketch'
import { croppedTo, fromShares, toShares } from '#core/sketch/sketch-place'
import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Sketches, View } from './worktop'
import { DRAG_START, screenDistance } from './instrument'
import { openSketch, whySketchIsShut } from './sketch-in-hand'

/** Keeps only a part of the sketch: what lies within a box that is drawn on it. */
export class CropSketch implements Instrument {
  readonly name = 'Crop'
  readonly cursor = 'crosshair'
  private box: { from: Hand; to: Vec; far: boolean } | null = null

  constructor(private readonly worktop: Edits & View & Sketches) {}

  hint(): string {
    return (
      whySketchIsShut(this.worktop) ??
      (this.box
        ? 'Release: only this is kept in sight · Esc: leave it'
        : 'Draw a box about what is to be kept of the sketch')
    )
  }

  press(hand: Hand): void {
    const why = whySketchIsShut(this.worktop)
    if (why) this.worktop.say(why)
    else this.box = { from: hand, to: hand.at, far: false }
  }

  move(hand: Hand): void {
    if (!this.box) return
    this.box.to = hand.at
    this.box.far ||= screenDistance(this.box.from.screen, hand.screen) >= DRAG_START
    this.worktop.refresh()
  }

  release(): void {
    const { box } = this
    this.box = null
    const sketch = openSketch(this.worktop)
    if (box?.far && sketch) {
      const [a, b] = spanOf([box.from.at, box.to].map((p) => toShares(sketch, p)))
      if (a.x >= 1 || a.y >= 1 || b.x <= 0 || b.y <= 0)
        this.worktop.say('That box lies beside the sketch. Draw it about what is to be kept.')
      else
        this.worktop.edit('Crop the sketch', (draft) =>
          changeSketchAndPage(draft, sketch.id, (s) => croppedTo(s, a, b)),
        )
    }
    this.worktop.refresh()
  }

  cancel(): void {
    this.box = null
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.box) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const sketch = openSketch(this.worktop)
    if (!this.box?.far || !sketch) return []
    // The box lies as the sketch does, turned with it.
    const [a, b] = spanOf([this.box.from.at, this.box.to].map((p) => toShares(sketch, p)))
    const nodes = [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }].map((p) => ({
      at: fromShares(sketch, p),
      in: null,
      out: null,
      joint: 'corner' as const,
    }))
    return [{ kind: 'paths', paths: [{ nodes, closed: true }], tone: 'strong' }]
  }
}

const spanOf = ([p, q]: readonly Vec[]): [Vec, Vec] => [
  { x: Math.min(p!.x, q!.x), y: Math.min(p!.y, q!.y) },
  { x: Math.max(p!.x, q!.x), y: Math.max(p!.y, q!.y) },
]
