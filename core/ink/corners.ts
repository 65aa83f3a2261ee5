import type { Corner, CornerStyle, Line, TuckChoice } from '../drawing/model'
import type { End } from '../geometry/ends'
import { distance } from '../geometry/point'
import type { EndContact } from '../weight/contact'
import type { CornerEnd } from './corner'
import { corneredInk } from './corner'
import type { Ends } from './ends'
import type { Region } from './outlines'
import { regionOf } from './outlines'
import type { Inked } from './tucks'

/** One of the ends of a corner. */
export interface EndOfLine {
  line: string
  end: End
}

/** Two ends that come together, and nothing else with them. */
export interface CornerPair {
  ends: [EndOfLine, EndOfLine]
  contacts: [EndContact, EndContact]
  /** What the person decided about it, or null. */
  corner: Corner | null
}

export interface CornerDefault {
  style: CornerStyle
  limit?: number
}

const endKey = ({ line, end }: EndOfLine): string => `${line} ${end}`
const isPair = (a: readonly [EndOfLine, EndOfLine], b: readonly [EndOfLine, EndOfLine]): boolean => endKey(a[0]) === endKey(b[0]) && endKey(a[1]) === endKey(b[1])

/** The corners among lines in the order of the stack: the lower line's end first. */
export function pairsOf(lines: Iterable<Line>, ends: Ends, corners: readonly Corner[]): CornerPair[] {
  const pairs: CornerPair[] = []
  const seen = new Set<string>()
  for (const { id } of lines) {
    for (const contact of ends.of(id)) {
      const [met] = contact.touched
      if (contact.touched.length !== 1 || !met!.ends || met!.line === id || seen.has(endKey(contact))) continue
      const back = ends.of(met!.line).filter((c) => c.touched.length === 1 && c.touched[0]!.line === id && c.touched[0]!.ends)
      const other = back.sort((a, b) => distance(a.at, contact.at) - distance(b.at, contact.at))[0]
      if (!other || seen.has(endKey(other))) continue
      seen.add(endKey(contact)).add(endKey(other))
      const both: CornerPair['ends'] = [{ line: id, end: contact.end }, { line: other.line, end: other.end }]
      pairs.push({ ends: both, contacts: [contact, other], corner: corners.find((c) => isPair(c.ends, both) || isPair([c.ends[1], c.ends[0]], both)) ?? null })
    }
  }
  return pairs
}

interface Known {
  line: Line
  region: Region
  /** What its ink was made of. */
  key: string
  others: readonly Line[]
  cornered: Region
}

/** The ink of lines whose ends are finished as corners, kept for as long as both lines of each are the same. */
export class Corners {
  private known = new Map<string, Known>()

  /** @param tolerance px */
  constructor(private readonly tolerance: number) {}

  /** Lines as their corners have them, and by end what corners say of tucking. */
  of<T extends Inked & { item: Line }>(lines: Map<string, T>, pairs: readonly CornerPair[], usual: CornerDefault): { lines: Map<string, T>; choices: ReadonlyMap<string, TuckChoice> } {
    const before = this.known
    this.known = new Map()
    const ofLine = new Map<string, CornerEnd[]>()
    const choices = new Map<string, TuckChoice>()
    for (const { ends, corner } of pairs) {
      const finish = corner ?? usual
      if (finish.style === 'crossing') for (const e of ends) choices.set(endKey(e), 'out')
      // One behind the other: the one in front is whole.
      if (finish.style === 'tucked') choices.set(endKey(ends[corner?.behind === 1 ? 0 : 1]), 'out')
      if (finish.style === 'caps' || finish.style === 'tucked') continue
      ends.forEach((e, i) => {
        const other = ends[1 - i]!
        ofLine.set(e.line, [...(ofLine.get(e.line) ?? []), { end: e.end, other: { line: lines.get(other.line)!.item, end: other.end }, finish, takesFill: i === 1 }])
      })
    }
    const out = new Map(lines)
    for (const [id, ends] of ofLine) {
      const own = lines.get(id)!
      const key = JSON.stringify(ends.map((e) => [e.end, e.other.end, e.finish.style, e.finish.limit, e.finish.length, e.takesFill]))
      const others = ends.map((e) => e.other.line)
      let known = before.get(id)
      if (known?.line !== own.item || known.region !== own.region || known.key !== key || !others.every((o, i) => o === known!.others[i])) {
        known = { line: own.item, region: own.region, key, others, cornered: regionOf(corneredInk(own.item, ends, this.tolerance)) }
      }
      this.known.set(id, known)
      // What covers the one covers the other.
      out.set(id, { ...own, region: known.cornered, seen: own.seen === own.region ? known.cornered : own.seen })
    }
    return { lines: out, choices }
  }
}
