import type { Sketch } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { cornersOf, isOnSketch, turnedBy } from '#core/sketch/sketch-place'
import { add, direction, lerp, subtract } from '#core/geometry/point'
import { sketchLayers } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Sketches, View } from './worktop'
import { arrowStep, DRAG_START, screenDistance } from './instrument'
import { changingSketch, openSketch, whySketchIsShut } from './sketch-in-hand'

const SMALLEST = 8
/** How far the turning mark stands off, screen px. */
const OFF = 16
/** Turning in steps, degrees. */
const STEP = 15

type Grip = { kind: 'body' } | { kind: 'corner'; index: number } | { kind: 'turner' }

/** Moves, scales and turns the pencil sketch in hand. */
export class PlaceSketch implements Instrument {
  readonly name = 'Place'
  readonly cursor = 'default'
  private grip: { grip: Grip; from: Vec; screen: Vec; was: Sketch } | null = null
  private moved = false

  constructor(private readonly worktop: Edits & View & Sketches) {}

  hint(): string {
    if (this.grip?.grip.kind === 'turner') return 'Shift: 15° steps · Esc: back'
    return (
      whySketchIsShut(this.worktop) ?? 'Drag: move · Drag a corner: scale · Drag the ring above: turn · Arrows: nudge'
    )
  }

  press(hand: Hand): void {
    if (!hand.mark) this.choose(hand.at)
    const why = whySketchIsShut(this.worktop)
    if (why) return this.worktop.say(why)
    const { mark } = hand
    const grip: Grip = mark?.kind === 'corner' || mark?.kind === 'turner' ? mark : { kind: 'body' }
    this.grip = { grip, from: hand.at, screen: hand.screen, was: openSketch(this.worktop)! }
    this.moved = false
  }

  /** The topmost sketch under the hand that can be worked on is the one in hand. */
  private choose(p: Vec): void {
    const under = sketchLayers(this.worktop.drawing()).filter(
      (l) => l.visible && !l.locked && l.items.some((s) => isOnSketch(s, p)),
    )
    const now = this.worktop.sketchLayer()
    if (under.length && !under.some((l) => l.id === now?.id)) this.worktop.chooseSketch(under.at(-1)!.id)
  }

  move(hand: Hand): void {
    if (!this.grip) return
    if (!this.moved && screenDistance(this.grip.screen, hand.screen) < DRAG_START) return
    this.moved = true
    const { grip, from, was } = this.grip
    const d = subtract(hand.at, from)
    const next =
      grip.kind === 'body'
        ? { ...was, ...add(was, d) }
        : grip.kind === 'corner'
          ? scaled(was, grip.index, d)
          : turnedBy(was, this.turn(was, hand))
    this.worktop.change(changingSketch(was.id, () => next))
    this.worktop.refresh()
  }

  private turn(was: Sketch, hand: Hand): number {
    const corners = cornersOf(was)
    const middle = lerp(corners[0], corners[2], 0.5)
    const angleOf = (p: Vec): number => (Math.atan2(p.y - middle.y, p.x - middle.x) * 180) / Math.PI
    const by = angleOf(hand.at) - angleOf(this.grip!.from)
    return hand.shift ? Math.round((was.angle + by) / STEP) * STEP - was.angle : by
  }

  release(): void {
    if (this.grip && this.moved)
      this.worktop.finish(
        { body: 'Move the sketch', corner: 'Scale the sketch', turner: 'Turn the sketch' }[this.grip.grip.kind],
      )
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
    const found = openSketch(this.worktop)
    const d = arrowStep(key, shift)
    if (!d || !found) return false
    this.worktop.change(changingSketch(found.id, (s) => ({ ...s, ...add(s, d) })))
    this.worktop.finish('Nudge the sketch')
    return true
  }

  marks(): Mark[] {
    const found = openSketch(this.worktop)
    if (!found) return []
    const corners = cornersOf(found)
    const up = direction(subtract(corners[0], corners[3])) ?? { x: 0, y: -1 }
    const top = lerp(corners[0], corners[1], 0.5)
    const off = OFF / this.worktop.zoom()
    return [{ kind: 'frame', corners, turner: { x: top.x + up.x * off, y: top.y + up.y * off } }]
  }
}

/** The sketch with `corner` dragged by `d`: proportions kept, the opposite corner where it is. */
function scaled(s: Sketch, corner: number, d: Vec): Sketch {
  const corners = cornersOf(s)
  const fixed = corners[(corner + 2) % 4]!
  const from = corners[corner]!
  const arm = subtract(from, fixed)
  const k = 1 + (d.x * arm.x + d.y * arm.y) / (arm.x * arm.x + arm.y * arm.y)
  const factor = Math.max(k, SMALLEST / Math.min(s.width, s.height))
  return { ...s, ...lerp(fixed, s, factor), width: s.width * factor, height: s.height * factor }
}
