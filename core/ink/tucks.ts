import type { Corner, Line, Shape, TuckChoice } from '../drawing/model'
import { overlap } from '../geometry/bounds'
import type { ContactOptions, EndContact } from '../weight/contact'
import { contactsOf } from '../weight/contact'
import type { CornerDefault, CornerPair } from './corners'
import { Corners, pairsOf, starsOf } from './corners'
import { Ends, reachOf, tipsOf } from './ends'
import type { Failure, Outlines, Region } from './outlines'
import { regionOf } from './outlines'
import type { ChoiceOf, Neighbour } from './tuck'
import { keepsWithin, lessOver, metBy, tucked } from './tuck'

/** What a line's tucked ink was made of, and that ink. */
interface Known {
  line: Line
  region: Region
  contacts: readonly EndContact[]
  /** What was decided about its ends. */
  choice: string
  /** What its ends come to, by id. */
  ids: readonly string[]
  met: readonly (Region | undefined)[]
  tucked: Region
}

/** A line with its ink, all of it and what is seen of it under covers. */
export interface Inked {
  item: Line | Shape
  region: Region
  seen: Region
}

/** An end within so many px of the usual page of another line's ink meets it; one that goes past by no more crosses it. */
const MEETS = { reach: 1.5, overshoot: 8 }

/** What counts as meeting, with `perPx` px of the page for each px of the usual page. */
export const meetingOptions = (perPx: number): ContactOptions => ({ reach: MEETS.reach * perPx, overshoot: MEETS.overshoot * perPx, perPx })

/** So many ends are tucked between two signs of progress. */
const AT_A_TIME = 8

/** The ink of lines less what their ends show beyond what they meet, kept for as long as they and their neighbours are the same. */
export class Tucks {
  readonly ends: Ends
  private readonly corners: Corners
  private known = new Map<string, Known>()
  /** The corners of the lines that were looked at last. */
  pairs: readonly CornerPair[] = []

  /**
   * @param tolerance px
   * @param perPx px of the page for each px of the usual page
   */
  constructor(
    private readonly tolerance: number,
    perPx: number,
  ) {
    this.ends = new Ends(meetingOptions(perPx))
    this.corners = new Corners(tolerance)
  }

  /** By the id of a line the region that its ink comes to; lines that keep theirs are left out. */
  *of(inked: readonly Inked[], decided: readonly Corner[], usual: CornerDefault): Generator<number, ReadonlyMap<string, Region>> {
    const plain = new Map<string, Inked & { item: Line }>()
    for (const i of inked) if ('path' in i.item) plain.set(i.item.id, i as Inked & { item: Line })
    this.ends.follow([...plain.values()].map((l) => l.item))
    this.pairs = pairsOf(this.ends, decided)
    const { lines, choices } = this.corners.of(plain, this.pairs, starsOf(this.ends), usual)
    const before = this.known
    this.known = new Map()
    const less = new Map<string, Region>()
    let fresh = 0
    let done = 0
    for (const { item: line, region } of lines.values()) {
      done++
      const contacts = this.ends.of(line.id)
      let known = before.get(line.id)
      const choice = choiceOf(line, choices)
      if (known?.line !== line || known.region !== region || known.contacts !== contacts || known.choice !== choice.key || !known.ids.every((id, i) => lines.get(id)?.seen === known!.met[i])) {
        if (region === plain.get(line.id)!.region && !contacts.some((c) => keepsWithin(c, choice.of(c)))) continue
        if (++fresh % AT_A_TIME === 0) yield done / lines.size
        const ids = [...new Set(lessOver(line, contacts).flatMap((c) => metBy(c).map((p) => p.line)))]
        known = { line, region, contacts, choice: choice.key, ids, met: ids.map((id) => lines.get(id)?.seen), tucked: this.worked(line, region, contacts, choice.of, ids, lines) }
      }
      this.known.set(line.id, known)
      if (known.tucked !== plain.get(line.id)!.region) less.set(line.id, known.tucked)
    }
    return less
  }

  /** Ends that meet the body of a line, or go past one, as they were looked at last. */
  meeting(): EndContact[] {
    return this.ends.all().filter((c) => c.kind === 'crossing' || c.touched.some((t) => !t.ends))
  }

  private worked(line: Line, region: Region, contacts: readonly EndContact[], choice: ChoiceOf, ids: readonly string[], lines: ReadonlyMap<string, Inked & { item: Line }>): Region {
    const neighbours = new Map<string, Neighbour>()
    for (const id of ids) {
      const other = lines.get(id)
      if (other) neighbours.set(id, { line: other.item, contours: other.seen.contours })
    }
    const contours = tucked(line, region.contours, contacts, choice, neighbours, this.tolerance)
    return contours === region.contours ? region : regionOf(contours)
  }
}

const UNDECIDED = { of: (): undefined => undefined, key: '' }

/** What is decided about the ends of a line: by the person, else by the corners that they are. */
function choiceOf(line: Line, choices: ReadonlyMap<string, TuckChoice>): { of: ChoiceOf; key: string } {
  if (!line.tuck && !choices.size) return UNDECIDED
  const of: ChoiceOf = ({ end }) => line.tuck?.[end] ?? choices.get(`${line.id} ${end}`)
  const [first, last] = [of({ end: 'first' }), of({ end: 'last' })]
  return { of, key: first || last ? `${first} ${last}` : '' }
}

/**
 * The ink of one line less what its ends show beyond what they meet, told apart from any session: for a line under the hand.
 *
 * @param lines all lines in their order, this one among them
 * @param perPx px of the page for each px of the usual page
 */
export function tuckedAmong(line: Line, lines: readonly Line[], outlines: Outlines, tolerance: number, perPx: number): Region | Failure {
  const region = outlines.of(line)
  if ('message' in region) return region
  const options = meetingOptions(perPx)
  const tips = tipsOf(line, options)
  const near = lines.filter((l) => l === line || tips.some((t) => overlap(t, reachOf(l, options))))
  if (near.length < 2) return region
  const contacts = contactsOf(near, options, new Set([line.id]))
  const neighbours = new Map<string, Neighbour>()
  for (const other of near) {
    const ink = outlines.of(other)
    if (other !== line && !('message' in ink)) neighbours.set(other.id, { line: other, contours: ink.contours })
  }
  const contours = tucked(line, region.contours, contacts, (c) => line.tuck?.[c.end], neighbours, tolerance)
  return contours === region.contours ? region : regionOf(contours)
}
