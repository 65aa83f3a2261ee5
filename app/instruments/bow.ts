import type { Line } from '#core/model/model'
import type { Path, PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { newLine } from '#core/model/create'
import { bowedPath } from '#core/geometry/bow'
import { bentAlong } from '#core/sketch/bent-bow'
import { arcOfPath } from '#core/geometry/known'
import { add, distance, lerp, scale, subtract } from '#core/geometry/point'
import { findLayer } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import { constrained } from './constrained'
import type { Hand, Instrument, UnderWay } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { DRAG_START, screenDistance } from './instrument'
import { nibMark } from './nib-mark'
import { Snapping } from './snapping'

/** A bow is taken hold of within this of its curve, screen px. */
const HOLD = 14

/** Shorter chords than this are slips of the hand, screen px. */
const SLIP = 4

/** What the hand is at. */
type Grip =
  | { kind: 'chord'; began: Vec; fresh: boolean }
  | {
      kind: 'belly'
      index: number
      before: Vec
      /** Where on the bow it was taken hold of; null for its middle. */ hold: { at: Vec; lever: number } | null
    }
  | { kind: 'joint'; index: number; screen: Vec; moved: boolean; before: Vec }

/** Draws a chord and bends it: press and drag the chord, then pull its middle. Chord follows chord into one line. */
export class Bow implements Instrument {
  readonly name = 'Bow'
  readonly cursor = 'crosshair'
  private points: Vec[] = []
  private pulls: Vec[] = []
  private smooth: boolean[] = []
  private grip: Grip | null = null
  /** Where the next chord would begin. */
  private pointer: Vec | null = null
  /** Nothing draws the line while the key is down that frees the hand. */
  private free = false

  private readonly snapping: Snapping

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.snapping = new Snapping(worktop)
  }

  hint(): string {
    switch (this.grip?.kind) {
      case 'chord':
        return 'Release: end of the chord · Shift: 15° steps'
      case 'belly':
        return 'Pull: bow it · Shift: straight across'
      case 'joint':
        return 'Drag: move the point'
      default:
    }
    if (!this.pulls.length) return 'Drag: a chord, then pull it into a bow'
    const joint = this.pulls.length > 1 ? ' · Click a joint: smooth or corner' : ''
    return `Pull: bow it · Drag from its end: next chord${joint || ' · Backspace: back'} · Enter: finish`
  }

  press(hand: Hand): void {
    const { mark } = hand
    if (mark?.kind === 'belly' && this.pulls[mark.index]) {
      this.grip = { kind: 'belly', index: mark.index, before: this.pulls[mark.index]!, hold: null }
      return
    }
    const last = this.points.length - 1
    if (mark?.kind === 'joint' && mark.index < last) {
      this.grip = {
        kind: 'joint',
        index: mark.index,
        screen: hand.screen,
        moved: false,
        before: this.points[mark.index]!,
      }
      return
    }
    if (hand.clicks === 2 && this.pulls.length) {
      this.finish()
      return
    }
    const goesOn = mark?.kind === 'joint' && mark.index === last
    const held = goesOn ? null : this.bowAt(hand.at)
    if (held) {
      this.grip = held
      this.worktop.refresh()
      return
    }
    if (!goesOn) this.finish()
    if (!this.points.length) {
      if (!this.worktop.layerForInk()) return
      this.worktop.select([])
      this.points = [this.snapping.point(hand)]
      this.smooth = [false]
    }
    this.grip = { kind: 'chord', began: hand.screen, fresh: true }
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    this.free = hand.free
    const { grip } = this
    if (grip?.kind === 'chord') this.stretch(hand, grip)
    else if (grip?.kind === 'belly') this.pull(hand, grip)
    else if (grip?.kind === 'joint') this.shift(hand, grip)
    else this.pointer = this.snapping.point(hand)
    this.worktop.refresh()
  }

  private stretch(hand: Hand, grip: Grip & { kind: 'chord' }): void {
    if (grip.fresh) {
      if (screenDistance(grip.began, hand.screen) < DRAG_START) return
      grip.fresh = false
      this.smooth[this.smooth.length - 1] = this.pulls.length > 0 && this.worktop.preferences().bowsJoin
      this.points.push(hand.at)
      this.pulls.push({ x: 0, y: 0 })
      this.smooth.push(false)
    }
    const from = this.points[this.points.length - 2]!
    this.points[this.points.length - 1] = hand.shift ? constrained(from, hand.at) : this.snapping.point(hand, from)
    if (hand.shift) this.snapping.clear()
  }

  /** The bow under the hand, wherever it is taken hold of. */
  private bowAt(at: Vec): (Grip & { kind: 'belly' }) | null {
    const path = this.path()
    if (!path) return null
    let best: { index: number; off: number } | null = null
    let share = 0
    for (const [index] of this.pulls.entries()) {
      const [a, b] = [
        path.nodes.findIndex((n) => n.at === this.points[index]),
        path.nodes.findIndex((n) => n.at === this.points[index + 1]),
      ]
      const arc = arcOfPath({ nodes: path.nodes.slice(a, b + 1), closed: false })
      const near = arc.nearest(at)
      if (near.distance * this.worktop.zoom() > HOLD || (best && near.distance >= best.off)) continue
      best = { index, off: near.distance }
      share = near.length / (arc.total || 1)
    }
    if (!best) return null
    // Near an end the whole bow would leap for a small pull: it is led as if taken a quarter of the way in.
    const t = Math.min(0.75, Math.max(0.25, share))
    return { kind: 'belly', index: best.index, before: this.pulls[best.index]!, hold: { at, lever: 4 * t * (1 - t) } }
  }

  private pull(hand: Hand, { index, before, hold }: Grip & { kind: 'belly' }): void {
    const from = this.points[index]!
    const to = this.points[index + 1]!
    const pull = hold
      ? add(before, scale(subtract(hand.at, hold.at), 1 / hold.lever))
      : subtract(hand.at, lerp(from, to, 0.5))
    const chord = subtract(to, from)
    const l = distance(from, to)
    if (!hand.shift || !(l > 0)) {
      this.pulls[index] = pull
      return
    }
    const across = (chord.x * pull.y - chord.y * pull.x) / l
    this.pulls[index] = { x: (-chord.y / l) * across, y: (chord.x / l) * across }
  }

  private shift(hand: Hand, grip: Grip & { kind: 'joint' }): void {
    if (!grip.moved && screenDistance(grip.screen, hand.screen) < DRAG_START) return
    grip.moved = true
    this.points[grip.index] = this.snapping.point(hand, this.points[grip.index - 1])
  }

  release(): void {
    const { grip } = this
    this.grip = null
    this.snapping.clear()
    if (grip?.kind === 'joint' && !grip.moved && grip.index > 0) this.smooth[grip.index] = !this.smooth[grip.index]
    if (grip?.kind === 'chord') {
      this.dropSlip(grip.fresh)
      if (!grip.fresh && !this.free) this.bend()
    }
    this.worktop.refresh()
  }

  /** The chord that was just drawn lies along the pencil where that leads from its one end to the other. */
  private bend(): void {
    const [a, b] = this.points.slice(-2)
    const way = a && b && this.worktop.pencilBetween(a, b)
    const bent = way && bentAlong(way, this.worktop.preferences().bend)
    if (!bent) return
    const { points, pulls } = bent
    const last = this.points.length - 1
    this.points.splice(last, 1, ...points.slice(1, -1), b)
    this.pulls.splice(last - 1, 1, ...pulls)
    this.smooth.splice(last, 1, ...points.slice(1, -1).map(() => true), false)
  }

  /** A chord that was not drawn, or no longer than a slip, is none. */
  private dropSlip(fresh: boolean): void {
    if (!fresh) {
      const [a, b] = this.points.slice(-2)
      if (distance(a!, b!) * this.worktop.zoom() >= SLIP) return
      this.takeBack()
    } else if (!this.pulls.length) this.discard()
  }

  private takeBack(): void {
    this.points.pop()
    this.pulls.pop()
    this.smooth.pop()
    if (this.pulls.length) this.smooth[this.smooth.length - 1] = false
    else this.discard()
  }

  cancel(): void {
    const { grip } = this
    if (grip?.kind === 'chord' && !grip.fresh) this.takeBack()
    else if (grip?.kind === 'belly') this.pulls[grip.index] = grip.before
    else if (grip?.kind === 'joint') this.points[grip.index] = grip.before
    if (!this.pulls.length) this.discard()
    this.grip = null
  }

  away(): void {
    this.snapping.clear()
  }

  stepBack(): boolean {
    const any = this.pulls.length > 0
    this.grip = null
    if (any) this.takeBack()
    this.worktop.refresh()
    return any
  }

  key(key: string): boolean {
    if (!this.points.length) return false
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

  private discard(): void {
    this.snapping.clear()
    this.points = []
    this.pulls = []
    this.smooth = []
    this.grip = null
  }

  /** The bows as they are kept: what they are off the pencil by settles. */
  private laid(): Path | null {
    const path = this.path()
    return path && (this.free ? path : this.worktop.clung(path))
  }

  private path(): Path | null {
    return this.pulls.length ? bowedPath(this.points, this.pulls, this.smooth, this.worktop.preferences().bend) : null
  }

  private finish(): void {
    const path = this.laid()
    this.discard()
    const layer = path && this.worktop.layerForInk()
    if (!path || !layer) return
    const line = newLine(path, { weight: this.worktop.nextWeight(), ink: this.worktop.nextInk() })
    this.worktop.edit('Draw a bow', (draft) => {
      findLayer(draft, layer)?.items.push(line)
    })
    this.worktop.select([line.id])
  }

  underWay(): UnderWay | null {
    const path = this.laid()
    return (
      path && {
        label: 'Draw a bow',
        line: newLine(path, { weight: this.worktop.nextWeight(), ink: this.worktop.nextInk() }),
        replaces: false,
      }
    )
  }

  freshInk(): Line | null {
    const path = this.laid()
    return path && newLine(path, { id: 'fresh', weight: this.worktop.nextWeight(), ink: this.worktop.nextInk() })
  }

  marks(): Mark[] {
    const path = this.path()
    if (!path) return [...this.snapping.marks(), ...nibMark(this.worktop, this.pointer)]
    const nodes: PathNode[] = path.nodes
    const marks: Mark[] = [{ kind: 'paths', paths: [path], tone: 'plum' }]
    const last = this.points.length - 1
    for (const n of nodes) {
      // The node in the middle of a deep bow is no joint of two.
      const index = this.points.indexOf(n.at)
      if (index >= 0)
        marks.push({ kind: 'node', at: n.at, joint: n.joint, chosen: index === last, ref: { kind: 'joint', index } })
    }
    marks.push(...this.snapping.marks())
    if (this.grip?.kind === 'chord') return marks
    marks.push({ kind: 'closer', at: this.points[last]!, ref: { kind: 'joint', index: last } })
    this.pulls.forEach((pull, index) => {
      const [from, to] = [this.points[index]!, this.points[index + 1]!]
      marks.push({ kind: 'belly', at: add(lerp(from, to, 0.5), scale(pull, 1)), along: subtract(to, from), index })
    })
    return marks
  }
}
