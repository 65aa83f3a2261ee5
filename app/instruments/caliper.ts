import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { addSwell } from '#core/weight/stops'
import { findLine } from '#core/model/find'
import type { Mark, MarkRef } from '~/canvas/marks'
import type { Across } from './across'
import { acrossAt, edgesOf } from './across'
import type { CaliperDrag } from './caliper-drags'
import { EndDrag, endNear, StopDrag, TaperDrag } from './caliper-drags'
import { endHandles, jawMark, tagMark } from './caliper-marks'
import type { StopsChange } from './chosen-stops'
import { keyOnStops, removalOf, sameStop, toggledStop } from './chosen-stops'
import type { LineHit } from '#core/outline/hit-line'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, StopRef, View } from './worktop'
import { DRAG_START, screenDistance, toggled } from './instrument'
import { Gathering } from './gathering'
import { BodyDrag, StretchDrag, stretchMarks, weighByKey } from './stretch-drags'
import { chosenLines, chosenMarks } from './line-marks'
import { Nodes } from './nodes'

const REACH = 10

interface Grip {
  drag: CaliperDrag
  screen: Vec
  pressed: Vec
  began: boolean
  /** The stop that was pressed, and whether it was chosen before. */
  stop: StopRef | null
  again: boolean
  double: boolean
}

/** Weighs lines on the canvas: the jaws of a width stop are dragged apart, together, or along the line. */
export class Caliper implements Instrument {
  readonly name = 'Caliper'
  readonly cursor = 'default'
  private grip: Grip | null = null
  private hover: LineHit | null = null
  /** Nodes and handles are in hand as long as Ctrl is held. */
  private readonly nodes: Nodes
  private mending = false
  private mendingPressed = false
  /** A box about stops, while it is drawn. */
  private gathering: Gathering | null = null

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.nodes = new Nodes(worktop)
  }

  hint(): string {
    if (this.mending) return `Ctrl held: ${this.nodes.hint()}`
    if (this.grip?.began) return this.grip.drag.hint
    const count = this.worktop.stops().length
    if (count > 1) return `${count} stops · Drag one: all follow · Arrows: nudge · Delete: remove · Esc: let go`
    if (count) return 'Drag a jaw: width · Its pin: along · Shift+click: more · Arrows: nudge · Enter: type'
    if (this.worktop.stretch()) return 'Drag it across: wider or thinner · [ ]: by keys · Enter: type · Esc: let go'
    if (this.hover)
      return 'Drag across the line: weigh it here · Along: a stretch · An end inwards: a point · Ctrl: nodes'
    return 'Drag a line to weigh it · Its end inwards: a point · Alt: one side · Ctrl: nodes'
  }

  press(hand: Hand): void {
    if (this.mend(hand)) {
      this.mendingPressed = true
      this.nodes.press(hand)
      return
    }
    const { mark } = hand
    if (mark?.kind === 'jaw' || mark?.kind === 'stop')
      this.takeStop(hand, this.meant(hand, mark), mark.kind === 'stop' ? 'undecided' : 'widen')
    else if (mark?.kind === 'tip') this.take(hand, new EndDrag(this.worktop, mark.line, mark.end))
    else if (mark?.kind === 'taper') this.take(hand, new TaperDrag(this.worktop, mark.line, mark.end))
    else this.pressLine(hand)
    this.worktop.refresh()
  }

  /** Of stops that lie near each other the one that is chosen already is meant, so that it can be dragged. */
  private meant(hand: Hand, mark: Extract<MarkRef, { kind: 'jaw' | 'stop' }>): StopRef {
    const near = this.stopsNear(hand.at)
    const chosen = near.find((s) => this.isChosen(s))
    return chosen ?? { line: mark.line, index: mark.index }
  }

  /** Stops of the chosen lines whose pin or jaws are within reach of a point, in order along their lines. */
  private stopsNear(at: Vec): StopRef[] {
    const reach = REACH / this.worktop.zoom()
    return this.stopsWhere((across) => {
      const { left, right } = edgesOf(across)
      return [across.centre, left, right].some((p) => distance(p, at) <= reach)
    })
  }

  private stopsWhere(holds: (across: Across) => boolean): StopRef[] {
    return chosenLines(this.worktop).flatMap((line) =>
      line.weight.stops.flatMap((s, index) => (holds(acrossAt(line, s.at)) ? [{ line: line.id, index }] : [])),
    )
  }

  private isChosen = (stop: StopRef): boolean => this.worktop.stops().some((s) => sameStop(s, stop))

  private takeStop(hand: Hand, stop: StopRef, what: 'widen' | 'undecided'): void {
    const found = findLine(this.worktop.drawing(), stop.line)?.line
    if (!found || stop.index >= found.weight.stops.length) return
    const again = this.isChosen(stop)
    if (hand.shift) this.worktop.chooseStops(toggledStop(this.worktop.stops(), stop))
    else if (!again) this.worktop.chooseStops([stop])
    if (hand.shift && again) return
    this.take(hand, new StopDrag(this.worktop, stop, what, null), stop, again)
  }

  private take(hand: Hand, drag: CaliperDrag, stop: StopRef | null = null, again = false): void {
    this.grip = { drag, screen: hand.screen, pressed: hand.at, began: false, stop, again, double: hand.clicks === 2 }
  }

  private pressLine(hand: Hand): void {
    const hit = this.worktop.lineAt(hand.at, REACH)
    this.worktop.chooseStops([])
    const chosen = this.worktop.selection()
    if (!hit) {
      if (chosen.length) this.gathering = new Gathering('box', hand.at, hand.shift)
      else this.worktop.markStretch(null)
      return
    }
    const stretch = this.worktop.stretch()
    if (stretch?.line === hit.line.id && [hit.at, hit.at + 1].some((u) => u >= stretch.from && u <= stretch.to)) {
      this.take(hand, new StretchDrag(this.worktop, stretch, hit.at))
      return
    }
    this.worktop.markStretch(null)
    if (hand.shift) {
      this.worktop.select(toggled(chosen, hit.line.id))
      return
    }
    if (!chosen.includes(hit.line.id)) this.worktop.select([hit.line.id])
    const end = endNear(hit.line, hand.at, REACH / this.worktop.zoom())
    if (end) {
      this.take(hand, new EndDrag(this.worktop, hit.line.id, end))
      return
    }
    const { weight, index } = addSwell(
      hit.line.weight,
      hit.at,
      hit.line.path.closed,
      this.worktop.preferences().swellReach,
    )
    const stop = { line: hit.line.id, index }
    if (weight === hit.line.weight) this.takeStop(hand, stop, 'widen')
    else this.take(hand, new BodyDrag(this.worktop, stop, hit))
  }

  move(hand: Hand): void {
    if (this.mend(hand)) {
      this.nodes.move(hand)
      this.worktop.refresh()
      return
    }
    const { grip, gathering } = this
    if (gathering) {
      gathering.move(hand)
      this.worktop.refresh()
      return
    }
    if (!grip) {
      this.hover = this.worktop.lineAt(hand.at, REACH)
      this.worktop.pointOut(this.hover && { line: this.hover.line.id, at: this.hover.at })
      this.worktop.refresh()
      return
    }
    if (!grip.began) {
      if (screenDistance(grip.screen, hand.screen) < DRAG_START) return
      grip.began = true
      grip.drag.begin(hand, grip.pressed)
    }
    grip.drag.drag(hand)
    this.worktop.refresh()
  }

  release(hand: Hand): void {
    if (this.mendingPressed) {
      this.mendingPressed = false
      this.nodes.release(hand)
      return
    }
    if (this.gathering) this.gather()
    const { grip } = this
    this.grip = null
    if (grip?.began && grip.drag.label !== null) this.worktop.finish(grip.drag.label)
    else if (grip?.stop) this.clicked(grip)
    this.worktop.refresh()
  }

  /** Stops of the chosen lines in the box that the hand drew; a click beside all lines lets go of them. */
  private gather(): void {
    const gathering = this.gathering!
    const { adding } = gathering
    this.gathering = null
    const [box] = gathering.marks()
    if (box?.kind !== 'box' || distance(box.from, box.to) * this.worktop.zoom() < DRAG_START) {
      this.worktop.markStretch(null)
      if (!adding) this.worktop.select([])
      return
    }
    const found = this.stopsWhere((at) => gathering.holds(at.centre))
    const before = adding ? this.worktop.stops().filter((s) => !found.some((f) => sameStop(f, s))) : []
    this.worktop.chooseStops([...before, ...found])
  }

  /** A double-click removes a stop; a click on one that is chosen goes on to the next of those that lie near it. */
  private clicked({ stop, again, double, pressed }: Grip): void {
    if (double) {
      this.make(removalOf([stop!]))
      return
    }
    const near = this.stopsNear(pressed)
    if (!again || near.length < 2 || this.worktop.stops().length > 1) return
    const now = near.findIndex((s) => sameStop(s, stop!))
    this.worktop.chooseStops([near[(now + 1) % near.length]!])
  }

  /** Whether the hand mends nodes: while Ctrl is held, and until what was pressed with it is let go. */
  private mend(hand: Hand): boolean {
    if (this.mendingPressed) return true
    if (this.grip) return false
    const wanted = hand.free && this.worktop.selection().length > 0
    if (this.mending && !wanted) this.nodes.leave()
    this.mending = wanted
    return wanted
  }

  cancel(): void {
    if (this.mendingPressed) this.nodes.cancel()
    this.mendingPressed = false
    this.gathering = null
    this.grip = null
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  away(): void {
    this.hover = null
    this.worktop.pointOut(null)
  }

  leave(): void {
    this.cancel()
    this.nodes.leave()
    this.hover = null
    this.worktop.pointOut(null)
    this.worktop.chooseStops([])
    this.worktop.markStretch(null)
    this.worktop.chooseNodes([])
  }

  key(key: string, shift = false): boolean {
    if (this.mending && this.worktop.nodes().length && this.nodes.key(key, shift)) return true
    const stops = this.worktop.stops()
    if (key === 'Escape') {
      if (this.grip || this.gathering) this.cancel()
      else if (stops.length) this.worktop.chooseStops([])
      else if (this.worktop.stretch()) this.worktop.markStretch(null)
      else this.worktop.select([])
      this.worktop.refresh()
      return true
    }
    if (key.toLowerCase() === 'a' && shift && this.worktop.selection().length) {
      this.worktop.chooseStops(this.stopsWhere(() => true))
      this.worktop.refresh()
      return true
    }
    if (!stops.length) return weighByKey(this.worktop, key, shift)
    if (key !== 'Enter') return this.byKey(stops, key, shift)
    this.worktop.askFor('width')
    return true
  }

  /** What a key does with stops; answers whether it does anything. */
  private byKey(stops: readonly StopRef[], key: string, shift: boolean): boolean {
    const change = keyOnStops(stops, key, shift, this.worktop.preferences().sidesLinked ? 'both' : 'left')
    if (change) this.make(change)
    return !!change
  }

  private make(change: StopsChange): void {
    this.cancel()
    this.worktop.edit(change.label, change.recipe)
    if (change.removes) this.worktop.chooseStops([])
    this.worktop.refresh()
  }

  marks(): Mark[] {
    if (this.mending) return this.nodes.marks()
    const zoom = this.worktop.zoom()
    const marks = chosenMarks(this.worktop, (line) => [
      ...endHandles(line),
      ...line.weight.stops.flatMap((s, index) => {
        const chosen = this.isChosen({ line: line.id, index })
        const across = acrossAt(line, s.at)
        return chosen
          ? [jawMark(line.id, index, across, chosen), tagMark(across, zoom)]
          : [jawMark(line.id, index, across, chosen)]
      }),
    ])
    marks.push(...stretchMarks(this.worktop), ...(this.gathering?.marks() ?? []))
    if (this.hover && !this.grip && !this.worktop.stops().length) {
      const line = findLine(this.worktop.drawing(), this.hover.line.id)?.line
      if (line) marks.push(tagMark(acrossAt(line, this.hover.at), zoom))
    }
    return marks
  }
}
