import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { arcOfPath } from '#core/geometry/known'
import { add, lerp, rotate, subtract } from '#core/geometry/point'
import type { Axis, MirrorPair } from '#core/weight/mirror-match'
import { mirroredWeight, mirrorPairs, sideOfAxis } from '#core/weight/mirror-match'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, Selection, View } from './worktop'
import { arrowStep, DRAG_START, screenDistance } from './instrument'
import { makeStep } from './trial'
import { remembered } from '#core/remembered'

const REACH = 10
/** The axis is drawn this far beyond the page, as a share of its height. */
const BEYOND = 0.06
/** Shift holds a drawn axis to steps of this, degrees. */
const STEP = 15

/** Gives the lines on one side of an axis the mirrored weights of their counterparts; the pairs show before it happens. */
export class Match implements Instrument {
  readonly name = 'Match'
  readonly cursor = 'default'
  private axis: Axis
  private pairs: MirrorPair[] = []
  private readonly left = new Set<string>()
  private hold: { at: Vec; screen: Vec; moved: boolean; line: Line | null } | null = null
  private aside = false
  private accepting: (() => void) | null = null

  constructor(private readonly worktop: Edits & Selection & Hits & View & NextLine) {
    const { page } = worktop.drawing()
    this.axis = this.upright(page.width / 2)
    this.review()
  }

  /** An upright axis at a place across the page. */
  private upright(x: number): Axis {
    const { height } = this.worktop.drawing().page
    return { a: { x, y: -BEYOND * height }, b: { x, y: (1 + BEYOND) * height } }
  }

  hint(): string {
    if (this.hold?.moved) return 'Draw the axis · Shift: in steps of 15° · Esc: back'
    if (this.aside) return 'Enter: show the pairs again · Click: upright axis · Drag: any axis'
    return 'Click: upright axis · Drag: any · Arrows: turn it · Click a pair: leave it out · Enter: accept'
  }

  review(): void {
    const { worktop } = this
    this.accepting = null
    if (this.aside) {
      this.pairs = []
      worktop.tryOn(null)
      return
    }
    const { reach, from } = worktop.preferences().match
    const lines = worktop.allLines(true).filter((l) => worktop.asSeen(l))
    const chosen = new Set(worktop.selection())
    const sources = chosen.size ? lines.filter((l) => chosen.has(l.id)) : lines.filter((l) => this.sideOf(l) === from)
    const targets = chosen.size ? lines.filter((l) => !chosen.has(l.id)) : lines
    this.pairs = mirrorPairs(sources, targets, this.axis, reach)
    const known = new Map(lines.map((l) => [l.id, l]))
    const wanted = new Map(
      this.pairs.filter((p) => !this.left.has(p.to) && !this.left.has(p.from)).map((p) => [p.to, p]),
    )
    const of = remembered((line: Line): Line => {
      const pair = wanted.get(line.id)
      return pair ? { ...line, weight: mirroredWeight(line.weight, known.get(pair.from)!.weight, pair.reversed) } : line
    })
    const changes = [...wanted.keys()].filter(
      (id) => JSON.stringify(of(known.get(id)!).weight) !== JSON.stringify(known.get(id)!.weight),
    )
    const accept = (): void => {
      this.left.clear()
      makeStep(worktop, 'Match mirrored weights', of, changes)
      this.review()
    }
    if (changes.length) this.accepting = accept
    const out = this.pairs.length - wanted.size
    const summary = `${this.pairs.length} ${this.pairs.length === 1 ? 'pair' : 'pairs'} ${this.pairs.length ? 'found' : `found: no line across the axis mirrors one of the ${sources.length}`}${chosen.size ? ' chosen (Esc: among all)' : this.pairs.length ? `, from ${sources.length} ${sources.length === 1 ? 'line' : 'lines'} on that side` : ''}${out ? `, ${out} left out` : ''}.`
    worktop.tryOn({ of, summary, changes: changes.length > 0, accept, drop: () => this.putAside() })
    worktop.refresh()
  }

  /** The side of the axis that a line lies on, as seen with the axis upright. */
  private sideOf(line: Line): 'left' | 'right' {
    const arc = arcOfPath(line.path)
    const { a, b } = this.axis
    const upright = a.y <= b.y ? this.axis : { a: b, b: a }
    return sideOfAxis(arc.point(arc.total / 2), upright) < 0 ? 'left' : 'right'
  }

  private putAside(): void {
    this.aside = true
    this.left.clear()
    this.review()
    this.worktop.refresh()
  }

  press(hand: Hand): void {
    const line = this.worktop.lineAt(hand.at, REACH)?.line ?? null
    this.hold = {
      at: hand.at,
      screen: hand.screen,
      moved: false,
      line: line && this.pairs.some((p) => p.from === line.id || p.to === line.id) ? line : null,
    }
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    const { hold } = this
    if (!hold || (!hold.moved && screenDistance(hold.screen, hand.screen) < DRAG_START)) return
    hold.moved = true
    this.axis = { a: hold.at, b: hand.shift ? stepped(hold.at, hand.at) : hand.at }
    this.aside = false
    this.review()
  }

  release(): void {
    const { hold } = this
    this.hold = null
    if (!hold || hold.moved) return
    if (hold.line) {
      const pair = this.pairs.find((p) => p.from === hold.line!.id || p.to === hold.line!.id)!
      if (this.left.has(pair.to)) this.left.delete(pair.to)
      else this.left.add(pair.to)
    } else {
      this.axis = this.upright(hold.at.x)
      this.aside = false
    }
    this.review()
  }

  cancel(): void {
    this.hold = null
  }

  overtaken(): void {
    this.hold = null
    this.review()
  }

  leave(): void {
    this.worktop.tryOn(null)
  }

  key(key: string, shift = false): boolean {
    const step = arrowStep(key, shift)
    if (step) {
      this.axis = step.x ? moved(this.axis, step.x) : turned(this.axis, step.y)
      this.aside = false
      this.review()
      return true
    }
    if (key === 'Enter') {
      if (this.aside) {
        this.aside = false
        this.review()
      } else if (this.accepting) this.accepting()
      else
        this.worktop.say(
          this.pairs.length
            ? 'The pairs already have mirrored weights.'
            : 'No line has a counterpart across this axis. Move the axis, or let them lie farther apart.',
        )
      return true
    }
    if (key !== 'Escape') return false
    if (this.worktop.selection().length) this.worktop.select([])
    else this.putAside()
    return true
  }

  marks(): Mark[] {
    const lines = new Map(this.worktop.allLines(true).map((l) => [l.id, l]))
    const shown = this.pairs.filter((p) => lines.has(p.from) && lines.has(p.to))
    const middle = (id: string): Vec => {
      const arc = arcOfPath(lines.get(id)!.path)
      return arc.point(arc.total / 2)
    }
    const straight = (a: Vec, b: Vec) => ({
      nodes: [a, b].map((at) => ({ at, in: null, out: null, joint: 'corner' as const })),
      closed: false,
    })
    const inUse = shown.filter((p) => !this.left.has(p.to))
    return [
      { kind: 'paths', paths: [straight(this.axis.a, this.axis.b)], tone: 'next' },
      { kind: 'paths', paths: inUse.flatMap((p) => [lines.get(p.from)!.path, lines.get(p.to)!.path]), tone: 'plum' },
      { kind: 'paths', paths: inUse.map((p) => straight(middle(p.from), middle(p.to))), tone: 'mute' },
    ]
  }
}

const moved = ({ a, b }: Axis, by: number): Axis => ({ a: { x: a.x + by, y: a.y }, b: { x: b.x + by, y: b.y } })

/** An axis turned about its middle, degrees. */
function turned({ a, b }: Axis, degrees: number): Axis {
  const middle = lerp(a, b, 0.5)
  const turn = (p: Vec): Vec => add(middle, rotate(subtract(p, middle), (degrees * Math.PI) / 180))
  return { a: turn(a), b: turn(b) }
}

/** `to`, turned about `from` to the nearest step. */
function stepped(from: Vec, to: Vec): Vec {
  const step = (STEP * Math.PI) / 180
  const angle = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / step) * step
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  return { x: from.x + length * Math.cos(angle), y: from.y + length * Math.sin(angle) }
}
