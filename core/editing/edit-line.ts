import { arcOfPath } from '../geometry/known'
import { partOfPath } from '../geometry/part-of-path'
import { reversePath, SMOOTH_ANGLE, turn } from '../geometry/path'
import { distance, lerp, subtract } from '../geometry/point'
import { joinedWeight, partOfWeight } from '../weight/part-of-weight'
import { withStopsChanged } from '../weight/own-stops'
import { flipEnds, flipSides } from '../weight/shelf'
import { newId } from '../new-id'
import { repath } from './repath'
import { partOfTrace, reversedTrace } from '../model/line-trace'
import type { Line, Snip } from '../model/model'
import type { Path, PathNode } from '../geometry/path'

/** Ends nearer to each other than this become one node, px. */
const TOUCHING = 0.5

const OTHER_WAY = { left: 'right', right: 'left', centre: 'centre' } as const

/** The same ink, travelled the other way. */
export function reversedLine(line: Line): Line {
  return {
    ...line,
    path: reversePath(line.path),
    weight: flipSides(flipEnds(line.weight)),
    ...(line.outside && { outside: OTHER_WAY[line.outside] }),
    finish: {
      ...line.finish,
      startCap: line.finish.endCap,
      endCap: line.finish.startCap,
      align: OTHER_WAY[line.finish.align],
    },
    snips: line.snips.map((s): Snip => ({ ...s, from: 1 - s.to, to: 1 - s.from, ...bounds(s.toBy, s.fromBy) })),
    trace: line.trace && reversedTrace(line.trace),
    ...(line.contact && { contact: endsOf(line.contact.last, line.contact.first) }),
    ...(line.tuck && { tuck: endsOf(line.tuck.last, line.tuck.first) }),
    ...(line.over && { over: endsOf(line.over.last, line.over.first) }),
  }
}

/** What is decided about two ends; nothing where there is nothing. */
export const endsOf = <T>(
  first: T | undefined,
  last: T | undefined,
): Partial<Record<'first' | 'last', T>> | undefined =>
  first || last ? { ...(first && { first }), ...(last && { last }) } : undefined

const bounds = (fromBy: string | undefined, toBy: string | undefined): Pick<Snip, 'fromBy' | 'toBy'> => ({
  fromBy,
  toBy,
})

/**
 * An open line cut in two at a share 0..1 of its length; a closed one opened there. The ink stays as it is; the first
 * part keeps the id. The line itself where the place is an end.
 */
export function splitLine(line: Line, at: number): Line[] {
  const { path } = line
  if (path.closed) return [openedLine(line, at)]
  const { total } = arcOfPath(path)
  const parts = [partOfPath(path, 0, at), partOfPath(path, at, 1)]
  if (!(at > 0 && at < 1) || !parts[0] || !parts[1]) return [line]
  return parts.map((part, i): Line => {
    const [from, to] = i === 0 ? [0, at] : [at, 1]
    return {
      ...line,
      id: i === 0 ? line.id : newId(),
      path: part!,
      weight: partOfWeight(line.weight, from, to, total),
      snips: line.snips.flatMap((s) => partOfSnip(s, from, to)),
      trace: line.trace && partOfTrace(line.trace, from, to),
      ...(line.contact && {
        contact: i === 0 ? endsOf(line.contact.first, undefined) : endsOf(undefined, line.contact.last),
      }),
      ...(line.tuck && { tuck: i === 0 ? endsOf(line.tuck.first, undefined) : endsOf(undefined, line.tuck.last) }),
      ...(line.over && { over: i === 0 ? endsOf(line.over.first, undefined) : endsOf(undefined, line.over.last) }),
    }
  })
}

/** A closed line as an open one that begins and ends at a share of its length. */
function openedLine(line: Line, at: number): Line {
  const around = at > 0 && at < 1 ? partOfPath(line.path, at, at === 0 ? 1 : at - 1e-12) : partOfPath(line.path, 0, 1)
  const turned = (u: number): number => (((u - at) % 1) + 1) % 1
  return {
    ...line,
    path: around ?? { ...line.path, closed: false },
    weight: withStopsChanged(line.weight, (stops) =>
      stops.map((s) => ({ ...s, at: turned(s.at) })).sort((a, b) => a.at - b.at),
    ),
    snips: line.snips.map((s) => ({ ...s, from: turned(s.from), to: turned(s.to) || 1 })).filter((s) => s.from < s.to),
    trace: null,
    cover: false,
  }
}

function partOfSnip(snip: Snip, from: number, to: number): Snip[] {
  const within = (u: number): number => (Math.min(to, Math.max(from, u)) - from) / (to - from)
  const part: Snip = { ...snip, from: within(snip.from), to: within(snip.to) }
  if (snip.from < from) delete part.fromBy
  if (snip.to > to) delete part.toBy
  return part.to > part.from ? [part] : []
}

/**
 * The first line, gone on with by the second: from the first one's end to the second one's start, by a straight segment
 * where they do not touch. Finish, ink and size are the first line's; every place is as wide as before.
 */
export function joinedLines(first: Line, second: Line): Line {
  const [a, b] = [first.path.nodes, second.path.nodes]
  const [end, start] = [a[a.length - 1]!, b[0]!]
  const gap = distance(end.at, start.at)
  const lengths = [arcOfPath(first.path).total, arcOfPath(second.path).total] as const
  const touching = gap < TOUCHING
  const nodes = touching ? [...a.slice(0, -1), metNode(end, start), ...b.slice(1)] : [...a, ...b]
  const scrapes = [...(first.scrapes ?? []), ...(second.scrapes ?? [])]
  const total = lengths[0] + (touching ? 0 : gap) + lengths[1] || 1
  const placed = (snips: readonly Snip[], offset: number, length: number): Snip[] =>
    snips.map((s) => ({ ...s, from: (offset + s.from * length) / total, to: (offset + s.to * length) / total }))
  return {
    ...first,
    path: { nodes, closed: false },
    weight: joinedWeight(first.weight, second.weight, lengths[0], touching ? 0 : gap, lengths[1]),
    finish: { ...first.finish, endCap: second.finish.endCap },
    snips: [...placed(first.snips, 0, lengths[0]), ...placed(second.snips, total - lengths[1], lengths[1])],
    trace: null,
    ...((first.contact || second.contact) && { contact: endsOf(first.contact?.first, second.contact?.last) }),
    ...((first.tuck || second.tuck) && { tuck: endsOf(first.tuck?.first, second.tuck?.last) }),
    ...((first.over || second.over) && { over: endsOf(first.over?.first, second.over?.last) }),
    ...(scrapes.length && { scrapes }),
  }
}

/** An open line closed: its two ends become one node where they touch, else a straight segment closes the gap. */
export function closedLine(line: Line): Line {
  const { nodes } = line.path
  if (line.path.closed || nodes.length < 2) return line
  const [first, last] = [nodes[0]!, nodes[nodes.length - 1]!]
  const touching = distance(first.at, last.at) < TOUCHING && nodes.length > 2
  const path: Path = {
    nodes: touching
      ? [metNode(last, first), ...nodes.slice(1, -1)]
      : nodes.map((n, i) => ({ ...n, ...(i === 0 && { in: null }), ...(i === nodes.length - 1 && { out: null }) })),
    closed: true,
  }
  const closed: Line = { ...line, weight: { ...line.weight, start: null, end: null }, trace: null }
  repath(closed, path, null)
  return closed
}

/** One node for two ends that meet: it arrives as the one and leaves as the other, smoothly where they run on alike. */
function metNode(arriving: PathNode, leaving: PathNode): PathNode {
  const at = lerp(arriving.at, leaving.at, 0.5)
  const [before, after] = [arriving.in, leaving.out]
  const smooth = before && after && Math.abs(turn(subtract(at, before), subtract(after, at))) < SMOOTH_ANGLE
  return { at, in: before, out: after, joint: smooth ? 'smooth' : 'corner' }
}
