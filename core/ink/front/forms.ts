import Flatbush from 'flatbush'
import { areaOfCubics } from '../../geometry/area'
import type { Box } from '../../geometry/bounds'
import { isWithin } from '../../geometry/bounds'
import { arcOfPath, boxOfPath } from '../../geometry/known'
import type { Path, PathNode } from '../../geometry/path'
import { cubicsOfPath, reversePath } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { dot } from '../../geometry/point'
import { windingAt } from '../../geometry/winding-at'
import type { Line } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import type { Cubic } from '../../geometry/cubic'
import { remembered } from '../../remembered'
import type { Bow, Bridged } from './form-bridges'
import { bridged, handlesOf, keyOfLines } from './form-bridges'

/** The region that one thing takes up. */
export interface Form {
  /** Ids of the lines that bound it, sorted, in one word. */
  key: string
  /** In the order in which they go round it. */
  lines: readonly Line[]
  /** Once round it; the same object for as long as the lines are the same. */
  loop: Path
  /** It is open where it runs into another, and a bridge closes it; null where it is closed. */
  bridge: Bridged | null
}

type End = EndContact['end']

/** A line as a part of a form's outline, travelled from its first node or from its last. */
interface Step {
  line: Line
  turned: boolean
}

/** A form as it was found last. */
interface Known {
  steps: readonly Step[]
  open: boolean
  bow: Bow | undefined
  loop: Path
  bridge: Bridged | null
}

/** Forms with less area than this, px squared, are none. */
const LEAST_AREA = 1

/** Two ends that come together go on from one into the other the rather, the less the way turns: from this cosine on at all. */
const TURNS_BACK = -0.999

/** Finds the forms that lines bound, and keeps the loops of those whose lines are the same. */
export class Forms {
  private known = new Map<string, Known>()

  /**
   * Closed lines, and lines that go round a region one after the other, end to end; or that both come to an end on another
   * form, which they run into. In the order of the stack by their topmost lines.
   *
   * @param lines bottom to top
   * @param endsOf what the ends of a line do, by its id
   * @param bent how bridges are bent, by the lines of their forms
   */
  of(
    lines: readonly Line[],
    endsOf: (id: string) => readonly EndContact[],
    bent: ReadonlyMap<string, Bow> = new Map(),
  ): Form[] {
    const before = this.known
    this.known = new Map()
    const formOf = (steps: readonly Step[], open: boolean): Form | null => {
      const key = keyOfLines(steps.map((s) => s.line.id))
      const bow = open ? bent.get(key) : undefined
      const was = before.get(key)
      const isSame =
        was !== undefined &&
        was.open === open &&
        was.bow === bow &&
        was.steps.length === steps.length &&
        was.steps.every((s, i) => s.line.path === steps[i]!.line.path && s.turned === steps[i]!.turned)
      const now = isSame ? was : { steps, open, bow, ...loopOf(steps, open, bow) }
      this.known.set(key, now)
      if (areaOf(now.loop) < LEAST_AREA) return null
      return { key, lines: steps.map((s) => s.line), loop: now.loop, bridge: now.bridge }
    }
    const { rounds, ways } = chainsOf(lines, endsOf)
    const whole = rounds.flatMap((steps) => formOf(steps, false) ?? [])
    const index = new FormIndex(whole)
    const opened = ways.flatMap((steps) => (runsInto(steps, index, endsOf) ? (formOf(steps, true) ?? []) : []))
    const place = new Map(lines.map((l, i) => [l.id, i]))
    const top = (f: Form): number => Math.max(...f.lines.map((l) => place.get(l.id)!))
    return [...whole, ...opened].sort((a, b) => top(a) - top(b))
  }
}

/** A loop's curves, as a region of one contour. */
export const contoursOf = remembered((loop: Path): readonly (readonly Cubic[])[] => [cubicsOfPath(loop)])

export const boxOfForm = (form: Form): Box => boxOfPath(form.loop)

/** Whether a point lies within a form. */
export const isIn = ({ loop }: Pick<Form, 'loop'>, p: Vec): boolean =>
  isWithin(p, boxOfPath(loop)) && windingAt(contoursOf(loop), p) !== 0

/** px squared, whichever way a loop goes round. */
export const areaOf = remembered((loop: Path): number => Math.abs(areaOfCubics(contoursOf(loop)[0]!)))

/**
 * Steps one after the other as one closed path; where ends do not quite touch, straight on to the next. From the last end of an
 * open form a bridge leads back to the first.
 */
function loopOf(steps: readonly Step[], open: boolean, bow: Bow | undefined): Pick<Known, 'loop' | 'bridge'> {
  const [only] = steps
  if (steps.length === 1 && only!.line.path.closed) return { loop: only!.line.path, bridge: null }
  const nodes = steps.flatMap(({ line, turned }): PathNode[] => {
    const way = (turned ? reversePath(line.path) : line.path).nodes
    return way.map((n, i) => ({
      ...n,
      ...(i === 0 && { in: null, joint: 'corner' }),
      ...(i === way.length - 1 && { out: null, joint: 'corner' }),
    }))
  })
  if (!open) return { loop: { nodes, closed: true }, bridge: null }
  const [first, last] = [nodes[0]!, nodes.at(-1)!]
  const isTurned = endId(steps.at(-1)!, true) > endId(steps[0]!, false)
  const bridge = isTurned ? bridged(first.at, last.at, bow) : bridged(last.at, first.at, bow)
  if (bow) {
    const { ofFrom, ofTo } = handlesOf(bridge)
    nodes[0] = { ...first, in: isTurned ? ofFrom : ofTo }
    nodes[nodes.length - 1] = { ...nodes.at(-1)!, out: isTurned ? ofTo : ofFrom }
  }
  return { loop: { nodes, closed: true }, bridge }
}

/** The end at which a walk begins, or where it comes out: ids have an order that stays. */
const endId = ({ line, turned }: Step, out: boolean): string => keyOf(line.id, turned === out ? 'first' : 'last')

interface Tip {
  line: Line
  end: End
  contact: EndContact
}

/** Lines one after the other as their ends come together: those that come round, and those with two ends left. */
function chainsOf(
  lines: readonly Line[],
  endsOf: (id: string) => readonly EndContact[],
): { rounds: Step[][]; ways: Step[][] } {
  const rounds: Step[][] = []
  const ways: Step[][] = []
  const open = lines.filter((l) => !l.path.closed && l.path.nodes.length > 1)
  const partner = partnersOf(open, endsOf)
  const done = new Set<string>()
  for (const line of lines) {
    if (line.path.closed) {
      if (line.path.nodes.length > 1) rounds.push([{ line, turned: false }])
      continue
    }
    if (done.has(line.id) || line.path.nodes.length < 2) continue
    const ahead = walked(line, 'last', partner, done)
    if (ahead.isRound) rounds.push(ahead.steps)
    else {
      const back = walked(line, 'first', partner, done).steps.slice(1)
      ways.push([...back.reverse().map((s) => ({ ...s, turned: !s.turned })), ...ahead.steps])
    }
  }
  return { rounds, ways }
}

/** The way on from a line over one of its ends, until it comes back or there is none. */
function walked(
  from: Line,
  over: End,
  partner: ReadonlyMap<string, Tip>,
  done: Set<string>,
): { steps: Step[]; isRound: boolean } {
  const steps: Step[] = [{ line: from, turned: over === 'first' }]
  done.add(from.id)
  let [line, end] = [from, over]
  for (;;) {
    const next = partner.get(`${line.id} ${end}`)
    if (!next) return { steps, isRound: false }
    if (next.line.id === from.id) return { steps, isRound: next.end !== over }
    if (done.has(next.line.id)) return { steps, isRound: false }
    done.add(next.line.id)
    steps.push({ line: next.line, turned: next.end === 'last' })
    ;[line, end] = [next.line, next.end === 'last' ? 'first' : 'last']
  }
}

/** By line and end, the end into which it goes on: of several that come to one place those that run on most nearly straight. */
function partnersOf(lines: readonly Line[], endsOf: (id: string) => readonly EndContact[]): ReadonlyMap<string, Tip> {
  const tips = new Map<string, Tip>()
  for (const line of lines)
    for (const contact of endsOf(line.id)) tips.set(keyOf(line.id, contact.end), { line, end: contact.end, contact })
  const pairs: { a: Tip; b: Tip; along: number }[] = []
  for (const a of tips.values()) {
    for (const touched of a.contact.touched) {
      if (!touched.ends) continue
      const b = tips.get(keyOf(touched.line, touched.at < 0.5 ? 'first' : 'last'))
      if (!b || b === a || keyOf(a.line.id, a.end) > keyOf(b.line.id, b.end)) continue
      const along = -dot(a.contact.outward, b.contact.outward)
      if (along > TURNS_BACK || a.line === b.line) pairs.push({ a, b, along })
    }
  }
  const partner = new Map<string, Tip>()
  for (const { a, b } of pairs.sort((p, q) => q.along - p.along)) {
    const [one, other] = [keyOf(a.line.id, a.end), keyOf(b.line.id, b.end)]
    if (partner.has(one) || partner.has(other)) continue
    partner.set(one, b)
    partner.set(other, a)
  }
  return partner
}

const keyOf = (line: string, end: End): string => `${line} ${end}`

/** Forms, found by the lines that bound them and by the places that lie in them. */
class FormIndex {
  private readonly byLine = new Map<string, Form>()
  private readonly boxes: Flatbush | null

  constructor(private readonly forms: readonly Form[]) {
    for (const form of forms) for (const l of form.lines) this.byLine.set(l.id, form)
    this.boxes = forms.length ? new Flatbush(forms.length) : null
    for (const form of forms) {
      const { minX, minY, maxX, maxY } = boxOfForm(form)
      this.boxes!.add(minX, minY, maxX, maxY)
    }
    this.boxes?.finish()
  }

  /** Those at which an end is: on their outlines, or within them. */
  at({ touched, at }: EndContact): Set<Form> {
    const found = new Set(touched.flatMap((t) => this.byLine.get(t.line) ?? []))
    for (const i of this.boxes?.search(at.x, at.y, at.x, at.y) ?? [])
      if (isIn(this.forms[i]!, at)) found.add(this.forms[i]!)
    return found
  }
}

/** Of a way that runs into a form so many places are looked at: most of them lie outside it, or it is a line within. */
const PLACES = 9

/** Whether a way comes to an end at one form at both of its ends, and does not lie within that. */
function runsInto(steps: readonly Step[], forms: FormIndex, endsOf: (id: string) => readonly EndContact[]): boolean {
  const [first, last] = [steps[0]!, steps.at(-1)!]
  const tip = ({ line }: Step, end: End): EndContact | undefined => endsOf(line.id).find((c) => c.end === end)
  const one = tip(first, first.turned ? 'last' : 'first')
  const other = tip(last, last.turned ? 'first' : 'last')
  if (!one || !other) return false
  const there = forms.at(one)
  if (!there.size) return false
  const own = new Set(steps.map((s) => s.line))
  const places = steps.flatMap(({ line }) => {
    const arc = arcOfPath(line.path)
    return Array.from({ length: PLACES }, (_, i) => arc.point((arc.total * (i + 0.5)) / PLACES))
  })
  const isOutside = (f: Form): boolean => places.filter((p) => !isIn(f, p)).length > places.length / 2
  return [...forms.at(other)].some((f) => there.has(f) && !f.lines.some((l) => own.has(l)) && isOutside(f))
}
