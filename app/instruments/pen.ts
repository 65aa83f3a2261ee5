import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { Mark, MarkRef } from '~/canvas/marks'
import { nibMark } from './nib-mark'
import { constrained } from './constrained'
import type { GoingOn } from './going-on'
import { goOnWith, inOrder } from './going-on'
import type { Hand, Instrument, UnderWay } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { DRAG_START, screenDistance } from './instrument'
import type { Laid } from './laid-nodes'
import { pathOfLaid, withHandleAhead } from './laid-nodes'
import { LaidMending } from './laid-mending'
import { keepLine, lineOfPath } from './laid-line'
import { takenEndMarks } from './line-marks'
import { laidMarks } from './pen-marks'
import { Snapping } from './snapping'

/** Lays a line node by node: click for a corner, drag for a curve. */
export class Pen implements Instrument {
  readonly name = 'Pen'
  readonly cursor = 'crosshair'
  private nodes: Laid[] = []
  /** `before` is the node as it was before the press, none for one that the press has laid. */
  private pressed: { screen: Vec; closing: boolean; dragging: boolean; index: number; before: Laid | null } | null =
    null
  private pointer: Vec | null = null
  /** The end mark under the hand. */
  private over: MarkRef | null = null
  private goingOn: GoingOn | null = null
  /** Nothing draws the line while the key is down that frees the hand. */
  private free = false

  /** The key is down that mends what is laid. */
  private mends = false

  private readonly snapping: Snapping
  private readonly mending: LaidMending

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.snapping = new Snapping(worktop)
    this.mending = new LaidMending(worktop)
  }

  hint(): string {
    const joins = this.worktop.preferences().penJoins
    const lay =
      joins === 'straight'
        ? 'Click: corner'
        : joins === 'smooth'
          ? 'Click: smooth point · Drag: curve'
          : 'Click: corner · Drag: curve'
    if (!this.nodes.length && this.over) return 'Press: go on with this line'
    if (!this.nodes.length)
      return this.marks().some((m) => m.kind === 'end') ? `${lay} · Press an end mark: go on from there` : lay
    if (this.pressed?.dragging) return 'Shift: 15° steps · Alt: only the handle ahead'
    if (this.mends) return 'Drag a node, a handle or the line · Click a node: take it out · Let Alt go: lay on'
    const close = this.canClose() ? ' · Start: close' : ''
    const retract = this.nodes[this.nodes.length - 1]!.out ? ' · Last node: straight on' : ''
    return `${lay}${close}${retract} · Alt: mend · Enter: finish · Backspace: back · Esc: drop`
  }

  press(hand: Hand): void {
    this.free = hand.free
    this.mends = hand.alt && this.nodes.length > 0
    if (this.mends && this.mending.press(hand, this.nodes, this.begun)) {
      this.worktop.refresh()
      return
    }
    if (hand.clicks === 2 && this.nodes.length) {
      if (this.nodes.length > 1) this.finish(false)
      return
    }
    const { mark } = hand
    if (!this.nodes.length) {
      if (mark?.kind === 'end') {
        this.goOnFrom(mark.line, mark.end)
        return
      }
      if (!this.worktop.layerForInk()) return
      this.worktop.select([])
    }
    const last = this.nodes.length - 1
    const closing = mark?.kind === 'closer' && this.canClose()
    const again = mark?.kind === 'joint' && mark.index === last
    if (!closing && !again) {
      const at = this.pointOf(hand)
      this.nodes.push({
        at,
        in: null,
        out: null,
        joint: 'corner',
        auto: this.worktop.preferences().penJoins === 'smooth',
      })
    }
    const index = closing ? 0 : this.nodes.length - 1
    this.pressed = {
      screen: hand.screen,
      closing,
      dragging: false,
      index,
      before: closing || again ? { ...this.nodes[index]! } : null,
    }
    if (again) this.retract(last)
    this.worktop.refresh()
  }

  /** Whether a press on the first node closes the line. */
  private canClose(): boolean {
    return this.nodes.length > (this.goingOn ? this.goingOn.line.path.nodes.length - 1 : 1) && this.nodes.length > 1
  }

  /** Pressing the last node again takes its outgoing handle back: the next segment leaves as it likes. */
  private retract(index: number): void {
    const node = this.nodes[index]!
    node.out = null
    node.joint = 'corner'
    node.auto = false
  }

  /** Goes on with a line from one of its ends. */
  private goOnFrom(id: string, end: 'first' | 'last'): void {
    this.goingOn = goOnWith(this.worktop, id, end)
    if (!this.goingOn) return
    this.nodes = inOrder(this.goingOn.line.path.nodes, end).map((n): Laid => ({ ...n, auto: false }))
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    this.free = hand.free
    this.mends = hand.alt && !this.pressed && this.nodes.length > 0
    if (this.mending.isHolding) {
      this.nodes = [...this.mending.move(hand)]
      this.worktop.refresh()
      return
    }
    this.over = !this.nodes.length && hand.mark?.kind === 'end' ? hand.mark : null
    this.pointer = this.pressed ? hand.at : this.pointOf(hand)
    if (this.over) this.snapping.clear()
    if (this.pressed) this.pull(hand)
    this.worktop.refresh()
  }

  /** Where the next node goes: in steps of 15 degrees with Shift, else to what it is drawn to. */
  private pointOf(hand: Hand): Vec {
    const last = this.nodes[this.nodes.length - 1]
    if (hand.shift && last) {
      this.snapping.clear()
      return constrained(last.at, hand.at)
    }
    return this.snapping.point(hand, last?.at, this.goingOn?.line.id)
  }

  /** The press has become a drag: the node gets handles. */
  private pull(hand: Hand): void {
    const { pressed } = this
    if (!pressed || this.worktop.preferences().penJoins === 'straight') return
    if (!pressed.dragging && screenDistance(pressed.screen, hand.screen) < DRAG_START) return
    pressed.dragging = true
    const node = this.nodes[pressed.index]!
    const ahead = hand.shift ? constrained(node.at, hand.at) : hand.at
    this.nodes[pressed.index] = withHandleAhead(node, ahead, pressed.closing, hand.alt)
  }

  release(): void {
    if (this.mending.isHolding) {
      this.nodes = [...(this.mending.release() ?? this.nodes)]
      this.worktop.refresh()
      return
    }
    const closing = this.pressed?.closing
    this.pressed = null
    if (closing) this.finish(true)
    this.worktop.refresh()
  }

  cancel(): void {
    this.nodes = [...(this.mending.cancel() ?? this.nodes)]
    const { pressed } = this
    this.pressed = null
    if (!pressed) return
    if (pressed.before) this.nodes[pressed.index] = pressed.before
    else this.nodes.splice(pressed.index, 1)
    if (this.goingOn && this.nodes.length <= this.goingOn.line.path.nodes.length) this.discard()
  }

  away(): void {
    this.pointer = null
    this.over = null
    this.snapping.clear()
  }

  /** The line that is being gone on with may be another now, or gone. */
  overtaken(): void {
    if (this.goingOn) this.discard()
  }

  stepBack(): boolean {
    const any = this.nodes.length > 0
    this.nodes.pop()
    this.pressed = null
    // Back at what was there before: the line is let go as it is.
    if (this.goingOn && this.nodes.length < this.goingOn.line.path.nodes.length) this.discard()
    this.worktop.refresh()
    return any
  }

  key(key: string): boolean {
    if (!this.nodes.length) return false
    if (key === 'Backspace') return this.stepBack()
    if (key === 'Enter') this.finish(false)
    else if (key === 'Escape') this.discard()
    else return false
    this.worktop.refresh()
    return true
  }

  /** Another instrument is taken up: what has been laid is kept when it is a line. */
  leave(): void {
    this.finish(false)
  }

  laid(): { nodes: readonly Laid[]; goingOn: GoingOn | null } | null {
    const { nodes, goingOn } = this
    return nodes.length > this.begun ? { nodes: [...nodes], goingOn } : null
  }

  takeUp(laid: unknown): void {
    const { nodes, goingOn } = laid as NonNullable<ReturnType<Pen['laid']>>
    this.nodes = [...nodes]
    this.goingOn = goingOn
    this.worktop.refresh()
  }

  /** How many nodes are of the line that is gone on with. */
  private get begun(): number {
    return this.goingOn?.line.path.nodes.length ?? 0
  }

  private discard(): void {
    this.snapping.clear()
    this.mending.cancel()
    this.mends = false
    this.over = null
    this.nodes = []
    this.pressed = null
    this.goingOn = null
  }

  /** The path of what has been laid, with a node at `next` where one is given. */
  private path(closed: boolean, next: Vec | null = null): Path {
    const ahead: Laid[] = next
      ? [{ at: next, in: null, out: null, joint: 'corner', auto: this.worktop.preferences().penJoins === 'smooth' }]
      : []
    return pathOfLaid([...this.nodes, ...ahead], closed)
  }

  /** The line that has been laid, or the one that has been gone on with; null while there is none, or nothing new. */
  private made(closed: boolean): UnderWay | null {
    const { goingOn } = this
    const count = this.nodes.length
    if (count < 2 || (!closed && count === this.begun)) return null
    const { nodes } = this.path(closed)
    if (!closed) {
      nodes[0]!.in = null
      nodes[nodes.length - 1]!.out = null
      nodes[0]!.joint = nodes[nodes.length - 1]!.joint = 'corner'
    }
    const path = { nodes: goingOn ? inOrder(nodes, goingOn.end) : nodes, closed }
    return lineOfPath(this.worktop, goingOn ? path : this.clung(path), goingOn, 'Draw a line')
  }

  underWay(): UnderWay | null {
    return this.made(false)
  }

  private finish(closed: boolean): void {
    const made = this.made(closed)
    this.discard()
    if (made) keepLine(this.worktop, made)
  }

  private readonly clung = (path: Path): Path => (this.free ? path : this.worktop.clung(path))

  freshInk(): Line | null {
    const made = this.made(false)
    return made && { ...made.line, id: 'fresh' }
  }

  marks(): Mark[] {
    const marks: Mark[] = []
    const { nodes } = this
    // Only a press on an end mark goes on with a line.
    if (!nodes.length)
      return [
        ...takenEndMarks(this.worktop, this.over),
        ...this.snapping.marks(),
        ...nibMark(this.worktop, this.over ? null : this.pointer),
      ]
    const path = this.path(false)
    if (nodes.length > 1) marks.push({ kind: 'paths', paths: [path], tone: 'plum' })
    if (this.mends || this.mending.isHolding) return [...marks, ...this.mending.marks(nodes, this.begun)]
    if (this.pointer && !this.pressed) {
      const ahead = this.path(false, this.pointer).nodes.slice(-2)
      marks.push({ kind: 'paths', paths: [{ nodes: ahead, closed: false }], tone: 'next' })
    }
    marks.push(...laidMarks(nodes, path, this.canClose()))
    if (!this.pressed) marks.push(...this.snapping.marks())
    return marks
  }
}
