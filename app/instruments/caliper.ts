import type { Line, Vec } from '#core/drawing/model'
import { leftNormal, subtract } from '#core/geometry/point'
import { LineWidth } from '#core/weight/half-widths'
import type { Sides } from '#core/weight/stops'
import { addStop, removeStop, slideStop, widenStop } from '#core/weight/stops'
import { changeLines, findLine } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import type { Bench, Hand, Instrument, LineHit } from './instrument'
import { DRAG_START, screenDistance } from './instrument'
import { arcOf, chosenMarks } from './line-marks'

const REACH = 10

interface Grip {
  line: string
  index: number
  what: 'widen' | 'slide' | 'undecided'
  side: 'left' | 'right'
  screen: Vec
  /** Where the press was, page px. */
  pressed: Vec
  /** Distance of the press from the edge it took hold of, so that the edge does not jump, px. */
  slack: number
  began: boolean
  /** Second press of a double-click, which removes the stop when it ends without a drag. */
  double: boolean
}

/** The cross-section of a line at a share of its length. */
interface Across {
  centre: Vec
  normal: Vec
  left: number
  right: number
}

/** Weighs lines on the canvas: the jaws of a width stop are dragged apart, together, or along the line. */
export class Caliper implements Instrument {
  readonly name = 'Caliper'
  readonly cursor = 'default'
  private grip: Grip | null = null
  private hover: LineHit | null = null

  constructor(private readonly bench: Bench) {}

  hint(): string {
    if (this.grip?.what === 'slide') return 'Drag along the line · Esc: back'
    if (this.grip) return 'Drag across: width · Alt: one side · Esc: back'
    if (this.bench.stop()) return 'Drag a jaw: width · Drag its pin: along · Alt: one side · Delete or double-click: remove'
    if (this.hover) return 'Drag across the line to weigh it here · Alt: one side'
    return 'Drag a line to weigh it · Alt: one side · Double-click a stop: remove'
  }

  press(hand: Hand): void {
    const { mark } = hand
    if (mark?.kind === 'jaw' || mark?.kind === 'stop') {
      this.take(hand, mark.line, mark.index, mark.kind === 'stop' ? 'undecided' : 'widen', mark.kind === 'jaw' ? mark.side : null)
      return
    }
    const hit = this.bench.lineAt(hand.at, REACH)
    this.bench.chooseStop(null)
    if (!hit) {
      this.bench.select([])
      this.bench.refresh()
      return
    }
    if (!this.bench.selection().includes(hit.line.id)) this.bench.select([hit.line.id])
    const { weight, index } = addStop(hit.line.weight, hit.at, hit.line.path.closed)
    const isNew = weight !== hit.line.weight
    this.take(hand, hit.line.id, index, 'widen', null)
    if (isNew) this.bench.chooseStop(null)
    this.fresh = isNew ? hit : null
    this.bench.refresh()
  }

  /** A stop that exists only while the hand drags; a plain click leaves the line as it was. */
  private fresh: LineHit | null = null

  private take(hand: Hand, line: string, index: number, what: Grip['what'], side: 'left' | 'right' | null): void {
    this.fresh = null
    const found = findLine(this.bench.drawing(), line)?.line
    if (!found) return
    if (index < found.weight.stops.length) this.bench.chooseStop({ line, index })
    this.grip = { line, index, what, side: side ?? 'left', screen: hand.screen, pressed: hand.at, slack: 0, began: false, double: hand.clicks === 2 }
    this.bench.refresh()
  }

  move(hand: Hand): void {
    if (!this.grip) {
      this.hover = this.bench.lineAt(hand.at, REACH)
      this.bench.pointOut(this.hover && { line: this.hover.line.id, at: this.hover.at })
      this.bench.refresh()
      return
    }
    const { grip } = this
    if (!grip.began) {
      if (screenDistance(grip.screen, hand.screen) < DRAG_START) return
      this.begin(grip, hand)
    }
    this.drag(grip, hand)
    this.bench.refresh()
  }

  /** What the drag is for is told by its first direction: across the line widens, along it slides. */
  private begin(grip: Grip, hand: Hand): void {
    const line = findLine(this.bench.drawing(), grip.line)!.line
    const at = this.fresh?.at ?? line.weight.stops[grip.index]!.at
    const across = acrossAt(line, at)
    const off = offset(across, hand.at)
    if (grip.what === 'undecided') {
      const d = subtract(hand.at, grip.pressed)
      const outward = Math.abs(d.x * across.normal.x + d.y * across.normal.y)
      grip.what = outward * outward * 2 > d.x * d.x + d.y * d.y ? 'widen' : 'slide'
    }
    grip.side = off >= 0 ? 'left' : 'right'
    const half = grip.side === 'left' ? across.left : across.right
    grip.slack = half - Math.abs(offset(across, grip.pressed))
    grip.began = true
    this.bench.chooseStop({ line: grip.line, index: grip.index })
  }

  private drag(grip: Grip, hand: Hand): void {
    const { fresh } = this
    this.bench.change((draft) => {
      changeLines(draft, [grip.line], (line) => {
        const start = fresh ? addStop(line.weight, fresh.at, line.path.closed).weight : line.weight
        if (grip.what === 'slide') {
          const arc = arcOf(findLine(this.bench.drawing(), grip.line)!.line)
          line.weight = slideStop(start, grip.index, arc.nearest(hand.at).length / (arc.total || 1))
          return
        }
        const now = findLine(this.bench.drawing(), grip.line)!.line
        const { at } = start.stops[grip.index]!
        const half = Math.max(0, Math.abs(offset(acrossAt(now, at), hand.at)) + grip.slack)
        const sides: Sides = hand.alt ? grip.side : 'both'
        line.weight = widenStop(start, grip.index, sides, widthOf(now).factorFor(half, at * arcOf(now).total))
      })
    })
  }

  release(): void {
    if (this.grip?.double && !this.grip.began && !this.fresh) {
      this.remove(this.grip.line, this.grip.index)
      return
    }
    if (this.grip?.began) this.bench.finish(this.grip.what === 'slide' ? 'Slide a width stop' : this.fresh ? 'Add a width stop' : 'Change a width stop')
    this.grip = null
    this.fresh = null
    this.bench.refresh()
  }

  cancel(): void {
    this.grip = null
    this.fresh = null
    this.bench.drop()
  }

  overtaken(): void {
    this.cancel()
  }

  leave(): void {
    this.cancel()
    this.hover = null
    this.bench.pointOut(null)
    this.bench.chooseStop(null)
  }

  key(key: string): boolean {
    const stop = this.bench.stop()
    if (key === 'Escape') {
      if (this.grip) this.cancel()
      else if (stop) this.bench.chooseStop(null)
      else this.bench.select([])
      this.bench.refresh()
      return true
    }
    if ((key === 'Delete' || key === 'Backspace') && stop) {
      this.remove(stop.line, stop.index)
      return true
    }
    return false
  }

  private remove(line: string, index: number): void {
    this.cancel()
    this.bench.edit('Remove a width stop', (draft) => {
      changeLines(draft, [line], (l) => {
        l.weight = removeStop(l.weight, index)
      })
    })
    this.bench.chooseStop(null)
    this.bench.refresh()
  }

  marks(): Mark[] {
    const stop = this.bench.stop()
    const marks = chosenMarks(this.bench, (line) =>
      line.weight.stops.flatMap((s, index) => {
        const chosen = stop?.line === line.id && stop.index === index
        const across = acrossAt(line, s.at)
        return chosen ? [jawMark(line.id, index, across, chosen), this.tag(across)] : [jawMark(line.id, index, across, chosen)]
      }),
    )
    if (this.hover && !this.grip && !stop) {
      const line = findLine(this.bench.drawing(), this.hover.line.id)?.line
      if (line) marks.push(this.tag(acrossAt(line, this.hover.at)))
    }
    return marks
  }

  /** The width here, in a dark tag a little to the side of the line. */
  private tag({ centre, normal, left, right }: Across): Mark {
    const side = normal.x >= 0 ? 1 : -1
    const out = (side === 1 ? left : right) + 16 / this.bench.zoom()
    const at = { x: centre.x + normal.x * side * out, y: centre.y + normal.y * side * out }
    return { kind: 'tag', at, text: `${(left + right).toFixed(1)} px` }
  }
}

function jawMark(line: string, index: number, { centre, normal, left, right }: Across, chosen: boolean): Mark {
  return {
    kind: 'jaws',
    centre,
    left: { x: centre.x + normal.x * left, y: centre.y + normal.y * left },
    right: { x: centre.x - normal.x * right, y: centre.y - normal.y * right },
    chosen,
    line,
    index,
  }
}

/** Signed distance of `p` from the centre along the normal: positive on the left. */
const offset = ({ centre, normal }: Across, p: Vec): number =>
  (p.x - centre.x) * normal.x + (p.y - centre.y) * normal.y

const widthOf = (line: Line): LineWidth =>
  new LineWidth(line.weight, line.finish.align, arcOf(line).total, line.path.closed)

/** The cross-section at a share of the line's length, with the ink's half-widths there. */
export function acrossAt(line: Line, at: number): Across {
  const arc = arcOf(line)
  const s = at * arc.total
  const tangent = arc.tangent(s) ?? { x: 1, y: 0 }
  const { left, right } = widthOf(line).at(s)
  return { centre: arc.point(s), normal: leftNormal(tangent), left, right }
}
