import Flatbush from 'flatbush'
import type { Line, Weight } from '../drawing/model'
import type { Box } from '../geometry/bounds'
import { boxOfCubics, grown, overlap } from '../geometry/bounds'
import { arcOfPath, boxOfPath } from '../geometry/known'
import type { ContactOptions, EndContact, LinePlace } from '../weight/contact'
import { contactsOf } from '../weight/contact'
import { shownParts } from '../weight/shown'

/** A line, how far round it an end may meet or cross it, and what its own ends do. */
interface Known {
  line: Line
  box: Box
  /** About its own ends. */
  tips: Box[]
  contacts: readonly EndContact[]
}

/** From so many changed lines on all is looked at in one go. */
const MANY = 64

/** What the ends of lines do, worked out anew only for lines that changed and for those whose ends lie near them. */
export class Ends {
  private known = new Map<string, Known>()
  private lines: readonly Line[] = []
  /** Lines, by id, an end of which comes together with ends of others, and with no body. */
  private readonly joining = new Set<string>()

  constructor(private readonly options: ContactOptions) {}

  /** Takes the lines as they are now, in the order of the stack. */
  follow(lines: readonly Line[]): void {
    if (lines.length === this.lines.length && lines.every((l, i) => l === this.lines[i])) return
    const reordered = !isInOrder(this.lines, lines)
    this.lines = lines
    const before = this.known
    this.known = new Map()
    const changed: Known[] = []
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
      changed.push(fresh)
      if (was) changed.push(was)
    }
    changed.push(...before.values())
    if (changed.length < MANY && !reordered) {
      const boxes = changed.flatMap((k) => segmentsOf(k.line, this.options))
      for (const { line, tips } of this.known.values()) if (tips.some((t) => boxes.some((b) => overlap(t, b)))) anew.add(line.id)
    } else for (const { line } of this.known.values()) anew.add(line.id)
    this.find(anew)
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

  private readonly looked = (line: Line): Known => ({ line, box: reachOf(line, this.options), tips: tipsOf(line, this.options), contacts: [] })

  private find(ids: ReadonlySet<string>): void {
    if (!ids.size) return
    const among = ids.size < MANY ? this.near(ids) : this.lines
    const found = new Map<string, EndContact[]>([...ids].map((id) => [id, []]))
    for (const c of contactsOf(among, this.options, ids)) found.get(c.line)!.push(c)
    for (const [id, contacts] of found) {
      const known = this.known.get(id)!
      if (isSame(known.contacts, contacts)) continue
      this.known.set(id, { ...known, contacts })
      if (contacts.some((c) => c.touched.length && c.touched.every((t) => t.ends))) this.joining.add(id)
      else this.joining.delete(id)
    }
  }

  /** Lines near the ends of those named, and these themselves, in the order of the stack. */
  private near(ids: ReadonlySet<string>): Line[] {
    const all = this.lines
    const index = new Flatbush(all.length)
    for (const { id } of all) {
      const { box } = this.known.get(id)!
      index.add(box.minX, box.minY, box.maxX, box.maxY)
    }
    index.finish()
    const found = new Set<number>()
    all.forEach(({ id }, i) => {
      if (!ids.has(id)) return
      found.add(i)
      for (const t of this.known.get(id)!.tips) for (const k of index.search(t.minX, t.minY, t.maxX, t.maxY)) found.add(k)
    })
    return [...found].sort((a, b) => a - b).map((i) => all[i]!)
  }
}

/** Whether the lines that both lists have come in the same order: of places that are as near, the lower line's is told first. */
function isInOrder(before: readonly Line[], after: readonly Line[]): boolean {
  const place = new Map(before.map((l, i) => [l.id, i]))
  let last = -1
  for (const { id } of after) {
    const at = place.get(id)
    if (at === undefined) continue
    if (at < last) return false
    last = at
  }
  return true
}

const isSamePlace = (a: LinePlace | null, b: LinePlace | null): boolean => a === b || (!!a && !!b && a.line === b.line && a.at === b.at)

/** Whether two looks at the ends of a line, which is the same, found the same. */
const isSame = (a: readonly EndContact[], b: readonly EndContact[]): boolean =>
  a.length === b.length &&
  a.every((c, i) => {
    const d = b[i]!
    return c.kind === d.kind && c.point === d.point && isSamePlace(c.under, d.under) && c.touched.length === d.touched.length && c.touched.every((t, k) => t.ends === d.touched[k]!.ends && isSamePlace(t, d.touched[k]!))
  })

const widest = new WeakMap<Weight, number>()

function widestOf(weight: Weight): number {
  let most = widest.get(weight)
  if (most === undefined) widest.set(weight, (most = weight.size * Math.max(...weight.stops.map((s) => Math.max(s.left, s.right)))))
  return most
}

/** How far round a line an end may meet or cross it. */
export const reachOf = ({ path, weight }: Line, { reach, overshoot }: ContactOptions): Box => grown(boxOfPath(path), Math.max(reach + widestOf(weight), overshoot))

/** As `reachOf`, segment by segment. */
function segmentsOf({ path, weight }: Line, { reach, overshoot }: ContactOptions): Box[] {
  const by = Math.max(reach + widestOf(weight), overshoot)
  return arcOfPath(path).cubics.map((c) => grown(boxOfCubics([c]), by))
}

/** Boxes about a line's own ends. */
export function tipsOf(line: Line, { overshoot }: ContactOptions): Box[] {
  const parts = line.path.closed ? [] : shownParts(line)
  const tips = parts.length ? [parts[0]!.path.nodes[0]!.at, parts.at(-1)!.path.nodes.at(-1)!.at] : []
  return tips.map((p) => grown({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }, overshoot))
}
