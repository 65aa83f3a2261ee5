import Flatbush from 'flatbush'
import type { End } from '../geometry/ends'
import type { Line } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { ArcLength } from '../geometry/arc-length'
import type { Box } from '../geometry/bounds'
import { boxOfPoints, grown, isWithin, overlap } from '../geometry/bounds'
import { crossingsOf } from '../geometry/crossings'
import { arcOfPath, segmentBoxesOf } from '../geometry/known'
import { cubicsBetween } from '../geometry/part-of-path'
import { direction, distance, dot, subtract } from '../geometry/point'
import { atOnce } from '../turns'
import { bodyAt } from './body'
import type { ShownPart } from './shown'
import { isShownAt, shownParts, tipsOf } from './shown'

/** How an end lies to the other lines: in the open, on one, or past one that it cuts. */
type ContactKind = 'free' | 'meeting' | 'crossing'

/** A place on a line, as a share 0..1 of its length. */
export interface LinePlace {
  line: string
  at: number
}

/** A place on a line that an end touches; whether that line ends there too. */
interface TouchedPlace extends LinePlace {
  ends: boolean
}

/** What one end of an open line is found to do. */
export interface EndContact {
  line: string
  end: End
  at: Vec
  /** Where on the line the end is, a share 0..1: 0 or 1, or where a snip cuts it off. */
  place: number
  /** Unit vector in which the line would go on. */
  outward: Vec
  kind: ContactKind
  /** What it meets or crosses. */
  under: LinePlace | null
  /** All that it touches, the nearest first: several lines may come to one place, some of them with an end of theirs. */
  touched: TouchedPlace[]
  /** Two lines run out to one point here: each meets the other, yet both taper. */
  point: boolean
}

export interface ContactOptions {
  /** An end that is no farther than this from another line's ink meets it, px. */
  reach: number
  /** An end that goes past a line by no more than this crosses it, px. */
  overshoot: number
  /** Px of the page for each px of the usual page, 1 when absent: what the rules of thumb here are measured in. */
  perPx?: number
}

/** Ends that all come to one place within this angle run out to a point there: its cosine. */
const POINTED = Math.cos((75 * Math.PI) / 180)
/** How far back the way of an end is looked at for that, px of the usual page: the last bend of a tip hides where its edges come from. */
const LOOK_BACK = 16
/** Of fewer ends than those of so many lines, only what lies about them is looked at. */
const FEW = 512
/** A line's own body is near its end along the way: it is met again only from this many of its sizes on. */
const OWN_BODY = 3

/** How far a line's body reaches to its wider side at a place, px. */
function bodyHalf(line: Line, at: number): number {
  const { left, right } = bodyAt(line, at)
  return (line.weight.size / 2) * Math.max(left, right)
}

/**
 * What each end of `lines` does, in the order of the lines: first end, then last; with `only`, of the lines named. Closed
 * lines have no ends. Which ends meet is told from paths, sizes and bodies, never from how wide an end is, so that a weight
 * set by what is found here finds the same again.
 */
export const contactsOf = (lines: readonly Line[], options: ContactOptions, only?: ReadonlySet<string>): EndContact[] =>
  atOnce(findContacts(lines, options, only))

/** As `contactsOf`, telling the share 0..1 that is done after each line. */
export function* findContacts(
  lines: readonly Line[],
  options: ContactOptions,
  only?: ReadonlySet<string>,
): Generator<number, EndContact[]> {
  const asked = only ? lines.filter((l) => only.has(l.id)) : lines
  const near = nearLines(lines, options, asked.length < FEW ? asked : undefined)
  const found: EndContact[] = []
  for (const [i, line] of lines.entries()) {
    if ((only && !only.has(line.id)) || line.path.closed || !arcOfPath(line.path).total || !shownParts(line).length)
      continue
    found.push(contactOf(line, 'first', near, options), contactOf(line, 'last', near, options))
    yield i / lines.length
  }
  return found
}

/** A part of a line that carries ink, and those of its segments that come near a place. */
interface Near {
  part: ShownPart
  segments: number[]
}

/** Answers which segments of which lines may come near enough to a point to be met or crossed there; with `asked`, to an end of these. */
function nearLines(
  lines: readonly Line[],
  { reach, overshoot }: ContactOptions,
  asked?: readonly Line[],
): (p: Vec) => Near[] {
  const shown = lines.flatMap(shownParts)
  const tips = asked?.flatMap(tipsOf)
  const about = tips?.length ? boxOfPoints(tips) : null
  const parts = shown.flatMap(({ line, path }, l) => {
    const pad = Math.max(
      reach + line.weight.size * Math.max(...line.weight.stops.map((s) => Math.max(s.left, s.right))),
      overshoot,
    )
    const isAsked = (box: Box): boolean =>
      !tips || (!!about && overlap(box, about) && tips.some((p) => isWithin(p, box)))
    return segmentBoxesOf(path).flatMap((b, segment) => {
      const box = grown(b, pad)
      return isAsked(box) ? [{ l, segment, box }] : []
    })
  })
  if (!parts.length) return () => []
  const index = new Flatbush(parts.length)
  for (const { box } of parts) index.add(box.minX, box.minY, box.maxX, box.maxY)
  index.finish()
  return (p) => {
    const near = new Map<number, number[]>()
    for (const i of index.search(p.x, p.y, p.x, p.y)) {
      const { l, segment } = parts[i]!
      near.set(l, [...(near.get(l) ?? []), segment])
    }
    return [...near]
      .sort(([a], [b]) => a - b)
      .map(([l, segments]) => ({ part: shown[l]!, segments: segments.sort((a, b) => a - b) }))
  }
}

function contactOf(line: Line, end: End, near: (p: Vec) => Near[], options: ContactOptions): EndContact {
  const part = end === 'first' ? shownParts(line)[0]! : shownParts(line).at(-1)!
  const arc = arcOfPath(part.path)
  const tip = end === 'first' ? 0 : arc.total
  const at = arc.point(tip)
  const tangent = arc.tangent(tip) ?? { x: 1, y: 0 }
  const outward = end === 'first' ? { x: -tangent.x, y: -tangent.y } : tangent
  const found = { line: line.id, end, at, outward, place: end === 'first' ? part.from : part.to }
  const others = near(at)
  const touched = others.flatMap((o) => touchOf(line, end, o, at, options)).sort((a, b) => a.off - b.off)
  if (touched.length) {
    const body = touched.find((t) => !t.way)
    const ways = [wayOut(part.path, end, options), ...touched.flatMap((t) => t.way ?? [])]
    return {
      ...found,
      kind: 'meeting',
      under: (body ?? touched[0]!).place,
      touched: touched.map((t) => ({ ...t.place, ends: !!t.way })),
      point: !body && runTogether(ways),
    }
  }
  const crossed = crossingNear(part, end, others, options.overshoot)
  return { ...found, kind: crossed ? 'crossing' : 'free', under: crossed, touched: [], point: false }
}

interface Touch {
  place: LinePlace
  /** From the other's path, px. */
  off: number
  /** The other line ends here too, and comes this way. */
  way: Vec | null
}

/** Where an end touches the body or an end of another line, or its own body farther along. */
function touchOf(line: Line, end: End, { part: other, segments }: Near, at: Vec, options: ContactOptions): Touch[] {
  const { reach } = options
  const arc = arcOfPath(other.path)
  if (!arc.total) return []
  if (other.line === line) return ownTouch(line, end, at, options)
  const hit = arc.nearest(at, segments)
  const share = shareOn(other, hit.length / arc.total)
  if (hit.distance > reach + bodyHalf(other.line, share)) return []
  const theirs = endNear(other, at, options)
  return [
    {
      place: { line: other.line.id, at: share },
      off: hit.distance,
      way: theirs && wayOut(other.path, theirs, options),
    },
  ]
}

/** A share of a part as a share of its whole line. */
const shareOn = ({ from, to }: ShownPart, share: number): number => from + (to - from) * share

/** Which end of another line lies at a point, if any. */
function endNear({ line, path, from, to }: ShownPart, at: Vec, { reach, perPx = 1 }: ContactOptions): End | null {
  const arc = arcOfPath(path)
  const close = Math.max(reach, perPx)
  // At its first node a closed line goes on.
  if ((!line.path.closed || from > 0) && distance(arc.point(0), at) <= close) return 'first'
  return (!line.path.closed || to < 1) && distance(arc.point(arc.total), at) <= close ? 'last' : null
}

/** The direction in which a line comes to its end, over its last stretch. */
function wayOut(path: Path, end: End, { perPx = 1 }: ContactOptions): Vec {
  const arc = arcOfPath(path)
  const back = Math.min(LOOK_BACK * perPx, arc.total / 2)
  const [tip, from] =
    end === 'first' ? [arc.point(0), arc.point(back)] : [arc.point(arc.total), arc.point(arc.total - back)]
  return direction(subtract(tip, from)) ?? { x: 1, y: 0 }
}

/** Whether ends that come to one place all come from one side of it. */
const runTogether = (ways: readonly Vec[]): boolean =>
  ways.every((a, i) => ways.every((b, k) => k <= i || dot(a, b) > POINTED))

/** A line that comes back to its own body, as the end of a coil may. */
function ownTouch(line: Line, end: End, at: Vec, { reach, perPx = 1 }: ContactOptions): Touch[] {
  const arc = arcOfPath(line.path)
  const skip = OWN_BODY * line.weight.size + reach
  const from = end === 'first' ? skip : 0
  const to = end === 'first' ? arc.total : arc.total - skip
  const step = Math.max(perPx, line.weight.size / 4)
  let best: Touch | null = null
  const isNear = nearStretches(line, at, reach)
  for (let s = from; s <= to; s += step) {
    if (!isNear(s)) continue
    const off = distance(arc.point(s), at)
    const share = s / arc.total
    if (!isShownAt(line, share)) continue
    if (off <= reach + bodyHalf(line, share) && (!best || off < best.off))
      best = { place: { line: line.id, at: share }, off, way: null }
  }
  // The part just beyond what was skipped is near along the way, not come back to.
  return best && Math.abs(best.place.at * arc.total - (end === 'first' ? from : to)) > step ? [best] : []
}

/** Tells of a place along a line, px, whether its segment comes near enough to a point to touch it there. */
function nearStretches({ path, weight }: Line, { x, y }: Vec, reach: number): (s: number) => boolean {
  const arc = arcOfPath(path)
  const pad = reach + (weight.size / 2) * Math.max(...weight.stops.map((w) => Math.max(w.left, w.right)))
  const near = segmentBoxesOf(path).flatMap((b, i): [number, number][] =>
    isWithin({ x, y }, grown(b, pad)) ? [[arc.at(i, 0), arc.at(i, 1)]] : [],
  )
  return (s) => near.some(([a, b]) => s >= a && s <= b)
}

/** The line that is cut nearest before an end, no farther back than `overshoot` px. */
function crossingNear(
  { line, path }: ShownPart,
  end: End,
  others: readonly Near[],
  overshoot: number,
): LinePlace | null {
  const { total } = arcOfPath(path)
  const [from, to] = end === 'first' ? [0, Math.min(total, overshoot)] : [Math.max(0, total - overshoot), total]
  const last = cubicsBetween(path, from, to)
  if (!last.length) return null
  const stretch = new ArcLength(last)
  let best: { place: LinePlace; back: number } | null = null
  for (const { part: other, segments } of others) {
    if (other.line === line) continue
    const theirs = arcOfPath(other.path)
    for (const c of crossingsOf(
      last,
      segments.map((s) => theirs.cubics[s]!),
    )) {
      const s = stretch.at(c.a.segment, c.a.t)
      const back = end === 'first' ? s : stretch.total - s
      if (best && back >= best.back) continue
      best = {
        place: { line: other.line.id, at: shareOn(other, theirs.at(segments[c.b.segment]!, c.b.t) / theirs.total) },
        back,
      }
    }
  }
  return best?.place ?? null
}
