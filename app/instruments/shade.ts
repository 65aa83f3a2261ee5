import type { Line, Shade as Shaded, TraceSample } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { evenWeight, newLine } from '#core/model/create'
import { perUsualPx } from '#core/model/fineness'
import { tonedInk } from '#core/model/inks'
import { paintedBy } from '#core/editing/solids'
import { fitTrace, optionsOf } from '#core/fit/fit-trace'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import { besideOf } from '#core/ink/regions/side-finder'
import { newId } from '#core/new-id'
import type { Mark } from '~/canvas/marks'
import { findLine } from '#core/model/find'
import type { Hand, HandSample, Instrument } from './instrument'
import type { Edits, Fills, Hits, NextLine, View } from './worktop'
import { handOf } from './preferences'

/** Strokes smaller than this, screen px, are clicks. */
const CLICK = 6
/** A closed line is pointed at within so many screen px of it. */
const REACH = 6

/** Lays shapes of shade and light on fills: each stays within its region. */
export class Shade implements Instrument {
  readonly name = 'Shade'
  readonly cursor = 'crosshair'
  private samples: TraceSample[] = []
  private began = 0
  private device: 'pen' | 'mouse' | 'touch' | 'practice' = 'mouse'
  private drawing = false
  private pointer: Vec | null = null
  private over: { fill: string; shade: Shaded } | null = null
  /** The closed line under the pointer. */
  private line: Line | null = null

  constructor(private readonly worktop: Edits & Hits & View & NextLine & Fills) {}

  private get isBrush(): boolean {
    return this.worktop.preferences().shade.by === 'brush'
  }

  hint(): string {
    if (this.drawing)
      return this.isBrush ? 'Release: lay the shade · Esc: drop' : 'Release: close the shape · Esc: drop'
    if (!this.worktop.drawing().fills?.some((f) => f.where === 'region'))
      return 'Pour a fill first: shade lies on fills'
    if (this.line) return 'Click: this closed line becomes shade on the fill about it'
    if (this.over) return 'Alt+click: take this shade away · Drag: lay another'
    return this.isBrush
      ? 'Drag: paint shade, over the edge if you like: it stays within its fill'
      : 'Drag round what is to be shaded, over the edge if you like: it stays within its fill'
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
    this.pointer = hand.at
    if (this.drawing) this.take(hand.samples)
    else this.look(hand.at)
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    if (!this.drawing) return
    this.take(hand.samples)
    const { samples } = this
    const isClick = this.span(samples) * this.worktop.zoom() <= CLICK
    const contours = isClick && !this.isBrush ? [] : this.shapeOf(samples)
    this.cancel()
    if (isClick && this.line) void this.layLine(this.line)
    else if (contours.length)
      void this.lay(
        contours,
        [0, 0.25, 0.5, 0.75].map((share) => samples[Math.floor(share * (samples.length - 1))]!),
      )
    this.worktop.refresh()
  }

  private look(at: Vec): void {
    const hit = this.worktop.lineAt(at, REACH)?.line
    this.line = hit?.path.closed ? hit : null
    this.over = this.line ? null : this.shadeAt(at)
  }

  private span(samples: readonly TraceSample[]): number {
    const [xs, ys] = [samples.map((s) => s.x), samples.map((s) => s.y)]
    return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys))
  }

  /** Lays contours on the fill of the first of some places that lies on one; a line that they were made of goes. */
  private async lay(contours: Path[], places: readonly Vec[], line?: Line): Promise<void> {
    for (const p of places) {
      const hit = await this.worktop.regionAt(p)
      if (!hit?.fill || hit.where !== 'region') continue
      const { tone } = this.worktop.preferences().fill
      const shade: Shaded = { id: newId(), contours, tone }
      this.worktop.edit(tone < 0 ? 'Shade' : 'Light on a fill', (draft) => {
        const of = draft.fills?.find((f) => f.id === hit.fill)
        if (!of) return
        of.shades = [...(of.shades ?? []), shade]
        const found = line && findLine(draft, line.id)
        if (found) found.layer.items.splice(found.index, 1)
      })
      return
    }
    this.worktop.say('There is no fill here to shade. Pour an ink first, then begin on it.')
  }

  /** A closed line goes, and what it goes round is shade of the fill beside it. */
  private async layLine(line: Line): Promise<void> {
    this.line = null
    const places = (['left', 'right'] as const).flatMap((side) =>
      [0.1, 0.35, 0.6, 0.85].map((share) => besideOf(line, side, share, perUsualPx(this.worktop.drawing().page))),
    )
    await this.lay(
      [line.path],
      places.filter((p) => p !== null),
      line,
    )
  }

  /** What a stroke goes round, or covers. */
  private shapeOf(samples: readonly TraceSample[]): Path[] {
    const line = this.stroke(samples)
    if (this.isBrush) return paintedBy(line, perUsualPx(this.worktop.drawing().page))
    return samples.length > 2 && line.path.nodes.length > 1 ? [{ ...line.path, closed: true }] : []
  }

  private stroke(samples: readonly TraceSample[]): Line {
    const preferences = this.worktop.preferences()
    const hand = { ...handOf(preferences), squared: false, fromSpeed: false, unevenness: 0 }
    const trace = { samples: [...samples], device: this.device, ...hand, zoom: this.worktop.zoom() }
    const { path, stops } = fitTrace(trace, { ...optionsOf(trace), quick: true })
    return newLine(path, {
      id: 'fresh',
      weight: { ...evenWeight(preferences.shade.width), stops },
      ink: tonedInk(this.worktop.inkInHand(), preferences.fill.tone),
    })
  }

  freshInk(): Line | null {
    return this.drawing && this.isBrush ? this.stroke(this.samples) : null
  }

  private take(samples: readonly HandSample[]): void {
    for (const s of samples) this.samples.push({ x: s.at.x, y: s.at.y, t: s.time - this.began, pressure: s.pressure })
  }

  private shadeAt(p: Vec): { fill: string; shade: Shaded } | null {
    for (const fill of this.worktop.drawing().fills ?? []) {
      const shade = fill.shades?.findLast(
        (s) =>
          windingAt(
            s.contours.map((c) => cubicsOfPath({ ...c, closed: true })),
            p,
          ) !== 0,
      )
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
    this.line = null
    this.pointer = null
  }

  overtaken(): void {
    this.cancel()
    this.over = null
    this.line = null
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
    if (this.isBrush && this.pointer && !this.line)
      return [...this.shadeMarks(), { kind: 'brush', at: this.pointer, width: this.worktop.preferences().shade.width }]
    if (this.drawing && this.samples.length > 1) {
      const path = {
        closed: true,
        nodes: this.samples.map((s) => ({ at: { x: s.x, y: s.y }, in: null, out: null, joint: 'corner' as const })),
      }
      return [{ kind: 'paths', paths: [path], tone: 'plum' }]
    }
    return this.shadeMarks()
  }

  private shadeMarks(): Mark[] {
    if (this.line) return [{ kind: 'paths', paths: [this.line.path], tone: 'plum' }]
    return this.over ? [{ kind: 'paths', paths: this.over.shade.contours, tone: 'next' }] : []
  }
}
