import { levelling, turnedBy } from '#core/sketch/sketch-place'
import { distance } from '#core/geometry/point'
import type { Vec } from '#core/geometry/point'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Sketches, View } from './worktop'
import { changingSketch, openSketch, whySketchIsShut } from './sketch-in-hand'

/** A line shorter than this says nothing, screen px. */
const SHORTEST = 12

/** Turns the sketch by a line that is drawn along what should be level, or upright. */
export class LevelSketch implements Instrument {
  readonly name = 'Level'
  readonly cursor = 'crosshair'
  private line: { from: Vec; to: Vec } | null = null

  constructor(private readonly worktop: Edits & View & Sketches) {}

  hint(): string {
    return (
      whySketchIsShut(this.worktop) ??
      (this.line
        ? 'Release: the sketch is turned until this is level, or upright · Esc: leave it'
        : 'Draw a line along what should be level, or upright')
    )
  }

  press(hand: Hand): void {
    const why = whySketchIsShut(this.worktop)
    if (why) this.worktop.say(why)
    else this.line = { from: hand.at, to: hand.at }
  }

  move(hand: Hand): void {
    if (!this.line) return
    this.line.to = hand.at
    this.worktop.refresh()
  }

  release(): void {
    const { line } = this
    this.line = null
    const sketch = openSketch(this.worktop)
    if (line && sketch && distance(line.from, line.to) * this.worktop.zoom() >= SHORTEST) {
      const by = levelling(line.from, line.to)
      if (by)
        this.worktop.edit(
          'Level the sketch',
          changingSketch(sketch.id, (s) => turnedBy(s, by)),
        )
    }
    this.worktop.refresh()
  }

  cancel(): void {
    this.line = null
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.line) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    const { line } = this
    if (!line) return []
    const by = levelling(line.from, line.to)
    const straight = [line.from, line.to].map((at) => ({ at, in: null, out: null, joint: 'corner' as const }))
    return [
      { kind: 'paths', paths: [{ nodes: straight, closed: false }], tone: 'strong' },
      { kind: 'tag', at: line.to, text: `${by.toFixed(1)}°` },
    ]
  }
}
