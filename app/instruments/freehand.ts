import type { Line, PenTrace, TraceSample } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { layLines } from '#core/editing/lay'
import { newLine } from '#core/model/create'
import { joinedLines, reversedLine } from '#core/editing/edit-line'
import { followRemade, goneOn } from '#core/editing/remade-lines'
import { optionsOf, pathByTrace } from '#core/fit/fit-trace'
import { LiveFit } from '#core/fit/live-fit'
import { gapOfTrace } from '#core/fit/loop-of-trace'
import { lineFromTrace, weightByTrace } from '#core/fit/line-from-trace'
import { quickStops } from '#core/fit/pressure-stops'
import { findLine } from '#core/model/find'
import type { Mark, MarkRef } from '~/canvas/marks'
import type { GoingOn } from './going-on'
import { nibMark } from './nib-mark'
import { goOnWith } from './going-on'
import type { Hand, HandSample, Instrument, UnderWay } from './instrument'
import type { Edits, NextLine, Pencil, Selection, View } from './worktop'
import { takenEndMarks } from './line-marks'
import { handOf } from './preferences'

/** A loop has so many samples, and is so many times as long as the reach within which it closes. */
const FEWEST_OF_LOOP = 8
const ROUND = 6

/** Shorter strokes than this are slips of the hand, screen px. */
const SLIP = 3

/** What of a stroke the hand has drawn. */
interface Stroke {
  samples: TraceSample[]
  device: PenTrace['device']
  layer: string
  goingOn: GoingOn | null
  free: boolean
}

/** Draws a line as the hand moves, fitted to few nodes; the trace stays with the line. */
export class Freehand implements Instrument {
  readonly name = 'Freehand'
  readonly takesUpSteps = true
  readonly cursor = 'crosshair'
  private samples: TraceSample[] = []
  private device: PenTrace['device'] = 'mouse'
  private line: Line | null = null
  private live: LiveFit | null = null
  private over: MarkRef | null = null
  /** Where the hand hovers, if it is one that does. */
  private pointer: Vec | null = null
  private began = 0
  private layer: string | null = null
  /** Nothing draws the hand while the key is down that frees it. */
  private free = false
  /** The line whose end mark the stroke began on. */
  private goingOn: GoingOn | null = null

  constructor(private readonly worktop: Edits & Selection & View & NextLine & Pencil) {}

  /** Whether a stroke is under way. */
  get drawing(): boolean {
    return this.layer !== null
  }

  hint(): string {
    if (this.over) return 'Drag: go on with this line'
    if (!this.layer)
      return this.endMarks().length ? 'Drag: draw a line · From an end mark: go on with that line' : 'Drag: draw a line'
    if (this.closes()) return 'Release: close the line · Ctrl: leave it open'
    const nodes = this.line?.path.nodes.length ?? 0
    return nodes > 1 ? `${nodes} nodes · Release: finish · Esc: drop` : 'Release: finish · Esc: drop'
  }

  press(hand: Hand): void {
    const mark = hand.mark?.kind === 'end' ? hand.mark : null
    this.goingOn = mark && goOnWith(this.worktop, mark.line, mark.end)
    if (mark && !this.goingOn) return
    this.layer = this.goingOn
      ? findLine(this.worktop.drawing(), this.goingOn.line.id)!.layer.id
      : this.worktop.layerForInk()
    if (!this.layer) return
    this.over = null
    this.worktop.select([])
    this.device = hand.device
    this.samples = []
    this.began = hand.samples[0]?.time ?? 0
    this.free = hand.free
    this.take(hand.samples)
    // The stroke begins at the very end that it goes on from.
    const tip = this.goingOn && tipOf(this.goingOn)
    if (tip && this.samples[0]) Object.assign(this.samples[0], tip)
  }

  move(hand: Hand): void {
    if (!this.layer) {
      this.hoverOver(hand.mark)
      this.pointer = hand.device === 'touch' ? null : hand.at
      this.worktop.refresh()
      return
    }
    this.free = hand.free
    this.take(hand.samples)
    this.line = this.fitted(false)
    this.worktop.refresh()
  }

  /** The end mark under the hand is shown, so that nothing is gone on with by accident. */
  private hoverOver(mark: MarkRef | null): void {
    const over = mark?.kind === 'end' ? mark : null
    if (over === this.over) return
    this.over = over
    this.worktop.refresh()
  }

  away(): void {
    this.hoverOver(null)
    this.pointer = null
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    if (!this.layer) return
    this.free = hand.free
    this.take(hand.samples)
    this.keep(this.layer)
  }

  /** Another instrument is taken up in the middle of a stroke: what has been drawn is kept. */
  leave(): void {
    if (this.layer) this.keep(this.layer)
  }

  /** The stroke so far as a line of its own, or null while it is a slip. */
  private stroke(): Line | null {
    const line = this.reach() * this.worktop.zoom() >= SLIP ? this.fitted(true) : null
    return line && line.path.nodes.length > 1 ? { ...line, id: newLine(line.path).id } : null
  }

  underWay(): UnderWay | null {
    const line = this.layer ? this.stroke() : null
    return line && { label: 'Draw freehand', line, replaces: false }
  }

  private keep(layer: string): void {
    const kept = this.stroke()
    const { goingOn } = this
    this.cancel()
    if (kept) {
      if (goingOn) this.lengthen(goingOn, kept)
      else {
        this.worktop.edit('Draw freehand', (draft) => {
          layLines(draft, layer, [kept])
        })
        this.worktop.select([kept.id], true)
      }
    }
    this.worktop.refresh()
  }

  private lengthen({ line, end }: GoingOn, stroke: Line): void {
    const joined = joinedLines(end === 'last' ? line : reversedLine(line), stroke)
    const longer = end === 'last' ? joined : reversedLine(joined)
    const before = this.worktop.drawing()
    this.worktop.edit('Go on with a line', (draft) => {
      const found = findLine(draft, line.id)
      if (found) found.layer.items[found.index] = longer
      followRemade(before, draft, new Map([[line.id, goneOn(longer, line, end)]]))
    })
    this.worktop.select([line.id])
  }

  /** The line that is being gone on with may be another now, or gone. */
  overtaken(): void {
    if (this.goingOn) this.cancel()
  }

  cancel(): void {
    this.goingOn = null
    this.samples = []
    this.live = null
    this.line = null
    this.layer = null
  }

  laid(): Stroke | null {
    const { samples, device, layer, goingOn, free } = this
    return layer !== null && samples.length > 1 ? { samples: [...samples], device, layer, goingOn, free } : null
  }

  /** A stroke that was dropped has no hand any more: it is kept as it was. */
  takeUp(laid: unknown): void {
    Object.assign(this, laid as Stroke)
    this.keep((laid as Stroke).layer)
  }

  key(key: string): boolean {
    if (key !== 'Escape' || !this.layer) return false
    this.cancel()
    this.worktop.refresh()
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

  /** Whether the hand is back where it began, having gone round. */
  private closes(): boolean {
    const reach = this.worktop.preferences().closesWithin / this.worktop.zoom()
    if (this.free || this.goingOn || !(reach > 0) || this.samples.length < FEWEST_OF_LOOP) return false
    const { gap, length } = gapOfTrace(this.samples)
    return gap <= reach && length > ROUND * reach
  }

  /** Length of the trace so far, page px. */
  private reach(): number {
    return this.samples
      .slice(1)
      .reduce((sum, s, i) => sum + Math.hypot(s.x - this.samples[i]!.x, s.y - this.samples[i]!.y), 0)
  }

  /** The path as the pencil draws it; one that goes on with a line begins where that ends all the same. */
  private readonly clung = (path: Path): Path => (this.free ? path : this.worktop.clung(path, !!this.goingOn))

  /** The stroke as a line: fitted as a whole when it is final, as far as the hand can still change it while it is drawn. */
  private fitted(final: boolean): Line | null {
    if (this.samples.length < 2) return null
    const wants = this.worktop.preferences()
    const trace: PenTrace = {
      samples: this.samples.map((s) => ({ ...s })),
      device: this.device,
      ...handOf(wants),
      zoom: this.worktop.zoom(),
      ...(final && this.closes() && { loop: true }),
    }
    const wanted = this.worktop.nextWeight()
    if (final) {
      const { path, weight } = lineFromTrace(trace, wanted, wants.pressure)
      return newLine(this.clung(path), { id: 'fresh', weight, trace, ink: this.worktop.nextInk() })
    }
    const path = trace.squared ? pathByTrace(trace) : (this.live ??= new LiveFit(optionsOf(trace))).path(trace.samples)
    return newLine(this.clung(path), {
      id: 'fresh',
      weight: weightByTrace(wanted, quickStops(trace), wants.pressure),
      trace,
      ink: this.worktop.nextInk(),
    })
  }

  freshInk(): Line | null {
    return this.line
  }

  private readonly endMarks = (): Mark[] => takenEndMarks(this.worktop, this.over)

  /** The ends that can be gone on with, and how wide a stroke of full weight would be here, as its nib has it. */
  marks(): Mark[] {
    if (this.layer) return this.closes() ? [{ kind: 'closer', at: this.samples[0]!, ref: { kind: 'closer' } }] : []
    return [...this.endMarks(), ...nibMark(this.worktop, this.over ? null : this.pointer)]
  }
}

const tipOf = ({ line, end }: GoingOn): Vec => {
  const { nodes } = line.path
  return { ...nodes[end === 'first' ? 0 : nodes.length - 1]!.at }
}
