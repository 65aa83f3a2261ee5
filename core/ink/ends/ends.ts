import type { Line, Weight } from '../../model/model'
import type { Vec } from '../../geometry/point'
import type { Box } from '../../geometry/bounds'
import { boxOfPoints, emptyBox, grown, isWithin, overlap, uniteBoxes } from '../../geometry/bounds'
import { arcOfPath, boxOfPath } from '../../geometry/known'
import type { ContactOptions, EndContact, LinePlace } from '../../relations/end-contacts'
import { contactsOf } from '../../relations/end-contacts'
import { contactCode } from '../../relations/contact-code'
import { digestOf, digestOfData } from '../../recall/digest'
import type { Recall } from '../../recall/recall'
import { recalled } from '../../recall/recall'
import { tipsOf } from '../../relations/shown'
import { remembered } from '../../remembered'

/** A line, how far round it an end may meet or cross it, and what its own ends do. */
interface Known {
  line: Line
  box: Box
  /** Its own ends. */
  tips: Vec[]
  contacts: readonly EndContact[]
}

/** From so many changed lines on all is looked at in one go. */
const MANY = 64
/** From so many lines to be looked at on, what is near them is not told apart. */
const MOST_NEAR = 512

/** What the ends of lines do, worked out anew only for lines that changed and for those whose ends lie near them. */
export class Ends {
  private known = new Map<string, Known>()
  private lines: readonly Line[] = []
  /** Lines, by id, an end of which comes together with ends of others, and with no body. */
  private readonly joining = new Set<string>()

  /** @param recall where what was worked out before is found */
  constructor(
    private readonly options: ContactOptions,
    private readonly recall: Recall | null = null,
  ) {}

  /** Takes the lines as they are now, in the order of the stack. */
  follow(lines: readonly Line[]): void {
    const before = this.lines
    const inPlace = lines.length === before.length && lines.every((l, i) => l === before[i] || l.id === before[i]!.id)
    if (inPlace && lines.every((l, i) => l === before[i])) return
    this.lines = lines
    const changed = inPlace ? this.exchanged(before, lines) : this.sorted(lines)
    if (changed.known.length < MANY && (inPlace || isInOrder(before.map(idOf), lines.map(idOf)))) {
      const all = changed.known.map((k) => k.box).reduce(uniteBoxes, emptyBox())
      for (const { line, tips } of this.known.values())
        if (tips.some((t) => isWithin(t, all) && changed.known.some((k) => this.comesNear(k, t))))
          changed.anew.add(line.id)
    } else for (const { line } of this.known.values()) changed.anew.add(line.id)
    this.find(changed.anew)
  }

  /** Whether a line comes so near to an end that this may meet or cross it. */
  private comesNear({ line, box }: Known, tip: Vec): boolean {
    return isWithin(tip, box) && arcOfPath(line.path).nearest(tip).distance <= padOf(line, this.options)
  }

  /** Lines that have others in their places: what those were and are, and the ids. */
  private exchanged(before: readonly Line[], lines: readonly Line[]): { known: Known[]; anew: Set<string> } {
    const known: Known[] = []
    const anew = new Set<string>()
    lines.forEach((line, i) => {
      if (line === before[i]) return
      const fresh = this.looked(line)
      known.push(this.known.get(line.id)!, fresh)
      this.known.set(line.id, fresh)
      this.joining.delete(line.id)
      anew.add(line.id)
    })
    return { known, anew }
  }

  /** As `exchanged`, of lines that came, went, or changed places. */
  private sorted(lines: readonly Line[]): { known: Known[]; anew: Set<string> } {
    const before = this.known
    this.known = new Map()
    const known: Known[] = []
    const anew = new Set<string>()
    for (const line of lines) {
      const was = before.get(line.id)
      before.delete(line.id)
      if (was?.line === line) {
        this.known.set(line.id, was)
        continue
      }
      const fresh = this.looked(line)
      this.joining.delete(line.id)
      this.known.set(line.id, fresh)
      anew.add(line.id)
      known.push(fresh)
      if (was) known.push(was)
    }
    return { known: [...known, ...before.values()], anew }
  }

  of(id: string): readonly EndContact[] {
    return this.known.get(id)?.contacts ?? []
  }

  /** The lines an end of which comes together with ends of others, and with no body; in their order. */
  joined(): Line[] {
    return this.joining.size ? this.lines.filter((l) => this.joining.has(l.id)) : []
  }

  /** What all ends do, in the order of the lines. */
  all(): EndContact[] {
    return this.lines.flatMap((l) => [...this.of(l.id)])
  }

  private readonly looked = (line: Line): Known => ({
    line,
    box: reachOf(line, this.options),
    tips: tipsOf(line),
    contacts: [],
  })

  private find(ids: ReadonlySet<string>): void {
    if (!ids.size) return
    const found = new Map<string, EndContact[]>([...ids].map((id) => [id, []]))
    for (const c of this.contactsOf(ids)) found.get(c.line)!.push(c)
    for (const [id, contacts] of found) {
      const known = this.known.get(id)!
      if (isSame(known.contacts, contacts)) continue
      this.known.set(id, { ...known, contacts })
      if (contacts.some((c) => c.touched.length && c.touched.every((t) => t.ends))) this.joining.add(id)
      else this.joining.delete(id)
    }
  }

  private contactsOf(ids: ReadonlySet<string>): EndContact[] {
    const { lines, options } = this
    if (ids.size < MOST_NEAR) return contactsOf(this.near(ids), options, ids)
    const work = (): EndContact[] => contactsOf(lines, options, ids)
    return ids.size < lines.length ? work() : recalled(this.recall, this.key, contactCode(lines), work)
  }

  /** Of what all ends of these lines do. */
  private readonly key = (): string =>
    digestOf(`contacts ${JSON.stringify(this.options)} ${this.lines.map(digestOfData).join('')}`)

  /** Gives what all ends do to the recall: it was found out little by little. */
  keep(): void {
    if (this.lines.length < MOST_NEAR) return
    const numbers = contactCode(this.lines).encode(this.all())
    if (!numbers) return
    this.recall?.keep(this.key(), numbers)
    this.recall?.own(this.key(), this.lines)
  }

  /** Lines near the ends of those named, and these themselves, in the order of the stack. */
  private near(ids: ReadonlySet<string>): Line[] {
    const tips = [...ids].flatMap((id) => this.known.get(id)!.tips)
    const all = boxOfPoints(tips)
    return this.lines.filter(({ id }) => {
      if (ids.has(id)) return true
      const { box } = this.known.get(id)!
      return overlap(box, all) && tips.some((t) => isWithin(t, box))
    })
  }
}

/** Whether the ids that both lists have come in the same order: of places that are as near, the lower line's is told first. */
export function isInOrder(before: readonly string[], after: readonly string[]): boolean {
  if (before.length === after.length && after.every((id, i) => id === before[i])) return true
  const place = new Map(before.map((id, i) => [id, i]))
  let last = -1
  for (const id of after) {
    const at = place.get(id)
    if (at === undefined) continue
    if (at < last) return false
    last = at
  }
  return true
}

const idOf = (line: Line): string => line.id

const isSamePlace = (a: LinePlace | null, b: LinePlace | null): boolean =>
  a === b || (!!a && !!b && a.line === b.line && a.at === b.at)

/** Whether two looks at the ends of a line, which is the same, found the same. */
const isSame = (a: readonly EndContact[], b: readonly EndContact[]): boolean =>
  a.length === b.length &&
  a.every((c, i) => {
    const d = b[i]!
    return (
      c.kind === d.kind &&
      c.point === d.point &&
      isSamePlace(c.under, d.under) &&
      c.touched.length === d.touched.length &&
      c.touched.every((t, k) => t.ends === d.touched[k]!.ends && isSamePlace(t, d.touched[k]!))
    )
  })

const widestOf = remembered(
  (weight: Weight): number => weight.size * Math.max(...weight.stops.map((s) => Math.max(s.left, s.right))),
)

const padOf = ({ weight }: Line, { reach, overshoot }: ContactOptions): number =>
  Math.max(reach + widestOf(weight), overshoot)

/** How far round a line an end may meet or cross it. */
export const reachOf = (line: Line, options: ContactOptions): Box => grown(boxOfPath(line.path), padOf(line, options))
