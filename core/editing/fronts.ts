import type { Amendment, Cast, Drawing, Front, FormBridge } from '../model/model'
import { originOf } from '../model/image-ids'
import { newId } from '../new-id'

/**
 * How one form lies to another, each known by the ids of the lines that bound it: before it, behind it, or both show; null
 * takes back what was decided.
 */
export type FrontChoice = 'before' | 'behind' | 'both' | null

/** Forms of lines that are mirrored or repeated are those of the lines that were drawn: what is decided holds wherever they stand. */
const drawn = (lines: readonly string[]): string[] => [...new Set(lines.map(originOf))]

const isSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((id) => b.includes(id))

const isAbout = (f: Front, a: readonly string[], b: readonly string[]): boolean =>
  (isSet(f.front, a) && isSet(f.back, b)) || (isSet(f.front, b) && isSet(f.back, a))

/** What was decided about two forms. */
export function frontBetween(
  amendments: readonly Amendment[] | undefined,
  one: readonly string[],
  other: readonly string[],
): FrontChoice {
  const [a, b] = isSet(drawn(one), drawn(other)) ? [one, other] : [drawn(one), drawn(other)]
  const found = amendments?.findLast((f): f is Front => f.kind === 'front' && isAbout(f, a, b))
  if (!found) return null
  return found.both ? 'both' : isSet(found.front, a) ? 'before' : 'behind'
}

/** Bends the bridge that closes the open form of some lines; null makes it straight again. */
export function bendBridge(
  draft: Drawing,
  lines: readonly string[],
  bow: Pick<FormBridge, 'along' | 'across'> | null,
): void {
  const of = drawn(lines)
  const others = (draft.amendments ?? []).filter((a) => a.kind !== 'bridge' || !isSet(a.lines, of))
  draft.amendments = bow ? [...others, { id: newId(), kind: 'bridge', lines: of, ...bow }] : others
}

/** What a form throws on those behind it, where the hand chooses from what is at hand: mm, and how fast it thins. */
export const CASTS = {
  line: { gap: 0.5, width: 0.45, taper: 0.5 },
  black: { gap: 0, width: 2.4, taper: 0.6 },
} as const satisfies Record<string, Pick<Cast, 'gap' | 'width' | 'taper'>>

/** What the form of some lines throws. */
export const castOf = (amendments: readonly Amendment[] | undefined, lines: readonly string[]): Cast | null =>
  amendments?.find((a): a is Cast => a.kind === 'cast' && isSet(a.front, drawn(lines))) ?? null

/** Has the form of some lines throw something on those behind it; null for nothing. */
export function throwFrom(
  draft: Drawing,
  lines: readonly string[],
  to: Pick<Cast, 'gap' | 'width' | 'taper'> | null,
): void {
  const was = castOf(draft.amendments, lines)
  if (was && to) Object.assign(was, to)
  else if (was) draft.amendments = draft.amendments!.filter((a) => a.id !== was.id)
  else if (to)
    draft.amendments = [...(draft.amendments ?? []), { id: newId(), kind: 'cast', front: drawn(lines), ...to }]
}

/** Decides about forms, in the place of what was decided about the same two before. */
export function decideFronts(
  draft: Drawing,
  decisions: readonly { form: readonly string[]; to: readonly string[]; choice: FrontChoice }[],
): void {
  let amendments = draft.amendments ?? []
  for (const { form: one, to: other, choice } of decisions) {
    // Of two standings of the same lines, each is meant by itself.
    const isOne = isSet(drawn(one), drawn(other))
    const [form, to] = isOne ? [one, other] : [drawn(one), drawn(other)]
    amendments = amendments.filter((f) => f.kind !== 'front' || !isAbout(f, form, to))
    if (!choice) continue
    const [front, back] = choice === 'behind' ? [to, form] : [form, to]
    amendments = [
      ...amendments,
      { id: newId(), kind: 'front', front: [...front], back: [...back], ...(choice === 'both' && { both: true }) },
    ]
  }
  draft.amendments = amendments
}
