import type { Line, PenTrace, TraceSample } from '#core/drawing/model'
import { newLine } from '#core/drawing/create'
import { fitTrace } from '#core/fit/fit-trace'
import { findLayer } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import type { Bench, Hand, HandSample, Instrument } from './instrument'

/** How far the fitted path may lie from the steadied trace, screen px: drawing closer gives more detail. */
const TOLERANCE = 0.7

/** Shorter strokes than this are slips of the hand, screen px. */
const SLIP = 3

/** Draws a line as the hand moves, fitted to few nodes; the trace stays with the line. */
export class Freehand implements Instrument {
  readonly name = 'Freehand'
  readonly cursor = 'crosshair'
  private samples: TraceSample[] = []
  private device: PenTrace['device'] = 'mouse'
  private line: Line | null = null
  private began = 0
  private layer: string | null = null

  constructor(private readonly bench: Bench) {}

  hint(): string {
    if (!this.layer) return 'Drag: draw a line'
    const nodes = this.line?.path.nodes.length ?? 0
    return nodes > 1 ? `${nodes} nodes · Release: finish · Esc: drop` : 'Release: finish · Esc: drop'
  }

  press(hand: Hand): void {
    this.layer = this.bench.layerForInk()
    if (!this.layer) return
    this.bench.select([])
    this.device = hand.device
    this.samples = []
    this.began = hand.samples[0]?.time ?? 0
    this.take(hand.samples)
  }

  move(hand: Hand): void {
    if (!this.layer) return
    this.take(hand.samples)
    this.line = this.fitted()
    this.bench.refresh()
  }

  release(hand: Hand): void {
    if (!this.layer) return
    this.take(hand.samples)
    this.keep(this.layer)
  }

  /** Another instrument is taken up in the middle of a stroke: what has been drawn is kept. */
  leave(): void {
    if (this.layer) this.keep(this.layer)
  }

  private keep(layer: string): void {
    const line = this.reach() * this.bench.zoom() >= SLIP ? this.fitted() : null
    this.cancel()
    if (line && line.path.nodes.length > 1) {
      const kept = { ...line, id: newLine(line.path).id }
      this.bench.edit('Draw freehand', (draft) => {
        findLayer(draft, layer)?.items.push(kept)
      })
      this.bench.select([kept.id])
    }
    this.bench.refresh()
  }

  cancel(): void {
    this.samples = []
    this.line = null
    this.layer = null
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.layer) return false
    this.cancel()
    this.bench.refresh()
    return true
  }

  private take(samples: readonly HandSample[]): void {
    for (const s of samples) {
      this.samples.push({
        x: s.at.x,
        y: s.at.y,
        t: s.time - this.began,
        pressure: s.pressure,
        ...(s.tiltX !== undefined && { tiltX: s.tiltX, tiltY: s.tiltY ?? 0 }),
      })
    }
  }

  /** Length of the trace so far, page px. */
  private reach(): number {
    return this.samples.slice(1).reduce((sum, s, i) => sum + Math.hypot(s.x - this.samples[i]!.x, s.y - this.samples[i]!.y), 0)
  }

  private fitted(): Line | null {
    if (this.samples.length < 2) return null
    const { steadiness, pressure } = this.bench.preferences()
    const trace: PenTrace = { samples: this.samples.map((s) => ({ ...s })), device: this.device, steadiness, response: 1 }
    const { path, stops } = fitTrace(trace, { steadiness, tolerance: TOLERANCE / this.bench.zoom() })
    const weight = this.bench.nextWeight()
    const pressed = pressure && stops.length > 1 ? { ...weight, stops, start: null, end: null } : weight
    return newLine(path, { id: 'fresh', weight: pressed, trace })
  }

  freshInk(): Line | null {
    return this.line
  }

  marks(): Mark[] {
    return []
  }
}
