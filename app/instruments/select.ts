import type { Vec } from '#core/geometry/point'
import { withFillsAlong } from '#core/editing/fills-along'
import { movedLine, movedShape } from '#core/editing/move'
import { itemsReplaced } from '#core/model/queries'
import { scaledLine } from '#core/editing/scale'
import { boxOfPoints } from '#core/geometry/bounds'
import { boxOfPath } from '#core/geometry/known'
import { mapPath } from '#core/geometry/path'
import { add } from '#core/geometry/point'
import { changeShapes } from '#core/editing/change-items'
import { findOpenLine, findShape } from '#core/model/find'
import type { Mark } from '~/canvas/marks'
import { Gathering } from './gathering'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Pencil, Selection, View } from './worktop'
import { arrowStep, DRAG_START, screenDistance, straightened, toggled } from './instrument'
import { chosenLines, chosenMarks, endMarks } from './line-marks'
import { Picking } from './picking'
import { Snapping } from './snapping'
import type { NodeFrame } from './node-frame'
import { frameAbout, growth, scaling, turning } from './node-frame'
import { chosenSolidMarks } from './solid-marks'

const REACH = 8

/** So many points of what is moved are looked at for what they are in line with. */
const MOST_POINTS = 24

/** Chooses lines, moves, scales, turns and deletes them. */
export class Select implements Instrument {
  readonly name = 'Select'
  readonly cursor = 'default'
  private pressed: {
    at: Vec
    screen: Vec
    onLine: boolean
    moving: boolean
    shift: boolean
    points: readonly Vec[]
  } | null = null
  private gathering: Gathering | null = null
  /** A corner or the turning mark of the frame about what is chosen is held. */
  private framed: { frame: NodeFrame; corner: number | null } | null = null

  private readonly picking: Picking

  private readonly snapping: Snapping

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine & Pencil) {
    this.picking = new Picking(worktop, REACH)
    this.snapping = new Snapping(worktop)
  }

  hint(): string {
    if (this.framed)
      return this.framed.corner === null
        ? 'Release: put down · Shift: in steps · Esc: back'
        : `${this.worktop.preferences().scaleWeights ? 'Weights scale too' : 'Weights stay as they are'} · Shift: in proportion · Alt: about the middle · Esc: back`
    if (this.pressed?.moving) return 'Release: put down · Shift: straight · Ctrl: no snapping · Esc: back'
    if (!this.count())
      return `${this.picking.hint() || 'Click a line'} · Drag over paper: choose several · Arrows: choose by key`
    const what = this.what()
    return `${what[0]!.toUpperCase()}${what.slice(1)} · Drag: move · Shift+click: add or leave out · Delete: remove`
  }

  private count(): number {
    return this.worktop.selection().length + this.worktop.solids().length
  }

  /** What is chosen, in words. */
  private what(): string {
    const [lines, solids] = [this.worktop.selection().length, this.worktop.solids().length]
    const some = (n: number, one: string): string[] => (n ? [n === 1 ? `a ${one}` : `${n} ${one}s`] : [])
    return [...some(lines, 'line'), ...some(solids, 'shape')].join(' and ')
  }

  press(hand: Hand): void {
    const frame = this.frame()
    if (frame && (hand.mark?.kind === 'corner' || hand.mark?.kind === 'turner')) {
      this.framed = { frame, corner: hand.mark.kind === 'corner' ? hand.mark.index : null }
      this.pressed = { at: hand.at, screen: hand.screen, onLine: false, moving: false, shift: false, points: [] }
      this.worktop.refresh()
      return
    }
    const hit = hand.shift ? this.worktop.lineAt(hand.at, REACH) : this.picking.press(hand)
    const solid = hit ? null : this.worktop.solidAt(hand.at)
    const chosen = this.worktop.selection()
    const solids = this.worktop.solids()
    if (solid) {
      if (hand.shift) this.worktop.chooseSolids(toggled(solids, solid.id))
      else if (!solids.includes(solid.id)) this.choose([], [solid.id])
    } else if (hit) {
      const id = hit.line.id
      if (hand.shift) this.worktop.select(chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id])
      else if (!chosen.includes(id)) this.choose([id], [])
    } else {
      this.gathering = new Gathering(this.worktop.preferences().gather, hand.at, hand.shift)
      if (!hand.shift) this.choose([], [])
    }
    const points = hit || solid ? this.points() : []
    this.pressed = {
      at: hand.at,
      screen: hand.screen,
      onLine: !!hit || !!solid,
      moving: false,
      shift: hand.shift,
      points,
    }
    this.worktop.refresh()
  }

  private choose(lines: readonly string[], solids: readonly string[]): void {
    this.worktop.select(lines)
    this.worktop.chooseSolids(solids)
  }

  move(hand: Hand): void {
    const { pressed } = this
    if (!pressed) {
      if (this.picking.hover(hand)) this.worktop.refresh()
      return
    }
    if (!pressed.moving && screenDistance(pressed.screen, hand.screen) < DRAG_START) return
    pressed.moving = true
    if (this.framed) this.reshape(this.framed, hand)
    else if (pressed.onLine) this.shift(this.offset(hand))
    else this.gathering?.move(hand)
    this.worktop.refresh()
  }

  /** The frame about what is chosen. */
  private frame(): NodeFrame | null {
    const solids = this.worktop.solids().flatMap((id) => findShape(this.worktop.drawing(), id)?.shape.contours ?? [])
    const boxes = [...chosenLines(this.worktop).map((l) => l.path), ...solids].map(boxOfPath)
    return frameAbout(
      boxes.flatMap((b) => [
        { x: b.minX, y: b.minY },
        { x: b.maxX, y: b.maxY },
      ]),
      this.worktop.zoom(),
    )
  }

  private reshape({ frame, corner }: { frame: NodeFrame; corner: number | null }, hand: Hand): void {
    const d = { x: hand.at.x - this.pressed!.at.x, y: hand.at.y - this.pressed!.at.y }
    const map = corner === null ? turning(frame, hand.at, hand.shift) : scaling(frame, corner, d, hand.shift, hand.alt)
    const k = corner === null ? 1 : growth(frame, map)
    const weights = this.worktop.preferences().scaleWeights
    const [ids, solids] = [this.worktop.selection(), this.worktop.solids()]
    this.worktop.show((drawing) =>
      withFillsAlong(
        itemsReplaced(drawing, [...ids, ...solids], (i) =>
          'path' in i ? scaledLine(i, map, k, weights) : { ...i, contours: i.contours.map((c) => mapPath(c, map)) },
        ),
        ids,
        map,
      ),
    )
  }

  private offset(hand: Hand): Vec {
    const d = { x: hand.at.x - this.pressed!.at.x, y: hand.at.y - this.pressed!.at.y }
    if (hand.shift && !this.pressed!.shift) return straightened(d)
    return this.snapping.moved(d, this.pressed!.points, new Set(this.worktop.selection()), hand.free)
  }

  /** Points of what is chosen that are in line with others or not: nodes, or where there are many, ends and corners of the whole. */
  private points(): Vec[] {
    const paths = chosenLines(this.worktop).map((l) => l.path)
    const solids = this.worktop.solids().flatMap((id) => findShape(this.worktop.drawing(), id)?.shape.contours ?? [])
    const nodes = [...paths, ...solids].flatMap((p) => p.nodes.map((n) => n.at))
    if (nodes.length <= MOST_POINTS) return nodes
    const box = boxOfPoints(nodes)
    const ends = paths.flatMap((p) => (p.closed ? [] : [p.nodes[0]!.at, p.nodes.at(-1)!.at]))
    return [...ends.slice(0, MOST_POINTS), { x: box.minX, y: box.minY }, { x: box.maxX, y: box.maxY }]
  }

  private shift(d: Vec): void {
    const ids = this.worktop.selection()
    const solids = this.worktop.solids()
    this.worktop.show((drawing) =>
      withFillsAlong(
        itemsReplaced(drawing, [...ids, ...solids], (i) => ('path' in i ? movedLine(i, d) : movedShape(i, d))),
        ids,
        (p) => add(p, d),
      ),
    )
  }

  away(): void {
    this.picking.away()
  }

  release(hand: Hand): void {
    const { pressed, gathering, framed } = this
    const next = this.picking.next(hand)
    if (next && !pressed?.moving && !framed) this.choose([next.line.id], [])
    this.snapping.clear()
    this.pressed = null
    this.gathering = null
    this.framed = null
    if (pressed?.moving && framed) this.worktop.finish(`${framed.corner === null ? 'Turn' : 'Scale'} ${this.what()}`)
    else if (pressed?.moving && pressed.onLine) this.worktop.finish(`Move ${this.what()}`)
    else if (pressed?.moving && gathering) {
      const found = gathering
        .linesAmong(this.worktop.allLines(true).filter((l) => this.worktop.asSeen(l)))
        .map((l) => l.id)
      this.worktop.select(gathering.adding ? [...new Set([...this.worktop.selection(), ...found])] : found)
    }
    this.worktop.refresh()
  }

  cancel(): void {
    this.snapping.clear()
    this.pressed = null
    this.gathering = null
    this.framed = null
    this.worktop.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
  }

  key(key: string, shift: boolean): boolean {
    const ids = this.worktop.selection()
    if (key === 'Escape') {
      if (this.pressed) this.cancel()
      else this.choose([], [])
      this.worktop.refresh()
      return true
    }
    if (!this.count()) return false
    if (key === 'Delete' || key === 'Backspace') {
      this.remove(ids)
      return true
    }
    const d = arrowStep(key, shift)
    if (!d) return false
    this.shift(d)
    this.worktop.finish('Nudge')
    return true
  }

  private remove(ids: readonly string[]): void {
    const solids = this.worktop.solids()
    this.worktop.edit(`Delete ${this.what()}`, (draft) => {
      changeShapes(draft, solids, () => null)
      for (const id of ids) {
        const found = findOpenLine(draft, id)
        if (found) found.layer.items.splice(found.index, 1)
      }
    })
    this.choose([], [])
    this.worktop.refresh()
  }

  marks(): Mark[] {
    const marks = [...chosenMarks(this.worktop, endMarks), ...chosenSolidMarks(this.worktop), ...this.snapping.marks()]
    const frame = this.pressed ? null : this.frame()
    if (frame) marks.push({ kind: 'frame', corners: frame.corners, turner: frame.turner })
    if (!this.pressed) marks.push(...this.picking.marks())
    return this.pressed?.moving && this.gathering ? [...marks, ...this.gathering.marks()] : marks
  }
}
