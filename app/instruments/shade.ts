import type { Path, Shade as Shaded, TraceSample, Vec } from '#core/drawing/model'
import { fitTrace, optionsOf } from '#core/fit/fit-trace'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import { newId } from '#core/new-id'
import type { Mark } from '~/canvas/marks'
import type { Hand, HandSample, Instrument, Worktop } from './instrument'
import { handOf } from './preferences'

/** Strokes smaller than this, screen px, are clicks. */
const CLICK = 6

/** Draws shapes of shade and light on fills: each stays within its region. */
export class Shade implements Instrument {
  readonly name = 'Shade'
  readonly cursor = 'crosshair'
  private samples: TraceSample[] = []
  private began = 0
  private device: 'pen' | 'mouse' | 'touch' | 'practice' = 'mouse'
  private drawing = false
  private over: { fill: string; shade: Shaded } | null = null

  constructor(private readonly worktop: Worktop) {}

  hint(): string {
    if (this.drawing) return 'Release: close the shape · Esc: drop'
    if (!this.worktop.drawing().fills?.some((f) => f.where === 'region')) return 'Pour a fill first: shade lies on fills'
    return this.over ? 'Alt+click: take this shade away · Drag: draw another' : 'Drag round what is to be shaded, over the edge if you like: it stays within its fill'
  }

  press(hand: Hand): void {
    if (hand.alt && this.over) {
      const { fill, shade } = this.over
      this.worktop.edit('Take a shade away', (draft) => {
        const of = draft.fills?.find((f) => f.id === fill)
        if (of) of.shades = of.shades?.filter((s) => s.id !== shade.id)
      })
      this.over = null
      return
    }
    this.drawing = true
    this.device = hand.device
    this.began = hand.samples[0]?.time ?? 0
    this.samples = []
    this.take(hand.samples)
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    if (this.drawing) this.take(hand.samples)
    else this.over = this.shadeAt(hand.at)
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    if (!this.drawing) return
    this.take(hand.samples)
    const { samples } = this
    this.cancel()
    const path = this.shapeOf(samples)
    if (path && this.span(samples) * this.worktop.zoom() > CLICK) void this.lay(samples, path)
    this.worktop.refresh()
  }

  private span(samples: readonly TraceSample[]): number {
    const [xs, ys] = [samples.map((s) => s.x), samples.map((s) => s.y)]
    return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  }

  /** The fill in which most of the stroke began: the first of its places that lies on one. */
  private async lay(samples: readonly TraceSample[], path: Path): Promise<void> {
    for (const share of [0, 0.25, 0.5, 0.75]) {
      const p = samples[Math.floor(share * (samples.length - 1))]!
      const hit = await this.worktop.regionAt(p)
      if (!hit?.fill || hit.where !== 'region') continue
      const { tone } = this.worktop.preferences().fill
      const shade: Shaded = { id: newId(), contours: [path], tone }
      this.worktop.edit(tone < 0 ? 'Shade' : 'Light on a fill', (draft) => {
        const of = draft.fills?.find((f) => f.id === hit.fill)
        if (of) of.shades = [...(of.shades ?? []), shade]
      })
      return
    }
    this.worktop.say('There is no fill here to shade. Pour an ink first, then begin on it.')
  }

  private shapeOf(samples: TraceSample[]): Path | null {
    if (samples.length < 3) return null
    const hand = { ...handOf(this.worktop.preferences()), squared: false, fromSpeed: false, unevenness: 0 }
    const trace = { samples, device: this.device, ...hand, zoom: this.worktop.zoom() }
    const { path } = fitTrace(trace, { ...optionsOf(trace), quick: true })
    return path.nodes.length > 1 ? { ...path, closed: true } : null
  }

  private take(samples: readonly HandSample[]): void {
    for (const s of samples) this.samples.push({ x: s.at.x, y: s.at.y, t: s.time - this.began, pressure: s.pressure })
  }

  private shadeAt(p: Vec): { fill: string; shade: Shaded } | null {
    for (const fill of this.worktop.drawing().fills ?? []) {
      const shade = fill.shades?.findLast((s) => windingAt(s.contours.map((c) => cubicsOfPath({ ...c, closed: true })), p) !== 0)
      if (shade) return { fill: fill.id, shade }
    }
    return null
  }

  cancel(): void {
    this.drawing = false
    this.samples = []
  }

  away(): void {
    this.over = null
  }

  overtaken(): void {
    this.cancel()
    this.over = null
  }

  leave(): void {
    this.cancel()
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.drawing) return false
    this.cancel()
    this.worktop.refresh()
    return true
  }

  marks(): Mark[] {
    if (this.drawing && this.samples.length > 1) {
      const path = { closed: true, nodes: this.samples.map((s) => ({ at: { x: s.x, y: s.y }, in: null, out: null, joint: 'corner' as const })) }
      return [{ kind: 'paths', paths: [path], tone: 'plum' }]
    }
    return this.over ? [{ kind: 'paths', paths: this.over.shade.contours, tone: 'next' }] : []
  }
}
