import type { Corner, CornerStyle, Line, TuckChoice } from '../../model/model'
import type { End } from '../../geometry/ends'
import { distance } from '../../geometry/point'
import type { EndContact } from '../../relations/end-contacts'
import type { CornerEnd, CornerFinish } from './corner-finish'
import { corneredInk } from './corner-finish'
import type { Ends } from './ends'
import { orElse } from '../../arrangement/as-far-as-possible'
import type { Failure, Region } from '../outlines/outlines'
import { REGION, regionOf } from '../outlines/outlines'
import { digestOf, digestOfData } from '../../recall/digest'
import type { Recall } from '../../recall/recall'
import { recalled } from '../../recall/recall'
import type { Inked } from './inked'

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
const isPair = (a: readonly [EndOfLine, EndOfLine], b: readonly [EndOfLine, EndOfLine]): boolean =>
  endKey(a[0]) === endKey(b[0]) && endKey(a[1]) === endKey(b[1])

/** The corners among lines in the order of the stack: the lower line's end first. */
export function pairsOf(ends: Ends, corners: readonly Corner[]): CornerPair[] {
  const pairs: CornerPair[] = []
  const seen = new Set<string>()
  for (const { id } of ends.joined()) {
    for (const contact of ends.of(id)) {
      const [met] = contact.touched
      if (contact.touched.length !== 1 || !met!.ends || met!.line === id || seen.has(endKey(contact))) continue
      const back = ends
        .of(met!.line)
        .filter((c) => c.touched.length === 1 && c.touched[0]!.line === id && c.touched[0]!.ends)
      const other = back.sort((a, b) => distance(a.at, contact.at) - distance(b.at, contact.at))[0]
      if (!other || seen.has(endKey(other))) continue
      seen.add(endKey(contact)).add(endKey(other))
      const both: CornerPair['ends'] = [
        { line: id, end: contact.end },
        { line: other.line, end: other.end },
      ]
      pairs.push({
        ends: both,
        contacts: [contact, other],
        corner: corners.find((c) => isPair(c.ends, both) || isPair([c.ends[1], c.ends[0]], both)) ?? null,
      })
    }
  }
  return pairs
}

/** Ends of more than two lines that come together, and nothing else with them: their ends, the lowest line's first. */
export function starsOf(ends: Ends): EndOfLine[][] {
  const stars: EndOfLine[][] = []
  const seen = new Set<string>()
  for (const { id } of ends.joined()) {
    for (const contact of ends.of(id)) {
      if (seen.has(endKey(contact)) || contact.touched.length < 2 || !contact.touched.every((t) => t.ends)) continue
      const star = [
        contact,
        ...contact.touched.flatMap((t) => ends.of(t.line).filter((c) => t.at < 0.5 === (c.end === 'first'))),
      ]
      for (const c of star) seen.add(endKey(c))
      const ids = new Set(star.map((c) => c.line))
      // Each knows the others, and none lies on the body of anything.
      if (
        ids.size === star.length &&
        star.every((c) => c.touched.length === star.length - 1 && c.touched.every((t) => t.ends && ids.has(t.line)))
      )
        stars.push(star.map(({ line, end }) => ({ line, end })))
    }
  }
  return stars
}

const UNFINISHED = 'Its corner cannot be finished, and is as it was drawn. Move one of its lines a little.'

/** What is decided about the ends of a line. */
export type EndChoices = Partial<Record<End, TuckChoice>>

interface Known {
  line: Line
  region: Region
  /** What its ink was made of. */
  key: string
  others: readonly Line[]
  cornered: Region
  /** Why its corners are as they were drawn, where they cannot be finished. */
  failed?: string
}

/** The ink of lines whose ends are finished as corners, kept for as long as both lines of each are the same. */
export class Corners {
  private known = new Map<string, Known>()

  /**
   * @param tolerance px
   * @param recall where what was worked out before is found
   */
  constructor(
    private readonly tolerance: number,
    private readonly recall: Recall | null = null,
  ) {}

  /** By id the lines that have corners, as these have them; and what corners say of tucking. */
  of(
    lines: ReadonlyMap<string, Inked>,
    pairs: readonly CornerPair[],
    stars: readonly EndOfLine[][],
    usual: CornerDefault,
  ): { cornered: ReadonlyMap<string, Inked>; choices: ReadonlyMap<string, EndChoices> } {
    const before = this.known
    this.known = new Map()
    const ofLine = new Map<string, CornerEnd[]>()
    const choices = new Map<string, EndChoices>()
    const letOut = ({ line, end }: EndOfLine): unknown => choices.set(line, { ...choices.get(line), [end]: 'out' })
    for (const { ends, corner } of pairs) {
      const finish = corner ?? usual
      if (finish.style === 'crossing') ends.forEach(letOut)
      // One behind the other: the one in front is whole.
      if (finish.style === 'tucked') letOut(ends[corner?.behind === 1 ? 0 : 1])
      if (finish.style === 'caps' || finish.style === 'tucked') continue
      this.add(ofLine, ends, finish, lines)
    }
    if (usual.style !== 'caps') for (const star of stars) this.add(ofLine, star, usual, lines)
    const cornered = new Map<string, Inked>()
    for (const [id, ends] of ofLine) {
      const own = lines.get(id)!
      const line = own.item as Line
      const key = JSON.stringify(
        ends.map((e) => [
          e.end,
          e.others.map((o) => o.end),
          e.finish.style,
          e.finish.limit,
          e.finish.length,
          e.takesFill,
        ]),
      )
      const others = ends.flatMap((e) => e.others.map((o) => o.line))
      let known = before.get(id)
      if (
        known?.line !== line ||
        known.region !== own.region ||
        known.key !== key ||
        others.length !== known.others.length ||
        !others.every((o, i) => o === known!.others[i])
      ) {
        const entry: Known = { line, region: own.region, key, others, cornered: own.region }
        const by = (): string =>
          digestOf(JSON.stringify(['cornered', this.tolerance, key, digestOfData(line), ...others.map(digestOfData)]))
        entry.cornered = orElse(
          () => recalled(this.recall, by, REGION, () => regionOf(corneredInk(line, ends, this.tolerance))),
          own.region,
          () => (entry.failed = UNFINISHED),
        )
        known = entry
      }
      this.known.set(id, known)
      // What covers the one covers the other.
      cornered.set(id, { ...own, region: known.cornered, seen: own.seen === own.region ? known.cornered : own.seen })
    }
    return { cornered, choices }
  }

  failed(): Failure[] {
    return [...this.known].flatMap(([id, { failed }]) => (failed ? [{ id, message: failed }] : []))
  }

  private add(
    ofLine: Map<string, CornerEnd[]>,
    ends: readonly EndOfLine[],
    finish: CornerFinish,
    lines: ReadonlyMap<string, Inked>,
  ): void {
    ends.forEach((e, i) => {
      const others = ends.filter((o) => o !== e).map((o) => ({ line: lines.get(o.line)!.item as Line, end: o.end }))
      ofLine.set(e.line, [
        ...(ofLine.get(e.line) ?? []),
        { end: e.end, others, finish, takesFill: i === ends.length - 1 },
      ])
    })
  }
}
