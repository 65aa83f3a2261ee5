import type { End } from '../geometry/ends'
import type { Verdict } from '../model/line'
import type { Line, Weight, WidthStop } from '../model/model'
import { arcOfPath } from '../geometry/known'
import { AT_END, bodyAt, bodyStops, bodyWidth, insetOf, isEndStop } from '../relations/body'
import type { ContactOptions, EndContact } from '../relations/end-contacts'
import { contactsOf } from '../relations/end-contacts'
import { taperAtEnd, withTaper } from './end-tapers'
import { LineWidth } from './half-widths'

export interface ContactRule extends ContactOptions {
  /** 0..1: how far a free end thins, and how full a meeting end is at least. */
  strength: number
  /** Length of a free end's taper, % of the line. */
  taper: number
  /** Pinned lines are weighed too. */
  pinned: boolean
}

/** An end, what it was found to do and what is proposed for it. */
export interface EndProposal extends EndContact {
  verdict: Verdict
}

/** What was decided of the ends of lines, by `keyOfEnd`. */
export const verdictsOf = (lines: readonly Line[]): Map<string, Verdict> =>
  new Map(
    lines.flatMap((l) =>
      (['first', 'last'] as const).flatMap((end) => {
        const verdict = l.contact?.[end]
        return verdict ? [[keyOfEnd({ line: l.id, end }), verdict] as const] : []
      }),
    ),
  )

/** One text for an end of a line. */
export const keyOfEnd = ({ line, end }: Pick<EndContact, 'line' | 'end'>): string => `${line} ${end}`

/** The craft's rule: an end that floats tapers, and so do two that run out to one point; an end that touches is full. */
const verdictOn = ({ kind, point }: EndContact): Verdict => (kind === 'meeting' && !point ? 'full' : 'taper')

/** Widths that differ by less than this share are the same. */
const SAME = 2e-3

/**
 * What the rule proposes for the ends of the lines in `ids` (all when null), told by the contacts among all of `lines`.
 * `decided` has verdicts of the person's own by `keyOfEnd`. Pinned lines are left out unless the rule says otherwise.
 */
export const proposeByContact = (
  lines: readonly Line[],
  ids: ReadonlySet<string> | null,
  rule: ContactRule,
  decided: ReadonlyMap<string, Verdict> = new Map(),
): EndProposal[] => proposalsFor(contactsOf(lines, rule, weighedLines(lines, ids, rule)), decided)

/** The lines that a rule weighs. */
export const weighedLines = (
  lines: readonly Line[],
  ids: ReadonlySet<string> | null,
  { pinned }: Pick<ContactRule, 'pinned'>,
): Set<string> => new Set(lines.filter((l) => (!ids || ids.has(l.id)) && (pinned || !l.weight.pinned)).map((l) => l.id))

/** What is proposed for ends whose contacts are known. */
export const proposalsFor = (contacts: readonly EndContact[], decided: ReadonlyMap<string, Verdict>): EndProposal[] =>
  contacts.map((c) => ({ ...c, verdict: decided.get(keyOfEnd(c)) ?? verdictOn(c) }))

/** The weights that proposals give their lines, by id; lines that already have them are left out. */
export function weightsByContact(
  lines: readonly Line[],
  proposals: readonly EndProposal[],
  rule: ContactRule,
): Map<string, Weight> {
  const known = new Map(lines.map((l) => [l.id, l]))
  const out = new Map<string, Weight>()
  for (const p of proposals) {
    const line = known.get(p.line)!
    const weight = out.get(p.line) ?? line.weight
    const next =
      p.verdict === 'leave'
        ? weight
        : isCutOff(p)
          ? fullAtCut(line, weight, p, roomUnder(p, known), rule.strength)
          : p.verdict === 'taper'
            ? tapered(line, weight, p.end, rule)
            : full(line, weight, p.end, roomUnder(p, known), rule.strength)
    if (next !== weight) out.set(p.line, next)
  }
  return out
}

/** How wide an end may be to tuck under what it meets, px. */
const roomUnder = ({ under }: EndProposal, lines: ReadonlyMap<string, Line>): number =>
  under ? bodyWidth(lines.get(under.line)!, under.at) : Infinity

/** The stop that governs an end: the one nearest to it. */
const endStop = ({ stops }: Weight, end: End): WidthStop => (end === 'first' ? stops[0]! : stops[stops.length - 1]!)

/** The widest place of a line's body, as the sum of both sides' factors. */
function widestBody(line: Line): number {
  const inset = insetOf(line)
  const places = [inset, 1 - inset, ...bodyStops(line.weight).map((s) => s.at)]
  return Math.max(...places.map((at) => bodyAt(line, at)).map((b) => b.left + b.right))
}

/** With a taper at an end, unless it thins there enough as it is. */
function tapered(line: Line, weight: Weight, end: End, { strength, taper }: ContactRule): Weight {
  const tip = 1 - strength
  const now = endStop(weight, end)
  const was = taperAtEnd(weight, end)
  if ((was && was.tip <= tip + SAME) || now.left + now.right <= (tip + SAME) * widestBody(line)) return weight
  return withTaper(weight, end, { length: taper, unit: '%', tip, ease: was?.ease ?? 'straight' })
}

/** Whether a snip cuts the end off: what lies beyond is not there. */
const isCutOff = ({ place }: EndProposal): boolean => place > AT_END && place < 1 - AT_END

/** As `full`, at the place where a snip cuts a line off: its taper beyond is gone with the rest, so that cannot be asked for. */
function fullAtCut(
  line: Line,
  weight: Weight,
  { end, place, verdict }: EndProposal,
  most: number,
  strength: number,
): Weight {
  if (verdict === 'taper') return weight
  const { total } = arcOfPath(line.path)
  const bare = withTaper(weight, end, null)
  const body = bodyAt(line, place)
  const wide = (weight.size / 2) * (body.left + body.right)
  if (!(wide > 0)) return weight
  const { left, right } = new LineWidth(weight, line.finish.align, total, line.path.closed).at(place * total)
  const slack = SAME * wide
  const target = Math.min(wide, most)
  if (left + right >= target * strength - slack && left + right <= most + slack) return weight
  const k = (wide > most ? most : wide) / wide
  const inset = insetOf(line) * (end === 'first' ? 1 : -1)
  const stops = bare.stops.filter((s) => Math.abs(s.at - place) > AT_END)
  const shoulder = { at: Math.min(1, Math.max(0, place + inset)), ...bodyAt(line, place + inset) }
  const all = [...stops, { at: place, left: body.left * k, right: body.right * k }, ...(k < 1 - SAME ? [shoulder] : [])]
  return { ...bare, stops: all.sort((a, b) => a.at - b.at) }
}

/** With an end as wide as the line's body, and no wider than `most` px. */
function full(line: Line, weight: Weight, end: End, most: number, strength: number): Weight {
  const at = end === 'first' ? 0 : 1
  const body = bodyAt(line, at)
  const wide = (weight.size / 2) * (body.left + body.right)
  if (!(wide > 0)) return weight
  const target = Math.min(wide, most)
  const now = endStop(weight, end)
  const width = (weight.size / 2) * (now.left + now.right) * (taperAtEnd(weight, end)?.tip ?? 1)
  const slack = SAME * wide
  if (width >= target * strength - slack && width <= most + slack) return weight
  const k = (width > most ? most : target * strength) / wide
  const stop: WidthStop = { at, left: body.left * k, right: body.right * k }
  const kept = weight.stops.filter((s) => Math.abs(s.at - at) > 1e-3)
  const stops = [...kept, stop, ...shoulders(line, weight, end, k)].sort((a, b) => a.at - b.at)
  return withTaper({ ...weight, stops }, end, null)
}

/** Stops that keep the body as it was where an end alone is made narrow. */
function shoulders(line: Line, weight: Weight, end: End, k: number): WidthStop[] {
  const inset = insetOf(line)
  const stopAt = (at: number): WidthStop => ({ at, ...bodyAt({ ...line, weight }, at) })
  // A line that has stops at its ends alone gets its body at both, or what one end is given would tell of all of it.
  if (bodyStops(weight).every(isEndStop)) return [stopAt(inset), stopAt(1 - inset)]
  const held = weight.stops.some(
    (s) => !isEndStop(s) && (end === 'first' ? s.at <= inset * 1.5 : s.at >= 1 - inset * 1.5),
  )
  return held || k > 1 - SAME ? [] : [stopAt(end === 'first' ? inset : 1 - inset)]
}
