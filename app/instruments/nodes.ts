import type { Vec } from '#core/geometry/point'
import { pulledSegment, segmentsBeside, withHandle, withNode } from '#core/editing/edit-path'
import { withNodeAt } from '#core/geometry/add-node'
import { handleKindOf, withHandleKind } from '#core/geometry/node-kinds'
import { add, subtract } from '#core/geometry/point'
import { changeLines } from '#core/editing/change-items'
import { repath } from '#core/editing/repath'
import { findLine } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import type { Dragged } from './dragged'
import { dragAgain, dragged } from './dragged'
import { mapNodes, nodesByLine, placesOf, removeNodes } from './chosen-nodes'
import { nodeMarks } from './node-marks'
import { Gathering } from './gathering'
import type { LineHit } from '#core/outline/hit-line'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { arrowStep, DRAG_START, screenDistance, straightened } from './instrument'
import { arcOf, chosenMarks } from './line-marks'
import type { NodeFrame } from './node-frame'
import type { NodeGrip } from './node-grip'
import { GRIP_HINTS, stepName } from './node-grip'
import { frameAbout, scaling, turning } from './node-frame'
import { Picking } from './picking'
import { Snapping } from './snapping'

const REACH = 8

const NOWHERE: Vec = { x: 0, y: 0 }

/** Moves nodes, handles and segments of the chosen lines, adds nodes and takes them out. */
export class Nodes implements Instrument {
  readonly name = 'Nodes'
  readonly takesUpSteps = true
  readonly cursor = 'default'
  private grip: NodeGrip | null = null
  private gathering: Gathering | null = null
  private pressed: { at: Vec; screen: Vec; double: boolean; from: Vec } = {
    at: NOWHERE,
    screen: NOWHERE,
    double: false,
    from: NOWHERE,
  }
  private moved = false

  private readonly snapping: Snapping

  private readonly picking: Picking
  /** The line from which the last click stepped on to another: a double-click means the first. */
  private steppedFrom: string | null = null

  constructor(protected readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.snapping = new Snapping(worktop)
    this.picking = new Picking(worktop, REACH)
  }

  hint(): string {
    if (this.gathering) return 'Release: choose these nodes · Esc: back'
    if (this.grip) return GRIP_HINTS[this.grip.kind]
    if (!this.worktop.selection().length)
      return `${this.picking.hint() || 'Click a line to see its nodes'} · Drag over paper: choose nodes`
    if (this.worktop.nodes().length > 1) return 'Drag: move · Corner: scale · Mark above: turn · Delete: remove nodes'
    return this.worktop.nodes().length
      ? 'Drag: move · Double-click: corner or smooth · Delete: remove node'
      : 'Drag a node, a handle or the line · Double-click a node: corner or smooth; the line: add a node'
  }

  press(hand: Hand): void {
    const { mark } = hand
    this.moved = false
    this.pressed = { at: hand.at, screen: hand.screen, double: hand.clicks === 2, from: hand.at }
    if (hand.clicks === 2 && this.steppedFrom) this.worktop.select([this.steppedFrom])
    this.steppedFrom = null
    if (mark?.kind === 'node') {
      if (hand.clicks < 2) this.choose(mark.line, mark.index, hand.shift)
      this.grip = mark
      this.pressed.from = findLine(this.worktop.drawing(), mark.line)?.line.path.nodes[mark.index]?.at ?? hand.at
    } else if (mark?.kind === 'handle') {
      this.grip = mark
    } else if (mark?.kind === 'corner' || mark?.kind === 'turner') {
      const frame = this.frame()
      this.grip = frame && { ...mark, frame }
    } else {
      this.grip = null
      const hit = this.worktop.lineAt(hand.at, REACH)
      const mine = hand.shift ? null : this.picking.press(hand)
      if (mine && this.worktop.selection().includes(mine.line.id)) this.takeBody(mine, hand.clicks === 2)
      else if (hit)
        this.worktop.select(
          hand.shift ? [...new Set([...this.worktop.selection(), hit.line.id])] : [(mine ?? hit).line.id],
        )
      else {
        this.gathering = new Gathering(this.worktop.preferences().gather, hand.at, hand.shift)
        if (!hand.shift) this.worktop.select([])
      }
      if (!this.pressed.double && !hand.shift) this.worktop.chooseNodes([])
    }
    this.worktop.refresh()
  }

  /** The hand is on a chosen line: a drag bends it there, a double-click adds a node. */
  private takeBody({ line, at }: LineHit, double: boolean): void {
    const arc = arcOf(line)
    const { segment, t } = arc.locate(at * arc.total)
    if (!double) {
      this.grip = { kind: 'body', line: line.id, segment, t }
      return
    }
    this.worktop.edit('Add a node', (draft) =>
      changeLines(draft, [line.id], (l) => repath(l, withNodeAt(l.path, segment, t), draft)),
    )
    this.worktop.chooseNodes([{ line: line.id, index: segment + 1 }])
  }

  private choose(line: string, index: number, add: boolean): void {
    const now = this.worktop.nodes()
    const there = now.some((n) => n.line === line && n.index === index)
    if (add)
      this.worktop.chooseNodes(
        there ? now.filter((n) => n.line !== line || n.index !== index) : [...now, { line, index }],
      )
    else if (!there) this.worktop.chooseNodes([{ line, index }])
  }

  move(hand: Hand): void {
    const { grip, gathering } = this
    if (!grip && !gathering && this.picking.hover(hand)) this.worktop.refresh()
    if (!grip && gathering && (this.moved || screenDistance(this.pressed.screen, hand.screen) >= DRAG_START)) {
      this.moved = true
      gathering.move(hand)
      this.worktop.refresh()
    }
    if (!grip || (!this.moved && screenDistance(this.pressed.screen, hand.screen) < DRAG_START)) return
    this.moved = true
    const d = subtract(hand.at, this.pressed.at)
    if (grip.kind === 'corner') this.mapNodes(scaling(grip.frame, grip.index, d, hand.shift, hand.alt))
    else if (grip.kind === 'turner') this.mapNodes(turning(grip.frame, hand.at, hand.shift))
    else if (grip.kind === 'node')
      this.moveNodes(hand.shift ? straightened(d) : this.drawn(grip, d, hand.free), hand.free ? null : grip)
    else if (grip.kind === 'handle') this.moveHandle(grip, d, hand.alt)
    else {
      this.worktop.change((draft) =>
        changeLines(draft, [grip.line], (l) => {
          const pulled = pulledSegment(l.path, grip.segment, grip.t, d)
          repath(l, hand.free ? pulled : this.worktop.segmentsClung(pulled, [grip.segment]), draft)
        }),
      )
    }
    this.worktop.refresh()
  }

  /** A move of the node under the hand, and of those chosen with it, to what that node is drawn to. */
  private drawn(grip: Extract<NodeGrip, { kind: 'node' }>, d: Vec, free: boolean): Vec {
    const { from } = this.pressed
    return subtract(this.snapping.point({ at: add(from, d), free }, from, grip.line), from)
  }

  /** Moves the chosen nodes; where it is one alone, the segments beside it follow the pencil beneath them. */
  private moveNodes(d: Vec, clinging: { line: string; index: number } | null = null): void {
    const one = this.worktop.nodes().length === 1 ? clinging : null
    this.mapNodes((p) => add(p, d), one)
  }

  private mapNodes(map: (p: Vec) => Vec, clinging: { line: string; index: number } | null = null): void {
    const nodes = this.worktop.nodes()
    this.worktop.change((draft) => {
      mapNodes(draft, nodes, map)
      if (clinging)
        changeLines(draft, [clinging.line], (l) =>
          repath(l, this.worktop.segmentsClung(l.path, segmentsBeside(l.path, clinging.index)), draft),
        )
    })
  }

  /** The frame about the chosen nodes, where there is more than one. */
  private frame(): NodeFrame | null {
    return frameAbout(
      placesOf(this.worktop.drawing(), this.worktop.nodes()).map((n) => n.at),
      this.worktop.zoom(),
    )
  }

  /** Nodes in the region that the hand drew, of all lines that can be edited. */
  private gather(gathering: Gathering): void {
    const found = this.worktop
      .allLines(true)
      .flatMap((l) => l.path.nodes.flatMap((n, index) => (gathering.holds(n.at) ? [{ line: l.id, index }] : [])))
    // A drag that only touches chooses the lines in its way with all their nodes.
    for (const l of this.worktop.preferences().gather === 'touch'
      ? gathering.linesAmong(this.worktop.allLines(true).filter((l) => this.worktop.asSeen(l)))
      : []) {
      found.push(...l.path.nodes.map((_, index) => ({ line: l.id, index })))
    }
    const nodes = gathering.adding
      ? [...this.worktop.nodes(), ...found.filter((f) => !this.isChosen(f.line, f.index))]
      : found
    this.worktop.select([
      ...new Set([...(gathering.adding ? this.worktop.selection() : []), ...nodes.map((n) => n.line)]),
    ])
    this.worktop.chooseNodes(nodes)
  }

  private isChosen(line: string, index: number): boolean {
    return this.worktop.nodes().some((n) => n.line === line && n.index === index)
  }

  private moveHandle(grip: Extract<NodeGrip, { kind: 'handle' }>, d: Vec, alone: boolean): void {
    this.worktop.change((draft) => {
      changeLines(draft, [grip.line], (l) => {
        const n = l.path.nodes[grip.index]
        const at = n?.[grip.side]
        if (n && at) repath(l, withNode(l.path, grip.index, withHandle(n, grip.side, add(at, d), alone)), draft)
      })
    })
  }

  away(): void {
    this.picking.away()
  }

  release(hand: Hand): void {
    const next =
      this.pressed.double || this.moved || this.grip?.kind === 'node' || this.grip?.kind === 'handle'
        ? null
        : this.picking.next(hand)
    if (next) {
      this.steppedFrom = this.worktop.selection()[0] ?? null
      this.worktop.select([next.line.id])
      this.worktop.chooseNodes([])
    }
    // A double-click turns the joint when it ends, so that a quick drag after a click is still a drag.
    if (this.grip?.kind === 'node' && this.pressed.double && !this.moved)
      this.turnJoint(this.grip.line, this.grip.index)
    if (this.grip && this.moved) this.worktop.finish(stepName(this.grip, this.worktop.nodes().length))
    else if (this.gathering && this.moved) this.gather(this.gathering)
    this.grip = null
    this.gathering = null
    this.snapping.clear()
    this.worktop.refresh()
  }

  cancel(): void {
    this.grip = null
    this.gathering = null
    this.snapping.clear()
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  laid(): Dragged | null {
    return this.grip && this.moved ? dragged(this.worktop, stepName(this.grip, this.worktop.nodes().length)) : null
  }

  takeUp(laid: unknown): void {
    dragAgain(this.worktop, laid as Dragged)
  }

  leave(): void {
    this.cancel()
    this.worktop.chooseNodes([])
  }

  key(key: string, shift: boolean): boolean {
    if (key === 'Escape') {
      if (this.grip || this.gathering) this.cancel()
      else if (this.worktop.nodes().length) this.worktop.chooseNodes([])
      else this.worktop.select([])
      this.worktop.refresh()
      return true
    }
    if (!this.worktop.nodes().length) return false
    if (key === 'Delete' || key === 'Backspace') {
      this.removeNodes()
      return true
    }
    const d = arrowStep(key, shift)
    if (!d) return false
    this.moveNodes(d)
    this.worktop.finish('Nudge')
    return true
  }

  private removeNodes(): void {
    const nodes = this.worktop.nodes()
    this.worktop.edit(nodes.length > 1 ? 'Delete nodes' : 'Delete a node', (draft) => removeNodes(draft, nodes))
    this.worktop.chooseNodes([])
    this.worktop.refresh()
  }

  private turnJoint(id: string, index: number): void {
    this.worktop.edit('Corner or smooth', (draft) => {
      changeLines(draft, [id], (line) => {
        const kind = handleKindOf(line.path.nodes[index]!)
        repath(line, withHandleKind(line.path, index, kind === 'linked' ? 'retracted' : 'linked'), draft)
      })
    })
  }

  marks(): Mark[] {
    const chosen = nodesByLine(this.worktop.nodes())
    const marks = chosenMarks(this.worktop, (line) =>
      nodeMarks(line.path, line.id, (i) => !!chosen.get(line.id)?.has(i)),
    )
    const frame = this.grip?.kind === 'node' ? null : this.frame()
    if (frame) marks.unshift({ kind: 'frame', corners: frame.corners, turner: frame.turner })
    if (!this.grip && !this.gathering) marks.push(...this.picking.marks())
    return [...marks, ...this.snapping.marks(), ...(this.moved ? (this.gathering?.marks() ?? []) : [])]
  }
}
