import type { Line, PenTrace, TraceSample } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { evenWeight, newLine } from '#core/model/create'
import { fitTrace, optionsOf } from '#core/fit/fit-trace'
import type { Mark } from '~/canvas/marks'
import type { Hand, HandSample, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Selection, View } from './worktop'
import { handOf } from './preferences'

/** A wide stroke, by the hand's pressure, of which something is made when it ends. */
export abstract class Brush implements Instrument {
  abstract readonly name: string
  readonly cursor = 'crosshair'
  private samples: TraceSample[] = []
  private device: PenTrace['device'] = 'mouse'
  private pointer: Vec | null = null
  private fresh: Line | null = null
  private began = 0
  protected painting = false

  constructor(protected readonly worktop: Edits & Selection & Hits & View & NextLine) {}

  abstract hint(): string
  /** How wide the brush is at full pressure, px. */
  protected abstract size(): number
  /** Says so and answers false where nothing can be done. */
  protected abstract ready(): boolean
  /** The stroke has ended. */
  protected abstract done(stroke: Line): void

  press(hand: Hand): void {
    if (!this.ready()) return
    this.painting = true
    this.device = hand.device
    this.samples = []
    this.began = hand.samples[0]?.time ?? 0
    this.take(hand.samples)
    this.fresh = this.stroke()
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    this.pointer = hand.at
    if (this.painting) {
      this.take(hand.samples)
      this.fresh = this.stroke()
    }
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    if (!this.painting) return
    this.take(hand.samples)
    this.finish()
  }

  private finish(): void {
    const stroke = this.stroke()
    this.cancel()
    this.done(stroke)
    this.worktop.refresh()
  }

  cancel(): void {
    this.painting = false
    this.samples = []
    this.fresh = null
  }

  away(): void {
    this.pointer = null
  }

  overtaken(): void {
    this.cancel()
  }

  /** Another instrument is taken up in the middle of a stroke: it ends there. */
  leave(): void {
    if (this.painting) this.finish()
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.painting) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  private take(samples: readonly HandSample[]): void {
    for (const s of samples) this.samples.push({ x: s.at.x, y: s.at.y, t: s.time - this.began, pressure: s.pressure })
  }

  /** The stroke as a line; a press alone is a dot. */
  private stroke(): Line {
    // A solid shape is round where the hand turns, and even but for its pressure.
    const hand = { ...handOf(this.worktop.preferences()), squared: false, fromSpeed: false, unevenness: 0 }
    const trace: PenTrace = { samples: [...this.samples], device: this.device, ...hand, zoom: this.worktop.zoom() }
    const { path, stops } = fitTrace(trace, { ...optionsOf(trace), quick: true })
    return newLine(path, { id: 'fresh', weight: { ...evenWeight(this.size()), stops }, ink: this.worktop.nextInk() })
  }

  freshInk(): Line | null {
    return this.fresh
  }

  marks(): Mark[] {
    return this.pointer ? [{ kind: 'brush', at: this.pointer, width: this.size() }] : []
  }
}
