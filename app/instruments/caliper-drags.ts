import type { End } from '#core/geometry/ends'
import type { Line, Weight } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { arcOfPath } from '#core/geometry/known'
import { distance, subtract } from '#core/geometry/point'
import { taperAtEnd, withTaperLength, withTip } from '#core/weight/end-tapers'
import type { Sides } from '#core/weight/stops'
import { addStop, addSwell, slideStops, widenStop, widenStops } from '#core/weight/stops'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'
import { acrossAt, goesAcross, offset, widthOf } from './across'
import { changeStops, sameStop, stopsInWords } from './chosen-stops'
import type { LineHit } from '#core/outline/hit-line'
import type { Hand } from './instrument'
import type { Edits, NextLine, Selection, StopRef } from './worktop'
import { arcOf } from './line-marks'

/** What a hand does while it holds a jaw, a pin, an end or a taper. */
export interface CaliperDrag {
  hint: string
  /** What its step is called; null where it changes nothing. */
  label: string | null
  /** The drag has become one: `pressed` is where the hand came down, page px. */
  begin: (hand: Hand, pressed: Vec) => void
  drag: (hand: Hand) => void
}

const lineOf = (worktop: Edits, id: string): Line => findLine(worktop.drawing(), id)!.line

/** The end of an open line that lies within reach (px) of a point: there it wins over the body. */
export function endNear({ path }: Line, at: Vec, reach: number): End | null {
  if (path.closed) return null
  const arc = arcOfPath(path)
  // On a short line the middle still belongs to the body.
  const near = Math.min(reach, arc.total / 4)
  if (distance(arc.point(0), at) <= near) return 'first'
  return distance(arc.point(arc.total), at) <= near ? 'last' : null
}

/** Which sides a drag changes: linked or not, and Alt the other way round. */
const sidesOf = (worktop: NextLine, alt: boolean, side: 'left' | 'right'): Sides =>
  worktop.preferences().sidesLinked !== alt ? 'both' : side

/** Drags a stop, and those chosen with it: across widens, along slides. A fresh one exists only once it is dragged. */
export class StopDrag implements CaliperDrag {
  label = 'Change a width stop'
  private side: 'left' | 'right' = 'left'
  /** Distance of the press from the edge it took hold of, so that the edge does not jump, px. */
  private slack = 0
  private start: Line | null = null
  private from = 0

  constructor(
    private readonly worktop: Edits & Selection & NextLine,
    private readonly ref: StopRef,
    private what: 'widen' | 'slide' | 'undecided',
    private readonly fresh: LineHit | null,
  ) {}

  get hint(): string {
    if (this.what === 'slide') return 'Drag along the line · Esc: back'
    return `Drag across: width · Alt: ${this.worktop.preferences().sidesLinked ? 'one side' : 'both sides'} · Esc: back`
  }

  begin(hand: Hand, pressed: Vec): void {
    const line = lineOf(this.worktop, this.ref.line)
    const at = this.fresh?.at ?? line.weight.stops[this.ref.index]!.at
    const across = acrossAt(line, at)
    if (this.what === 'undecided') this.what = goesAcross(across.normal, subtract(hand.at, pressed)) ? 'widen' : 'slide'
    this.side = offset(across, hand.at) >= 0 ? 'left' : 'right'
    this.slack = across[this.side] - Math.abs(offset(across, pressed))
    this.start = line
    this.from = at
    const chosen = this.worktop.stops()
    if (this.fresh || !chosen.some((s) => sameStop(s, this.ref))) this.worktop.chooseStops([this.ref])
    const words = stopsInWords(this.worktop.stops())
    this.label = this.what === 'slide' ? `Slide ${words}` : this.fresh ? 'Add a width stop' : `Change ${words}`
  }

  drag(hand: Hand): void {
    const { worktop, ref, fresh } = this
    const line = this.start!
    const base = fresh
      ? addSwell(line.weight, fresh.at, line.path.closed, worktop.preferences().swellReach).weight
      : line.weight
    const { at } = base.stops[ref.index]!
    const arc = arcOf(line)
    const change =
      this.what === 'slide'
        ? this.sliding(arc.nearest(hand.at).length / (arc.total || 1) - this.from)
        : this.widening(line, base, at, hand)
    const stops = worktop.stops()
    worktop.change((draft) =>
      changeStops(draft, stops, (weight, indices, id) =>
        change(id === ref.line ? base : weight, indices, id === ref.line),
      ),
    )
  }

  private sliding(by: number): (weight: Weight, indices: ReadonlySet<number>) => Weight {
    return (weight, indices) => slideStops(weight, indices, by)
  }

  /** The stop under the hand is as wide as the hand goes; the others grow in proportion. */
  private widening(
    line: Line,
    base: Weight,
    at: number,
    hand: Hand,
  ): (weight: Weight, indices: ReadonlySet<number>, mine: boolean) => Weight {
    const half = Math.max(0, Math.abs(offset(acrossAt(line, at), hand.at)) + this.slack)
    const sides = sidesOf(this.worktop, hand.alt, this.side)
    const factor = widthOf(line).factorFor(half, at * arcOf(line).total)
    const was = base.stops[this.ref.index]![this.side]
    const k = was > 0 ? factor / was : 1
    return (weight, indices, mine) => widenStops(weight, indices, mine ? this.ref.index : null, sides, factor, k)
  }
}

/** Drags an end: inward it runs out to a point from there, outward it is full again, across it gets a width. */
export class EndDrag implements CaliperDrag {
  label = 'Taper an end'
  private what: 'length' | 'width' = 'length'
  private start: Line | null = null
  private pressed: Vec = { x: 0, y: 0 }
  private side: 'left' | 'right' = 'left'

  constructor(
    private readonly worktop: Edits & Selection & NextLine,
    private readonly line: string,
    private readonly end: End,
  ) {}

  get hint(): string {
    return this.what === 'length'
      ? 'Drag along the line: how long it tapers · Back out: full · Esc: back'
      : 'Drag across: width of the end · Esc: back'
  }

  private get at(): 0 | 1 {
    return this.end === 'first' ? 0 : 1
  }

  begin(hand: Hand, pressed: Vec): void {
    this.start = lineOf(this.worktop, this.line)
    this.pressed = pressed
    const across = acrossAt(this.start, this.at)
    this.what = goesAcross(across.normal, subtract(hand.at, pressed)) ? 'width' : 'length'
    this.side = offset(across, hand.at) >= 0 ? 'left' : 'right'
    this.label = this.what === 'width' ? 'Width of an end' : 'Taper an end'
    this.worktop.chooseStops([])
  }

  drag(hand: Hand): void {
    const weight = this.what === 'width' ? this.widened(this.start!, hand) : this.lengthened(this.start!, hand)
    this.worktop.change((draft) => changeLines(draft, [this.line], (l) => void (l.weight = weight)))
  }

  private lengthened(line: Line, hand: Hand): Weight {
    const arc = arcOf(line)
    const tip = arc.point(this.at * arc.total)
    const tangent = arc.tangent(this.at * arc.total) ?? { x: 1, y: 0 }
    const sign = this.at ? -1 : 1
    // What the handle is beyond the end is not counted; the line is followed round its bends.
    const inward = ((hand.at.x - tip.x) * tangent.x + (hand.at.y - tip.y) * tangent.y) * sign
    const near = arc.nearest(hand.at)
    const along = this.at ? arc.total - near.length : near.length
    const length = along > 0 ? along : Math.max(0, inward)
    return withTaperLength(line.weight, this.end, length, arc.total)
  }

  private widened(line: Line, hand: Hand): Weight {
    const across = acrossAt(line, this.at)
    const moved = Math.abs(offset(across, hand.at)) - Math.abs(offset(across, this.pressed))
    const half = Math.max(0, across[this.side] + moved)
    const { weight, index } = addStop(line.weight, this.at, line.path.closed)
    const taper = taperAtEnd(line.weight, this.end)
    if (!taper)
      return widenStop(
        weight,
        index,
        sidesOf(this.worktop, hand.alt, this.side),
        widthOf(line).factorFor(half, this.at * arcOf(line).total),
      )
    const full = (line.weight.size / 2) * weight.stops[index]![this.side]
    return withTip(line.weight, this.end, full > 0 ? half / full : 0)
  }
}

/** Drags the inner end of a taper along the line. */
export class TaperDrag implements CaliperDrag {
  readonly label = 'Length of a taper'
  readonly hint = 'Drag along the line: how long it tapers · Esc: back'
  private start: Line | null = null

  constructor(
    private readonly worktop: Edits,
    private readonly line: string,
    private readonly end: End,
  ) {}

  begin(): void {
    this.start = lineOf(this.worktop, this.line)
  }

  drag(hand: Hand): void {
    const line = this.start!
    const arc = arcOf(line)
    const s = arc.nearest(hand.at).length
    const weight = withTaperLength(line.weight, this.end, this.end === 'first' ? s : arc.total - s, arc.total)
    this.worktop.change((draft) => changeLines(draft, [this.line], (l) => void (l.weight = weight)))
  }
}
