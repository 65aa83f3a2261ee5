import type { Sketch, SketchLayer, Vec } from '#core/drawing/model'
import { rotate } from '#core/geometry/point'
import { sketchLayers } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import type { Worktop, Hand, Instrument } from './instrument'
import { arrowStep, DRAG_START, screenDistance } from './instrument'

const SMALLEST = 8

/** Moves and scales the pencil sketch of an unlocked layer. */
export class PlaceSketch implements Instrument {
  readonly name = 'Place'
  readonly cursor = 'default'
  private grip: { corner: number | null; from: Vec; screen: Vec } | null = null
  private moved = false

  constructor(private readonly worktop: Worktop) {}

  /** The topmost sketch that can be moved. */
  private sketch(): { layer: SketchLayer; sketch: Sketch } | null {
    for (const layer of sketchLayers(this.worktop.drawing()).reverse()) {
      const sketch = layer.items[layer.items.length - 1]
      if (sketch && layer.visible && !layer.locked) return { layer, sketch }
    }
    return null
  }

  hint(): string {
    if (!sketchLayers(this.worktop.drawing()).length) return 'Bring in a scan: drop a PNG, JPEG or WebP on the page'
    return this.sketch() ? 'Drag: move · Drag a corner: scale · Arrows: nudge' : 'The sketch is locked. Unlock it to move or scale it'
  }

  press(hand: Hand): void {
    const found = this.sketch()
    if (!found) {
      const [locked] = sketchLayers(this.worktop.drawing())
      if (locked) this.worktop.say(`Layer "${locked.name}" is locked. Unlock it below the drawing to move or scale it.`)
      return
    }
    this.grip = { corner: hand.mark?.kind === 'corner' ? hand.mark.index : null, from: hand.at, screen: hand.screen }
    this.moved = false
  }

  move(hand: Hand): void {
    const found = this.sketch()
    if (!this.grip || !found) return
    if (!this.moved && screenDistance(this.grip.screen, hand.screen) < DRAG_START) return
    this.moved = true
    const { corner, from } = this.grip
    const d = { x: hand.at.x - from.x, y: hand.at.y - from.y }
    this.change(found.sketch.id, (s) => (corner === null ? { ...s, x: s.x + d.x, y: s.y + d.y } : scaled(s, corner, d)))
    this.worktop.refresh()
  }

  private change(id: string, make: (sketch: Sketch) => Sketch): void {
    this.worktop.change((draft) => {
      for (const layer of sketchLayers(draft)) {
        const i = layer.items.findIndex((s) => s.id === id)
        if (i >= 0) layer.items[i] = make(layer.items[i]!)
      }
    })
  }

  release(): void {
    if (this.grip && this.moved) this.worktop.finish(this.grip.corner === null ? 'Move the sketch' : 'Scale the sketch')
    this.grip = null
    this.worktop.refresh()
  }

  cancel(): void {
    this.grip = null
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string, shift: boolean): boolean {
    if (key === 'Escape' && this.grip) {
      this.cancel()
      this.worktop.refresh()
      return true
    }
    const found = this.sketch()
    const d = arrowStep(key, shift)
    if (!d || !found) return false
    this.change(found.sketch.id, (s) => ({ ...s, x: s.x + d.x, y: s.y + d.y }))
    this.worktop.finish('Nudge the sketch')
    return true
  }

  marks(): Mark[] {
    const found = this.sketch()
    return found ? [{ kind: 'frame', corners: cornersOf(found.sketch) }] : []
  }
}

/** Corners in order: top left, top right, bottom right, bottom left, turned about the top left. */
export function cornersOf(s: Sketch): [Vec, Vec, Vec, Vec] {
  const angle = (s.angle * Math.PI) / 180
  const at = (x: number, y: number): Vec => {
    const p = rotate({ x, y }, angle)
    return { x: s.x + p.x, y: s.y + p.y }
  }
  return [at(0, 0), at(s.width, 0), at(s.width, s.height), at(0, s.height)]
}

/** The sketch with `corner` dragged by `d`: proportions kept, the opposite corner where it is. */
function scaled(s: Sketch, corner: number, d: Vec): Sketch {
  const corners = cornersOf(s)
  const fixed = corners[(corner + 2) % 4]!
  const from = corners[corner]!
  const arm = { x: from.x - fixed.x, y: from.y - fixed.y }
  const k = 1 + (d.x * arm.x + d.y * arm.y) / (arm.x * arm.x + arm.y * arm.y)
  const factor = Math.max(k, SMALLEST / Math.min(s.width, s.height))
  return {
    ...s,
    x: fixed.x + (s.x - fixed.x) * factor,
    y: fixed.y + (s.y - fixed.y) * factor,
    width: s.width * factor,
    height: s.height * factor,
  }
}
