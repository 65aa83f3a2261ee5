import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { subtract } from '#core/geometry/point'
import { partOfPath } from '#core/geometry/part-of-path'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'
import type { LineHit } from '#core/outline/hit-line'
import { scaledStretch } from '#core/weight/stretch'
import type { Mark } from '~/canvas/marks'
import { acrossAt, edgesOf, goesAcross, offset } from './across'
import type { CaliperDrag } from './caliper-drags'
import { StopDrag } from './caliper-drags'
import type { Hand } from './instrument'
import { arcOf } from './line-marks'
import type { Edits, NextLine, Selection, StopRef, StretchRef, View } from './worktop'

type Desk = Edits & Selection & NextLine

const lineOf = (worktop: Edits, id: string): Line | undefined => findLine(worktop.drawing(), id)?.line

/** Drags a line where no stop is: across it a stop is added, along it a stretch is marked. */
export class BodyDrag implements CaliperDrag {
  private readonly stop: StopDrag
  private marks = false

  constructor(
    private readonly worktop: Desk,
    stop: StopRef,
    private readonly hit: LineHit,
  ) {
    this.stop = new StopDrag(worktop, stop, 'widen', hit)
  }

  get label(): string | null {
    return this.marks ? null : this.stop.label
  }

  get hint(): string {
    return this.marks ? 'Drag along the line: the stretch to be weighed · Esc: back' : this.stop.hint
  }

  begin(hand: Hand, pressed: Vec): void {
    const { line, at } = this.hit
    this.marks = !goesAcross(acrossAt(line, at).normal, subtract(hand.at, pressed))
    if (this.marks) this.worktop.chooseStops([])
    else this.stop.begin(hand, pressed)
  }

  drag(hand: Hand): void {
    if (!this.marks) return this.stop.drag(hand)
    const { line, at } = this.hit
    const arc = arcOf(line)
    const here = arc.nearest(hand.at).length / (arc.total || 1)
    const [from, to] = at < here ? [at, here] : [here, at]
    // Round a loop the short way is meant.
    const past = line.path.closed && to - from > 0.5
    this.worktop.markStretch(past ? { line: line.id, from: to, to: from + 1 } : { line: line.id, from, to })
  }
}

/** Drags the marked stretch: across the line all of it gets wider or thinner. */
export class StretchDrag implements CaliperDrag {
  readonly label = 'Weigh a stretch'
  readonly hint = 'Drag across: the stretch wider or thinner · Esc: back'
  private start: Line | null = null
  private side: 'left' | 'right' = 'left'
  private slack = 0

  constructor(
    private readonly worktop: Desk,
    private readonly stretch: StretchRef,
    private readonly at: number,
  ) {}

  begin(hand: Hand, pressed: Vec): void {
    this.start = lineOf(this.worktop, this.stretch.line)!
    const across = acrossAt(this.start, this.at)
    this.side = offset(across, hand.at) >= 0 ? 'left' : 'right'
    this.slack = across[this.side] - Math.abs(offset(across, pressed))
  }

  drag(hand: Hand): void {
    const across = acrossAt(this.start!, this.at)
    const half = Math.max(0, Math.abs(offset(across, hand.at)) + this.slack)
    scaleStretch(this.worktop, this.start!, this.stretch, across[this.side] > 0 ? half / across[this.side] : 1)
  }
}

/** Shows the widths of a stretch `factor` times as wide as they are on `line`. */
function scaleStretch(worktop: Desk, line: Line, stretch: StretchRef, factor: number): void {
  const weight = scaledStretch(line.weight, stretch, factor, worktop.preferences().swellReach, line.path.closed)
  worktop.change((draft) => void changeLines(draft, [line.id], (l) => void (l.weight = weight)))
}

/** A key makes a stretch wider by this share of its width, with Shift by five times as much. */
const WEIGHED = 0.04

/** With a stretch marked, keys weigh that; answers whether the key meant something. */
export function weighByKey(worktop: Desk & View, key: string, shift: boolean): boolean {
  if (!worktop.stretch()) return false
  if (key === 'Enter') {
    worktop.askFor('width')
    return true
  }
  const by = 1 + (shift ? 5 : 1) * WEIGHED
  if (key === ']' || key === '}' || key === 'ArrowUp') return weighStretch(worktop, by)
  return key === '[' || key === '{' || key === 'ArrowDown' ? weighStretch(worktop, 1 / by) : false
}

/** Makes the widths of the marked stretch `factor` times as wide, in one step; answers whether one is marked. */
function weighStretch(worktop: Desk, factor: number): boolean {
  const stretch = worktop.stretch()
  const line = stretch && lineOf(worktop, stretch.line)
  if (!line) return false
  scaleStretch(worktop, line, stretch, factor)
  worktop.finish('Weigh a stretch')
  return true
}

/** The marked stretch, with a bar across the line at both its ends. */
export function stretchMarks(worktop: Desk): Mark[] {
  const stretch = worktop.stretch()
  const line = stretch && lineOf(worktop, stretch.line)
  if (!line) return []
  const { from, to } = stretch
  const parts =
    to > 1 ? [partOfPath(line.path, from, 1), partOfPath(line.path, 0, to - 1)] : [partOfPath(line.path, from, to)]
  const bars = [from, to % 1 || to].map((at) => {
    const { left, right } = edgesOf(acrossAt(line, Math.min(1, at)))
    const node = (p: Vec) => ({ at: p, in: null, out: null, joint: 'corner' as const })
    return { nodes: [node(left), node(right)], closed: false }
  })
  return [{ kind: 'paths', paths: [...parts.flatMap((p) => p ?? []), ...bars], tone: 'strong' }]
}
