import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { bentAlong } from '#core/sketch/bent-bow'
import { add, distance, scale, subtract } from '#core/geometry/point'
import type { Mark, MarkRef } from '~/canvas/marks'
import type { Chain } from './bow-chain'
import { BowChain } from './bow-chain'
import { constrained } from './constrained'
import { goOnWith, inOrder } from './going-on'
import { bowMarks, jointMarks } from './bow-marks'
import { keepLine, lineOfPath } from './laid-line'
import { takenEndMarks } from './line-marks'
import type { Hand, Instrument, UnderWay } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { DRAG_START, screenDistance } from './instrument'
import { nibMark } from './nib-mark'
import { Snapping } from './snapping'

/** A bow is taken hold of within this of its curve, screen px. */
const HOLD = 14

/** A chord that ends within this of where its chain began closes it, screen px. */
const CLOSING = 10

/** Shorter chords than this are slips of the hand, screen px. */
const SLIP = 4

/** What the hand is at. */
type Grip =
  | { kind: 'chord'; began: Vec; fresh: boolean; /** It ends where the chain began. */ closing: boolean }
  | {
      kind: 'belly'
      index: number
      before: Vec
      /** Where on the bow it was taken hold of; null for its middle. */ hold: { at: Vec; lever: number } | null
    }
  | { kind: 'joint'; index: number; screen: Vec; moved: boolean; before: Vec }

/** Draws a chord and bends it: press and drag the chord, then pull its middle. Chord follows chord into one line, which closes where it began. */
export class Bow implements Instrument {
  readonly name = 'Bow'
  readonly cursor = 'crosshair'
  private readonly chain = new BowChain()
  private grip: Grip | null = null
  /** Where the next chord would begin. */
  private pointer: Vec | null = null
  /** The end mark under the hand. */
  private over: MarkRef | null = null
  /** Nothing draws the line while the key is down that frees the hand. */
  private free = false

  private readonly snapping: Snapping

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.snapping = new Snapping(worktop)
  }

  hint(): string {
    switch (this.grip?.kind) {
      case 'chord':
        return this.grip.closing ? 'Release: close the line' : 'Release: end of the chord · Shift: 15° steps'
      case 'belly':
        return 'Pull: bow it · Shift: straight across'
      case 'joint':
        return 'Drag: move the point'
      default:
    }
    if (this.over) return 'Drag: a chord that goes on with this line'
    const { length } = this.chain.pulls
    if (!length) return 'Drag: a chord, then pull it into a bow'
    const joint = length > 1 ? ' · Click a joint: smooth or corner · Alt+click: take it out' : ''
    const on = this.chain.closed
      ? ''
      : ` · Drag from its end: next chord${length > 1 ? ', back to the start: close' : ''}`
    return `Pull: bow it${on}${joint || ' · Backspace: back'} · Enter: finish`
  }

  press(hand: Hand): void {
    const { mark } = hand
    const { chain } = this
    if (mark?.kind === 'belly' && chain.pulls[mark.index]) {
      this.grip = { kind: 'belly', index: mark.index, before: chain.pulls[mark.index]!, hold: null }
      return
    }
    if (mark?.kind === 'joint' && (mark.index < chain.last || chain.closed)) {
      const before = chain.points[mark.index]!
      this.grip = { kind: 'joint', index: mark.index, screen: hand.screen, moved: false, before }
      return
    }
    if (hand.clicks === 2 && chain.pulls.length) {
      this.finish()
      return
    }
    const goesOn = mark?.kind === 'joint'
    const held = goesOn ? null : this.bowAt(hand.at)
    if (held) {
      this.grip = held
      this.worktop.refresh()
      return
    }
    if (!goesOn) this.finish()
    if (!chain.points.length && !this.begin(hand)) return
    this.grip = { kind: 'chord', began: hand.screen, fresh: true, closing: false }
    this.worktop.refresh()
  }

  /** Where the first chord begins: at a point, or at the end of a line that it goes on with. */
  private begin(hand: Hand): boolean {
    const mark = hand.mark?.kind === 'end' ? hand.mark : null
    const goingOn = mark && goOnWith(this.worktop, mark.line, mark.end)
    if (mark ? !goingOn : !this.worktop.layerForInk()) return false
    if (!goingOn) this.worktop.select([])
    this.over = null
    this.chain.begin(
      goingOn ? inOrder(goingOn.line.path.nodes, goingOn.end).at(-1)!.at : this.snapping.point(hand),
      goingOn,
    )
    return true
  }

  move(hand: Hand): void {
    this.free = hand.free
    const { grip } = this
    this.over = !this.chain.points.length && hand.mark?.kind === 'end' ? hand.mark : null
    if (grip?.kind === 'chord') this.stretch(hand, grip)
    else if (grip?.kind === 'belly') this.pull(hand, grip)
    else if (grip?.kind === 'joint') this.shift(hand, grip)
    else this.pointer = this.snapping.point(hand)
    if (this.over) this.snapping.clear()
    this.worktop.refresh()
  }

  private stretch(hand: Hand, grip: Grip & { kind: 'chord' }): void {
    const { chain } = this
    if (grip.fresh) {
      if (screenDistance(grip.began, hand.screen) < DRAG_START) return
      grip.fresh = false
      chain.addChord(hand.at, this.worktop.preferences().bowsJoin)
    }
    const from = chain.points[chain.last - 1]!
    const start = hand.free ? null : chain.closesAt
    grip.closing = !!start && distance(start, hand.at) * this.worktop.zoom() < CLOSING
    if (hand.shift || grip.closing) this.snapping.clear()
    chain.points[chain.last] = grip.closing
      ? { ...start! }
      : hand.shift
        ? constrained(from, hand.at)
        : this.snapping.point(hand, from, chain.goingOn?.line.id)
  }

  /** The bow under the hand, wherever it is taken hold of. */
  private bowAt(at: Vec): (Grip & { kind: 'belly' }) | null {
    const near = this.chain.nearest(at, this.worktop.preferences().bend)
    if (!near || near.off * this.worktop.zoom() > HOLD) return null
    // Near an end the whole bow would leap for a small pull: it is led as if taken a quarter of the way in.
    const t = Math.min(0.75, Math.max(0.25, near.share))
    const before = this.chain.pulls[near.index]!
    return { kind: 'belly', index: near.index, before, hold: { at, lever: 4 * t * (1 - t) } }
  }

  private pull(hand: Hand, { index, before, hold }: Grip & { kind: 'belly' }): void {
    const pull = hold
      ? add(before, scale(subtract(hand.at, hold.at), 1 / hold.lever))
      : subtract(hand.at, this.chain.middleOf(index))
    this.chain.pull(index, pull, hand.shift)
  }

  private shift(hand: Hand, grip: Grip & { kind: 'joint' }): void {
    if (!grip.moved && screenDistance(grip.screen, hand.screen) < DRAG_START) return
    grip.moved = true
    // Where a line is gone on with, and where it is closed, it stays as it is.
    const { goingOn, closed, last } = this.chain
    if (!goingOn || (grip.index > 0 && !(closed && grip.index === last)))
      this.chain.points[grip.index] = this.snapping.point(hand, this.chain.points[grip.index - 1])
  }

  release(hand: Hand): void {
    const { grip, chain } = this
    this.grip = null
    this.snapping.clear()
    if (grip?.kind === 'joint' && !grip.moved) this.turn(grip.index, hand.alt)
    if (grip?.kind === 'chord') {
      this.dropSlip(grip.fresh)
      if (!grip.fresh && chain.pulls.length && !this.free) this.bend()
      if (grip.closing && chain.pulls.length > 1) chain.close(this.worktop.preferences().bowsJoin)
    }
    this.worktop.refresh()
  }

  /** A click on a joint makes it smooth or a corner; or takes it out. */
  private turn(index: number, out: boolean): void {
    const { chain } = this
    if (out) chain.takeOut(index)
    else if (index > 0 || chain.closed || chain.goingOn) chain.smooth[index] = !chain.smooth[index]
  }

  /** The chord that was just drawn lies along the pencil where that leads from its one end to the other. */
  private bend(): void {
    const [a, b] = this.chain.points.slice(-2)
    const way = a && b && this.worktop.pencilBetween(a, b)
    const bent = way && bentAlong(way, this.worktop.preferences().bend)
    if (bent) this.chain.divideLast(bent.points, bent.pulls)
  }

  /** A chord that was not drawn, or no longer than a slip, is none. */
  private dropSlip(fresh: boolean): void {
    if (!fresh) {
      const [a, b] = this.chain.points.slice(-2)
      if (distance(a!, b!) * this.worktop.zoom() < SLIP) this.chain.takeBack()
    } else if (!this.chain.pulls.length) this.discard()
  }

  cancel(): void {
    const { grip, chain } = this
    if (grip?.kind === 'chord' && !grip.fresh) chain.takeBack()
    else if (grip?.kind === 'belly') chain.pulls[grip.index] = grip.before
    else if (grip?.kind === 'joint') chain.points[grip.index] = grip.before
    if (!chain.pulls.length) this.discard()
    this.grip = null
  }

  away(): void {
    this.over = null
    this.snapping.clear()
  }

  /** The line that is being gone on with may be another now, or gone. */
  overtaken(): void {
    if (this.chain.goingOn) this.discard()
  }

  stepBack(): boolean {
    const any = this.chain.pulls.length > 0
    this.grip = null
    if (any) this.chain.takeBack()
    this.worktop.refresh()
    return any
  }

  key(key: string): boolean {
    if (!this.chain.points.length) return false
    if (key === 'Backspace') return this.stepBack()
    if (key === 'Enter') this.finish()
    else if (key === 'Escape') this.discard()
    else return false
    this.worktop.refresh()
    return true
  }

  /** Another instrument is taken up: what has been laid is kept. */
  leave(): void {
    this.finish()
  }

  laid(): Chain | null {
    return this.chain.copy()
  }

  takeUp(laid: unknown): void {
    this.chain.takeUp(laid as Chain)
    this.worktop.refresh()
  }

  private discard(): void {
    this.snapping.clear()
    this.chain.clear()
    this.grip = null
  }

  /** The line that the bows make, as it would be kept: what they are off the pencil by settles. */
  private made(): UnderWay | null {
    const { goingOn } = this.chain
    const bows = this.chain.path(this.worktop.preferences().bend)
    if (!bows) return null
    const clung = this.free ? bows : this.worktop.clung(bows, !!goingOn)
    const path = this.chain.whole(clung)
    return lineOfPath(this.worktop, path, goingOn, 'Draw a bow')
  }

  private finish(): void {
    const made = this.made()
    this.discard()
    if (made) keepLine(this.worktop, made)
  }

  underWay(): UnderWay | null {
    return this.made()
  }

  freshInk(): Line | null {
    const made = this.made()
    return made && { ...made.line, id: 'fresh' }
  }

  marks(): Mark[] {
    const { chain } = this
    const path = chain.path(this.worktop.preferences().bend)
    if (!path)
      return [
        ...takenEndMarks(this.worktop, this.over),
        ...this.snapping.marks(),
        ...nibMark(this.worktop, this.over ? null : this.pointer),
      ]
    const marks: Mark[] = [{ kind: 'paths', paths: [path], tone: 'plum' }, ...jointMarks(chain, path)]
    marks.push(...this.snapping.marks())
    if (this.grip?.kind !== 'chord') return [...marks, ...bowMarks(chain)]
    const start = chain.closesAt
    if (start) marks.push({ kind: 'closer', at: start, ref: { kind: 'joint', index: 0 } })
    if (start && this.grip.closing) marks.push({ kind: 'snap', at: start, along: null, text: 'Close' })
    return marks
  }
}
