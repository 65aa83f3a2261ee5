import type { Line, TuckChoice } from '../../model/model'
import type { Vec } from '../../geometry/point'
import type { Cubic } from '../../geometry/cubic'
import { straight } from '../../geometry/cubic'
import type { End } from '../../geometry/ends'
import { arcOfPath } from '../../geometry/known'
import { along, distance, dot } from '../../geometry/point'
import { resolveLoops } from '../../arrangement/resolve'
import { loopOf } from '../../arrangement/loop'
import type { EndContact, LinePlace } from '../../relations/end-contacts'
import { LineWidth } from '../../weight/half-widths'
import { shownParts } from '../../relations/shown'
import { outlineOf } from '../../outline/expand'
import type { Met, MeetingEnd } from './protrusions'
import { withoutProtrusions } from './protrusions'
import type { Neighbour } from './inked'
import { runIn } from './run-in'

/** A line's last stretch is looked at so closely, and all the rest of it. */
const NEAR_PLACES = 24
const REST_PLACES = 24

/** So closely its edges are looked at, and its cap; each too wide by this share of its half-width. */
const EDGE_PLACES = 40
const CAP_PLACES = 11
const MARGIN = 0.06

/** Ink that crosses at a slant shows far from the end: within so many half-widths of both lines, and so many tolerances. */
const SLANT = 8
const SLACK = 20

/** A line's own end goes on as a strip beyond it unless that would lead back into the end which meets it: cosine. */
const BACK = -0.5

/** The strip begins so many tolerances before the end, and each half of it is at least so wide. */
const STRIP_BEFORE = 16
const STRIP_HALF = 4

/** What is decided about an end. */
export type ChoiceOf = (end: Pick<EndContact, 'end'>) => TuckChoice | undefined

/**
 * A line's ink less what its ends show beyond what they meet. An end keeps within all lines that it touches; where one of
 * these ends close by, its edges are taken to go straight on, so that a corner is cut along them.
 *
 * @param neighbours of what the ends touch, by id
 */
export function tucked(
  line: Line,
  contours: readonly Cubic[][],
  contacts: readonly EndContact[],
  choiceOf: ChoiceOf,
  neighbours: ReadonlyMap<string, Neighbour>,
  tolerance: number,
): readonly Cubic[][] {
  let ink = contours
  for (const contact of lessOver(line, contacts)) {
    const choice = choiceOf(contact)
    if (!keepsWithin(contact, choice)) continue
    const places = metBy(contact)
    const others = places.flatMap(({ line: id }) => (id === line.id ? [] : (neighbours.get(id) ?? [])))
    const own = places.find((p) => p.line === line.id)
    if (!others.length && !own) continue
    const end = { ...endOf(line, contact, others, choice === 'under', tolerance), ranIn: false }
    if (own) ink = withoutOwnPokes(line, ink, contact, own.at, end, tolerance)
    else {
      const longer = contact.touched.some((t) => !t.ends) ? runIn(line, ink, contact, others, tolerance) : null
      const kept = longer && withoutProtrusions(longer.contours, { ...end, ranIn: true }, tolerance)
      ink = kept && !longer.strays(kept) ? kept : withoutProtrusions(ink, end, tolerance)
    }
  }
  return ink
}

/**
 * What an end keeps within: the bodies of lines that it touches, whatever else may end there; where there are none, all
 * the lines that come together; where it goes past a line, that one.
 */
export function metBy({ touched, under }: EndContact): readonly LinePlace[] {
  if (!touched.length) return under ? [under] : []
  const bodies = touched.filter((t) => !t.ends)
  return bodies.length ? bodies : touched
}

/** What the ends of a line meet, less the lines over which they lie. */
export function lessOver(line: Line, contacts: readonly EndContact[]): readonly EndContact[] {
  const { over } = line
  if (!over) return contacts
  return contacts.map((c) => {
    const off = over[c.end]
    return off?.length
      ? {
          ...c,
          under: c.under && off.includes(c.under.line) ? null : c.under,
          touched: c.touched.filter((t) => !off.includes(t.line)),
        }
      : c
  })
}

/** Whether an end keeps within what it comes to: if it meets it, or goes past it and is made to; unless it is let out. */
export const keepsWithin = ({ kind }: Pick<EndContact, 'kind'>, choice?: TuckChoice): boolean =>
  choice !== 'out' && (kind === 'meeting' || (kind === 'crossing' && choice !== undefined))

function endOf(
  line: Line,
  contact: EndContact,
  others: readonly Neighbour[],
  under: boolean,
  tolerance: number,
): Omit<MeetingEnd, 'ranIn'> {
  const arc = arcOfPath(line.path)
  const width = new LineWidth(line.weight, line.finish.align, arc.total, false)
  const across = (s: number, offset: (left: number, right: number) => number): Vec => {
    const { left, right } = width.at(s)
    const t = arc.tangent(s) ?? { x: 1, y: 0 }
    const by = offset(left, right)
    const c = arc.point(s)
    return { x: c.x + t.y * by, y: c.y - t.x * by }
  }
  const middle = (s: number): Vec => across(s, (left, right) => (left - right) / 2)
  const place = contact.place * arc.total
  const part = partAt(line, contact.end)
  const far = contact.end === 'first' ? part.to * arc.total : part.from * arc.total
  const mine = width.widest
  const theirs = Math.max(0, ...others.map((o) => widestOf(o.line)))
  const back = Math.sign(far - place) * Math.min(Math.abs(far - place), 4 * (mine + theirs) + SLACK * tolerance)
  const near = Array.from({ length: NEAR_PLACES }, (_, i) => middle(place + (back * i) / (NEAR_PLACES - 1)))
  const rest = Array.from({ length: REST_PLACES }, (_, i) =>
    middle(place + back + ((far - place - back) * (i + 1)) / REST_PLACES),
  )
  for (const other of shownParts(line))
    if (other !== part)
      for (let i = 1; i < 8; i++) rest.push(middle((other.from + ((other.to - other.from) * i) / 8) * arc.total))
  const half = Math.max(width.at(place).left, width.at(place).right)
  // The edges as they go back from the end, and about the cap, a little too wide: what lies between is no wider.
  const margin = MARGIN * mine + 2 * tolerance
  const edge = (side: 1 | -1): Vec[] =>
    Array.from({ length: EDGE_PLACES }, (_, i) =>
      across(place + (back * i) / (EDGE_PLACES - 1), (left, right) => side * ((side > 0 ? left : right) + margin)),
    )
  const cap = contact.end === 'first' ? line.finish.startCap : line.finish.endCap
  const out = Math.atan2(contact.outward.y, contact.outward.x)
  const round = ((cap === 'square' ? Math.SQRT2 : 1) * (width.at(place).left + width.at(place).right)) / 2 + margin
  const about =
    cap === 'butt'
      ? []
      : Array.from({ length: CAP_PLACES }, (_, i) =>
          along(
            middle(place),
            {
              x: Math.cos(out + Math.PI * (i / (CAP_PLACES - 1) - 0.5)),
              y: Math.sin(out + Math.PI * (i / (CAP_PLACES - 1) - 0.5)),
            },
            round,
          ),
        )
  const within = others.flatMap((o): Met[] => [
    { contours: o.contours, under },
    ...stripsOf(o.line, contact, mine, tolerance).map((s) => ({ contours: [s], under: false })),
  ])
  return {
    tip: contact.at,
    near,
    rest,
    edges: [edge(1), edge(-1)],
    cap: about,
    within,
    half: 1.5 * half + SLACK * tolerance,
    reach: SLANT * (mine + theirs) + SLACK * tolerance,
  }
}

const partAt = (line: Line, end: End) => (end === 'first' ? shownParts(line)[0]! : shownParts(line).at(-1)!)

const widestOf = (line: Line): number =>
  new LineWidth(line.weight, line.finish.align, arcOfPath(line.path).total, line.path.closed).widest

/** The ends of a line near a meeting end, gone straight on as far as that could show beyond them. */
function stripsOf(line: Line, { at: tip, outward }: EndContact, wide: number, tolerance: number): Cubic[][] {
  if (line.path.closed || line.weight.nib) return []
  const arc = arcOfPath(line.path)
  const width = new LineWidth(line.weight, line.finish.align, arc.total, false)
  const reach = 2 * wide + 2 * width.widest
  return (['first', 'last'] as const).flatMap((end): Cubic[][] => {
    const part = partAt(line, end)
    const s = (end === 'first' ? part.from : part.to) * arc.total
    const at = arc.point(s)
    const tangent = arc.tangent(s)
    if (!tangent || distance(at, tip) > reach) return []
    const out = end === 'first' ? { x: -tangent.x, y: -tangent.y } : tangent
    if (dot(out, outward) < BACK) return []
    // The strip begins a little inside the line, as wide as that is there.
    const before = STRIP_BEFORE * tolerance
    const inside = Math.min(arc.total, Math.max(0, s + (end === 'first' ? before : -before)))
    const edge = (place: number, ahead: number): Vec[] => {
      const { left, right } = width.at(place, end === 'last')
      return [left, -right].map((h) =>
        along(
          along(at, out, ahead),
          { x: tangent.y, y: -tangent.x },
          Math.sign(h) * Math.max(Math.abs(h), STRIP_HALF * tolerance),
        ),
      )
    }
    const [from, meets, to] = [edge(inside, -before), edge(s, 0), edge(s, 2 * reach)]
    const corners = [from[0]!, from[1]!, meets[1]!, to[1]!, to[0]!, meets[0]!]
    return [corners.map((p, k) => straight(p, corners[(k + 1) % corners.length]!))]
  })
}

/** As `withoutProtrusions`, where a line's end meets its own body: half way between the two it is taken for two lines. */
function withoutOwnPokes(
  line: Line,
  ink: readonly Cubic[][],
  { end, place }: EndContact,
  at: number,
  met: MeetingEnd,
  tolerance: number,
): readonly Cubic[][] {
  const middle = (place + at) / 2
  const [before, after] = [
    { from: 0, to: middle },
    { from: middle, to: 1 },
  ]
  const [last, body] = end === 'last' ? [before, after] : [after, before]
  const tail = outlineOf({ ...line, snips: [...line.snips, last] }, tolerance)
  const rest = outlineOf({ ...line, snips: [...line.snips, body] }, tolerance)
  const kept = withoutProtrusions(
    tail,
    { ...met, rest: [], within: [{ contours: rest, under: false }, ...met.within] },
    tolerance,
  )
  return kept === tail ? ink : resolveLoops([...rest, ...kept].map(loopOf), tolerance)
}
