import { dot } from '../../geometry/point'
import type { Line } from '../../model/model'
import type { EndContact } from '../../relations/end-contacts'
import { remembered } from '../../remembered'

export type End = EndContact['end']

/** A line as a part of a form's outline, travelled from its first node or from its last. */
export interface Step {
  line: Line
  turned: boolean
}

/** Two ends that come together go on from one into the other the rather, the less the way turns: from this cosine on at all. */
const TURNS_BACK = -0.999

interface Tip {
  line: Line
  end: End
  contact: EndContact
}

/** By the id of a line, the ends into which its own go on. */
type Partners = ReadonlyMap<string, { first?: Tip; last?: Tip }>

/** Lines one after the other as their ends come together: those that come round, and those with two ends left. */
export function chainsOf(
  lines: readonly Line[],
  endsOf: (id: string) => readonly EndContact[],
): { rounds: Step[][]; ways: Step[][] } {
  const rounds: Step[][] = []
  const ways: Step[][] = []
  const partners = partnersOf(lines, endsOf)
  const done = new Set<string>()
  for (const line of lines) {
    if (line.path.nodes.length < 2 || done.has(line.id)) continue
    if (line.path.closed) rounds.push([{ line, turned: false }])
    else if (!partners.has(line.id)) ways.push([{ line, turned: false }])
    else {
      const ahead = walked(line, 'last', partners, done)
      if (ahead.isRound) rounds.push(ahead.steps)
      else {
        const back = walked(line, 'first', partners, done).steps.slice(1)
        ways.push([...back.reverse().map((s) => ({ ...s, turned: !s.turned })), ...ahead.steps])
      }
    }
  }
  return { rounds, ways }
}

/** The way on from a line over one of its ends, until it comes back or there is none. */
function walked(from: Line, over: End, partners: Partners, done: Set<string>): { steps: Step[]; isRound: boolean } {
  const steps: Step[] = [{ line: from, turned: over === 'first' }]
  done.add(from.id)
  let [line, end] = [from, over]
  for (;;) {
    const next = partners.get(line.id)?.[end]
    if (!next) return { steps, isRound: false }
    if (next.line.id === from.id) return { steps, isRound: next.end !== over }
    if (done.has(next.line.id)) return { steps, isRound: false }
    done.add(next.line.id)
    steps.push({ line: next.line, turned: next.end === 'last' })
    ;[line, end] = [next.line, next.end === 'last' ? 'first' : 'last']
  }
}

/** Whether an end of a line comes together with an end of one. */
const meets = remembered((contacts: readonly EndContact[]): boolean =>
  contacts.some((c) => c.touched.some((t) => t.ends)),
)

/** By line and end, the end into which it goes on: of several that come to one place those that run on most nearly straight. */
function partnersOf(lines: readonly Line[], endsOf: (id: string) => readonly EndContact[]): Partners {
  const open = new Map<string, Line>()
  for (const line of lines) if (!line.path.closed && line.path.nodes.length > 1) open.set(line.id, line)
  const tipOf = (id: string, end: End): Tip | null => {
    const line = open.get(id)
    const contact = line && endsOf(id).find((c) => c.end === end)
    return contact ? { line, end, contact } : null
  }
  const pairs: { a: Tip; b: Tip; along: number }[] = []
  for (const line of open.values()) {
    const contacts = endsOf(line.id)
    if (!meets(contacts)) continue
    for (const contact of contacts) {
      const a: Tip = { line, end: contact.end, contact }
      for (const touched of contact.touched) {
        const b = touched.ends ? tipOf(touched.line, touched.at < 0.5 ? 'first' : 'last') : null
        // Each pair once.
        if (!b || keyOf(a) >= keyOf(b)) continue
        const along = -dot(a.contact.outward, b.contact.outward)
        if (along > TURNS_BACK || a.line === b.line) pairs.push({ a, b, along })
      }
    }
  }
  const partners = new Map<string, { first?: Tip; last?: Tip }>()
  const isTaken = ({ line, end }: Tip): boolean => partners.get(line.id)?.[end] !== undefined
  const take = ({ line, end }: Tip, tip: Tip): void =>
    void partners.set(line.id, { ...partners.get(line.id), [end]: tip })
  for (const { a, b } of pairs.sort((p, q) => q.along - p.along)) {
    if (isTaken(a) || isTaken(b)) continue
    take(a, b)
    take(b, a)
  }
  return partners
}

const keyOf = ({ line, end }: Tip): string => `${line.id} ${end}`
