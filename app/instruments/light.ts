import type { LightRule, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import { courseOf } from '#core/geometry/course'
import { litLine } from '#core/weight/light'
import type { Side } from '#core/relations/outside'
import { outsidesOf } from '#core/relations/outside'
import { changeLines } from '#core/editing/change-items'
import type { Mark } from '~/canvas/marks'
import type { Hand, Instrument } from './instrument'
import type { Edits, Hits, NextLine, View } from './worktop'
import { arrowStep, DRAG_START, screenDistance } from './instrument'
import { leftAlone } from './trial'
import { linesOf } from '#core/model/queries'
import { remembered } from '#core/remembered'
import { withCopies } from '#core/repetition/with-copies'

const REACH = 10
/** The light is taken hold of this near, screen px. */
const GRIP = 18
/** It goes no farther from the page than so many of its sides. */
const FARTHEST = 3
/** So many hairs show which side of a line is outside. */
const HAIRS = 7

/** Weighs every edge by a light that is dragged over the drawing: thin towards it, thick away from it. */
export class Light implements Instrument {
  readonly name = 'Light'
  readonly cursor = 'default'
  private at: Vec
  private hold: { screen: Vec; moved: boolean; line: Line | null; slack: Vec } | null = null
  private hover: Line | null = null
  private overLight = false
  /** The light was moved or set since it was last accepted. */
  private trying = false
  private outsides: { layers: unknown; of: Map<string, Side | null> } | null = null
  private last = ''

  constructor(private readonly worktop: Edits & Hits & View & NextLine) {
    const { page, settings } = worktop.drawing()
    const { x, y } = worktop.preferences().light
    this.at = settings.light?.at ?? { x: x * page.width, y: y * page.height }
    this.last = this.settings()
  }

  hint(): string {
    if (this.hold?.moved) return 'Edges that face the light are thin · Release: look · Esc: back'
    if (this.hover && !this.overLight) return 'Click: its outside is on the other side · Drag: bring the light here'
    if (this.trying) return 'Enter: accept · Drag: move the light · Click a line: turn its outside · Esc: as it was'
    return 'Drag the light, or bring it anywhere · Click a line: turn its outside · Arrows: nudge'
  }

  private settings(): string {
    const { strength, softness } = this.worktop.preferences().light
    return JSON.stringify([strength, softness])
  }

  private get rule(): LightRule {
    const { strength, softness } = this.worktop.preferences().light
    return { at: this.at, strength, softness, live: this.worktop.drawing().settings.light?.live ?? false }
  }

  /** Which side of each line is outside, found once as long as the lines stay the same. */
  private sides(): Map<string, Side | null> {
    const drawing = this.worktop.drawing()
    const { layers } = drawing
    if (this.outsides?.layers !== layers) this.outsides = { layers, of: outsidesOf(linesOf(withCopies(drawing))) }
    return this.outsides.of
  }

  review(): void {
    const now = this.settings()
    const set = now !== this.last
    this.last = now
    const { light } = this.worktop.drawing().settings
    if (set) this.trying = true
    if (this.trying) this.tryOn()
    else if (light && !this.hold) this.at = light.at
    this.worktop.refresh()
  }

  private tryOn(): void {
    const { rule } = this
    const sides = this.sides()
    const open = new Set(this.worktop.allLines(true).map((l) => l.id))
    const of = remembered((line: Line): Line =>
      open.has(line.id) ? litLine(line, sides.get(line.id) ?? null, rule) : line,
    )
    this.worktop.tryOn({
      of,
      summary: this.summary(),
      light: rule,
      changes: true,
      accept: () => this.accept(),
      drop: () => this.putAside(),
    })
  }

  private summary(): string {
    const lines = this.worktop.allLines(true)
    const pinned = lines.filter((l) => l.weight.pinned).length
    const sides = this.sides()
    const lit = lines.filter((l) => !l.weight.pinned && sides.get(l.id)).length
    return `Of the whole drawing: ${lit} ${lit === 1 ? 'line has' : 'lines have'} an outside and ${lit === 1 ? 'takes' : 'take'} the light.${leftAlone(pinned)}`
  }

  private accept(): void {
    if (!this.worktop.allLines(true).length) {
      this.worktop.say('There is no line to light. Lay some lines first, or unlock a layer.')
      return
    }
    const { rule } = this
    const sides = this.sides()
    const lines = this.worktop.allLines(true)
    const lit = new Map(lines.map((l) => [l.id, litLine(l, sides.get(l.id) ?? null, rule)]))
    if (!this.trying && lines.every((l) => lit.get(l.id) === l)) {
      this.worktop.say(
        'Every line has the weight that this light gives it. Drag the light, or change how strong it is.',
      )
      return
    }
    this.trying = false
    this.worktop.tryOn(null)
    this.worktop.edit(rule.live ? 'Light that follows' : 'Weight by light', (draft) => {
      draft.settings.light = rule
      changeLines(draft, [...lit.keys()], (line) => {
        const next = lit.get(line.id)!
        if (next.weight.stops !== line.weight.stops) line.weight = next.weight
      })
    })
    this.worktop.refresh()
  }

  private putAside(): void {
    this.trying = false
    this.at = this.worktop.drawing().settings.light?.at ?? this.at
    this.worktop.tryOn(null)
    this.worktop.refresh()
  }

  press(hand: Hand): void {
    const onLight = distance(hand.at, this.at) * this.worktop.zoom() <= GRIP
    const line = onLight ? null : (this.worktop.lineAt(hand.at, REACH)?.line ?? null)
    this.hold = {
      screen: hand.screen,
      moved: false,
      line,
      slack: onLight ? { x: this.at.x - hand.at.x, y: this.at.y - hand.at.y } : { x: 0, y: 0 },
    }
    this.worktop.refresh()
  }

  move(hand: Hand): void {
    const { hold } = this
    if (!hold) {
      this.overLight = distance(hand.at, this.at) * this.worktop.zoom() <= GRIP
      this.hover = this.overLight ? null : (this.worktop.lineAt(hand.at, REACH)?.line ?? null)
      this.worktop.refresh()
      return
    }
    if (!hold.moved && screenDistance(hold.screen, hand.screen) < DRAG_START) return
    hold.moved = true
    this.moveTo({ x: hand.at.x + hold.slack.x, y: hand.at.y + hold.slack.y })
  }

  private moveTo(p: Vec): void {
    const { page } = this.worktop.drawing()
    const far = FARTHEST * Math.max(page.width, page.height)
    this.at = {
      x: Math.min(page.width + far, Math.max(-far, p.x)),
      y: Math.min(page.height + far, Math.max(-far, p.y)),
    }
    this.trying = true
    this.tryOn()
    this.worktop.refresh()
  }

  release(): void {
    const { hold } = this
    this.hold = null
    if (!hold) return
    if (hold.moved) this.settle()
    else if (hold.line) this.turn(hold.line)
  }

  /** The hand let go of the light: a light that follows edits is a step at once, another waits to be accepted. */
  private settle(): void {
    if (this.worktop.drawing().settings.light?.live) this.accept()
    this.worktop.refresh()
  }

  /** The other side of a line becomes its outside. */
  private turn(line: Line): void {
    const outside: Side = (this.sides().get(line.id) ?? 'right') === 'left' ? 'right' : 'left'
    this.worktop.edit('Turn the outside', (draft) => {
      changeLines(draft, [line.id], (l) => {
        l.outside = outside
      })
    })
    this.hover = this.worktop.allLines(true).find((l) => l.id === line.id) ?? null
    this.review()
  }

  cancel(): void {
    if (!this.hold) return
    this.hold = null
    this.putAside()
  }

  away(): void {
    this.hover = null
    this.overLight = false
  }

  overtaken(): void {
    this.hold = null
    this.trying = false
    this.worktop.tryOn(null)
    this.at = this.worktop.drawing().settings.light?.at ?? this.at
  }

  leave(): void {
    const { page } = this.worktop.drawing()
    this.worktop.remember({
      light: { ...this.worktop.preferences().light, x: this.at.x / page.width, y: this.at.y / page.height },
    })
    this.worktop.tryOn(null)
  }

  key(key: string, shift = false): boolean {
    if (key === 'Enter') {
      this.accept()
      return true
    }
    if (key === 'Escape') {
      this.hold = null
      this.putAside()
      return true
    }
    const d = arrowStep(key, shift)
    if (!d) return false
    this.moveTo({ x: this.at.x + 4 * d.x, y: this.at.y + 4 * d.y })
    this.settle()
    return true
  }

  marks(): Mark[] {
    const marks: Mark[] = [{ kind: 'light', at: this.at, held: !!this.hold?.moved || this.overLight }]
    const line = this.hover && this.worktop.allLines(true).find((l) => l.id === this.hover!.id)
    const side = line && this.sides().get(line.id)
    if (line) marks.unshift({ kind: 'paths', paths: [line.path], tone: 'plum' })
    if (line && side) marks.push({ kind: 'hairs', at: hairsOf(line, side) })
    return marks
  }
}

/** Places along a line with the direction to its outside. */
function hairsOf({ path }: Line, side: Side): { at: Vec; out: Vec }[] {
  const { x, y, nx, ny } = courseOf(path)
  const sign = side === 'left' ? 1 : -1
  const step = Math.max(1, Math.floor(x.length / HAIRS))
  const hairs: { at: Vec; out: Vec }[] = []
  for (let i = Math.floor(step / 2); i < x.length; i += step)
    hairs.push({ at: { x: x[i]!, y: y[i]! }, out: { x: sign * nx[i]!, y: sign * ny[i]! } })
  return hairs
}
