import type { Corner, Line } from '../../model/model'
import { isWithin } from '../../geometry/bounds'
import { orElse } from '../../arrangement/as-far-as-possible'
import type { ContactOptions, EndContact } from '../../relations/end-contacts'
import { contactsOf } from '../../relations/end-contacts'
import type { CornerDefault, CornerPair, EndChoices } from './corner-stage'
import { Corners, pairsOf, starsOf } from './corner-stage'
import { Ends, reachOf } from './ends'
import type { Failure, Outlines, Region } from '../outlines/outlines'
import { regionOf, regionOr } from '../outlines/outlines'
import { digestOf, digestOfContours, digestOfData } from '../../recall/digest'
import type { Recall } from '../../recall/recall'
import { recalled } from '../../recall/recall'
import { tipsOf } from '../../relations/shown'
import type { Inked, Neighbour } from './inked'
import type { ChoiceOf } from './tuck-end'
import { keepsWithin, lessOver, metBy, tucked } from './tuck-end'

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
  /** Why its ends are as they were drawn, where they cannot be tucked. */
  failed?: string
  /** When it was last wanted. */
  round: number
}

/** An end within so many px of the usual page of another line's ink meets it; one that goes past by no more crosses it. */
const MEETS = { reach: 1.5, overshoot: 8 }

/** What counts as meeting, with `perPx` px of the page for each px of the usual page. */
export const meetingOptions = (perPx: number): ContactOptions => ({
  reach: MEETS.reach * perPx,
  overshoot: MEETS.overshoot * perPx,
  perPx,
})

const UNTUCKED = 'Its ends cannot be kept within what they meet, and are as they were drawn. Move it a little.'

/** So many ends are tucked between two signs of progress. */
const AT_A_TIME = 8

/** The ink of lines less what their ends show beyond what they meet, kept for as long as they and their neighbours are the same. */
export class Tucks {
  readonly ends: Ends
  private readonly corners: Corners
  private readonly known = new Map<string, Known>()
  private round = 0
  /** The corners of the lines that were looked at last. */
  pairs: readonly CornerPair[] = []

  /**
   * @param tolerance px
   * @param perPx px of the page for each px of the usual page
   * @param recall where what was worked out before is found
   */
  constructor(
    private readonly tolerance: number,
    perPx: number,
    private readonly recall: Recall | null = null,
  ) {
    this.ends = new Ends(meetingOptions(perPx), recall)
    this.corners = new Corners(tolerance, recall)
  }

  /**
   * By the id of a line the region that its ink comes to; lines that keep theirs are left out.
   *
   * @param inked by id, in the order of the stack
   * @param goesOn ends, as the id of a line and which end, that only go on into another line: they keep within nothing
   */
  *of(
    inked: ReadonlyMap<string, Inked>,
    decided: readonly Corner[],
    usual: CornerDefault,
    goesOn: ReadonlySet<string> = NONE,
  ): Generator<number, ReadonlyMap<string, Region>> {
    const lines: Line[] = []
    for (const { item } of inked.values()) if ('path' in item) lines.push(item)
    this.ends.follow(lines)
    this.pairs = pairsOf(this.ends, decided)
    const { cornered, choices } = this.corners.of(inked, this.pairs, starsOf(this.ends), usual)
    const inkOf = (id: string): Inked | undefined => cornered.get(id) ?? inked.get(id)
    const clipped = new Map<string, Region>()
    const round = ++this.round
    let kept = 0
    let fresh = 0
    for (const [done, line] of lines.entries()) {
      const { region } = inkOf(line.id)!
      const contacts = this.ends.of(line.id)
      let known = this.known.get(line.id)
      const choice = choiceOf(line, choices.get(line.id), goesOn)
      const plain = inked.get(line.id)!.region
      if (
        known?.line !== line ||
        known.region !== region ||
        known.contacts !== contacts ||
        known.choice !== choice.key ||
        !isAsMet(known, inkOf)
      ) {
        if (region === plain && !contacts.some((c) => keepsWithin(c, choice.of(c)))) continue
        if (++fresh % AT_A_TIME === 0) yield done / lines.length
        const ids = [...new Set(lessOver(line, contacts).flatMap((c) => metBy(c).map((p) => p.line)))]
        known = {
          line,
          region,
          contacts,
          choice: choice.key,
          ids,
          met: ids.map((id) => inkOf(id)?.seen),
          tucked: region,
          round,
        }
        const entry = known
        known.tucked = orElse(
          () => this.worked(line, region, contacts, choice.of, ids, inkOf),
          region,
          () => (entry.failed = UNTUCKED),
        )
        this.known.set(line.id, known)
      }
      known.round = round
      kept++
      if (known.tucked !== plain) clipped.set(line.id, known.tucked)
    }
    if (kept < this.known.size) for (const [id, known] of this.known) if (known.round !== round) this.known.delete(id)
    return clipped
  }

  /** Lines whose ends could not be finished, and are as they were drawn. */
  failed(): Failure[] {
    const own = [...this.known.values()].flatMap(({ line, failed }) =>
      failed ? [{ id: line.id, message: failed }] : [],
    )
    return [...own, ...this.corners.failed()]
  }

  /** Ends that meet the body of a line, or go past one, as they were looked at last. */
  meeting(): EndContact[] {
    return this.ends.all().filter((c) => c.kind === 'crossing' || c.touched.some((t) => !t.ends))
  }

  private worked(
    line: Line,
    region: Region,
    contacts: readonly EndContact[],
    choice: ChoiceOf,
    ids: readonly string[],
    inkOf: (id: string) => Inked | undefined,
  ): Region {
    const neighbours = new Map<string, Neighbour>()
    for (const id of ids) {
      const other = inkOf(id)
      if (other && 'path' in other.item) neighbours.set(id, { line: other.item, contours: other.seen.contours })
    }
    const key = (): string => {
      const met = [...neighbours.values()].map((n) => digestOfData(n.line) + digestOfContours(n.contours))
      const own = digestOfData(line) + digestOfContours(region.contours)
      const ends = contacts.map((c) => [c, choice(c)])
      return digestOf(JSON.stringify(['tucked', this.tolerance, own, ends, met]))
    }
    return recalled(this.recall, key, regionOr(region), () => {
      const contours = tucked(line, region.contours, contacts, choice, neighbours, this.tolerance)
      return contours === region.contours ? region : regionOf(contours)
    })
  }
}

/** Whether what the ends of a line met is as it was. */
function isAsMet({ ids, met }: Known, inkOf: (id: string) => Inked | undefined): boolean {
  for (let i = 0; i < ids.length; i++) if (inkOf(ids[i]!)?.seen !== met[i]) return false
  return true
}

const NONE: ReadonlySet<string> = new Set()

const UNDECIDED = { of: (): undefined => undefined, key: '' }

/** What is decided about the ends of a line: by the person, else by the corners that they are. */
function choiceOf(
  line: Line,
  choices: EndChoices | undefined,
  goesOn: ReadonlySet<string>,
): { of: ChoiceOf; key: string } {
  if (!line.tuck && !choices && !goesOn.size) return UNDECIDED
  const of: ChoiceOf = ({ end }) =>
    line.tuck?.[end] ?? (goesOn.has(`${line.id} ${end}`) ? 'out' : undefined) ?? choices?.[end]
  const [first, last] = [of({ end: 'first' }), of({ end: 'last' })]
  return { of, key: first || last ? `${first} ${last}` : '' }
}

/** A line and those of `lines` that its ends may meet, in their order. */
export function nearTips(line: Line, lines: readonly Line[], perPx: number): Line[] {
  const options = meetingOptions(perPx)
  const tips = tipsOf(line)
  return lines.filter((l) => l === line || tips.some((t) => isWithin(t, reachOf(l, options))))
}

/**
 * The ink of one line less what its ends show beyond what they meet, told apart from any session: for a line under the hand.
 *
 * @param near lines that its ends may meet, as `nearTips` finds them, this one among them
 * @param perPx px of the page for each px of the usual page
 */
export function tuckedAmong(
  line: Line,
  near: readonly Line[],
  outlines: Outlines,
  tolerance: number,
  perPx: number,
): Region | Failure {
  const region = outlines.of(line)
  if ('message' in region || near.length < 2) return region
  const options = meetingOptions(perPx)
  const contacts = contactsOf(near, options, new Set([line.id]))
  const neighbours = new Map<string, Neighbour>()
  for (const other of near) {
    const ink = outlines.of(other)
    if (other !== line && !('message' in ink)) neighbours.set(other.id, { line: other, contours: ink.contours })
  }
  const contours = tucked(line, region.contours, contacts, (c) => line.tuck?.[c.end], neighbours, tolerance)
  return contours === region.contours ? region : regionOf(contours)
}
