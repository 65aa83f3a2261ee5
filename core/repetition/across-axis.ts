import type { PathNode } from '../geometry/path'
import { mapNode, mapPath } from '../geometry/path'
import { mapped } from '../geometry/matrix'
import type { Vec } from '../geometry/point'
import { add, distance, dot, lerp, scale, subtract } from '../geometry/point'
import type { Line, Snip, Taper, Weight, WidthStop } from '../model/model'
import type { Image } from './images'

/** A line that comes to an axis within 45 degrees of straight across goes on smoothly: the cosine. */
const NEARLY = Math.SQRT1_2

/** A line that is joined with its image across an axis. */
export interface Joined {
  line: Line
  /** Where a place of the line that was drawn is on the joined one, and where that of its image is; shares 0..1. */
  own: (at: number) => number
  other: (at: number) => number
  /** Which end of the line that was drawn is an end still, and that of the image; null where none is. */
  end: { of: 'first' | 'last'; own: 'first' | 'last'; other: 'first' | 'last' } | null
}

const known = new WeakMap<Line, { image: Image; doesOtherwise: boolean; reach: number; joined: Joined | null }>()

/**
 * A line joined with its image, where it ends on the axis at one end or at both; null where it does not, or cannot: a nib that
 * slants would have to slant both ways.
 *
 * @param doesOtherwise a joint that would be smooth is a corner, and the other way round
 * @param reach so near to the axis an end lies on it, px
 */
export function acrossAxis(line: Line, image: Image, doesOtherwise: boolean, reach: number): Joined | null {
  const was = known.get(line)
  if (was?.doesOtherwise === doesOtherwise && was.reach === reach && was.image.by.every((v, i) => v === image.by[i]))
    return was.joined
  const joined = joinedAcross(line, image, doesOtherwise, reach)
  known.set(line, { image, doesOtherwise, reach, joined })
  return joined
}

function joinedAcross(line: Line, image: Image, doesOtherwise: boolean, reach: number): Joined | null {
  const { nodes, closed } = line.path
  if (closed || nodes.length < 2 || slants(line, image)) return null
  const over = (p: Vec): Vec => mapped(image.by, p)
  const isOn = ({ at }: PathNode): boolean => distance(at, over(at)) <= 2 * reach
  const [begins, ends] = [isOn(nodes[0]!), isOn(nodes.at(-1)!)]
  if (!begins && !ends) return null
  const own = nodes.map((n, i) =>
    (i === 0 && begins) || (i === nodes.length - 1 && ends) ? across(n, over, i === 0, doesOtherwise) : n,
  )
  const back = own.map((n) => turnedNode(mapNode(n, over))).reverse()
  if (begins && ends) {
    const path = { nodes: [...own, ...back.slice(1, -1)], closed: true }
    return made(
      line,
      image,
      path.nodes,
      true,
      (u) => u / 2,
      (u) => 1 - u / 2,
      null,
    )
  }
  // The image comes after the line, or before it.
  return ends
    ? made(
        line,
        image,
        [...own, ...back.slice(1)],
        false,
        (u) => u / 2,
        (u) => 1 - u / 2,
        {
          of: 'first',
          own: 'first',
          other: 'last',
        },
      )
    : made(
        line,
        image,
        [...back.slice(0, -1), ...own],
        false,
        (u) => 0.5 + u / 2,
        (u) => 0.5 - u / 2,
        {
          of: 'last',
          own: 'last',
          other: 'first',
        },
      )
}

/** A nib that the mirror turns cannot shape both halves of one line. */
function slants({ weight: { nib } }: Line, { turned }: Image): boolean {
  if (!nib || nib.width === nib.height) return false
  const angle = (nib.angle * Math.PI) / 180
  return Math.abs(Math.sin(turned(angle) - angle)) > 1e-6
}

const turnedNode = (n: PathNode): PathNode => ({ ...n, in: n.out, out: n.in })

/** An end, put onto the axis; smooth, its handle stands straight across it. */
function across(n: PathNode, over: (p: Vec) => Vec, isFirst: boolean, doesOtherwise: boolean): PathNode {
  const at = lerp(n.at, over(n.at), 0.5)
  const handle = isFirst ? n.out : n.in
  const moved = handle && add(handle, subtract(at, n.at))
  if (!moved) return { ...n, at, in: null, out: null, joint: 'corner' }
  // What of the handle leads away from the axis.
  const off = scale(subtract(moved, over(moved)), 0.5)
  const length = Math.hypot(off.x, off.y)
  const far = Math.hypot(moved.x - at.x, moved.y - at.y)
  const isSmooth = length > NEARLY * far !== doesOtherwise && length > 0
  const own = isSmooth ? add(at, scale(off, far / length)) : moved
  const other = over(own)
  return {
    at,
    in: isFirst ? other : own,
    out: isFirst ? own : other,
    joint: isSmooth || isStraightOn(at, own, other) ? 'smooth' : 'corner',
  }
}

const isStraightOn = (at: Vec, a: Vec, b: Vec): boolean => {
  const [u, v] = [subtract(a, at), subtract(b, at)]
  return dot(u, v) < -0.9999 * Math.hypot(u.x, u.y) * Math.hypot(v.x, v.y)
}

function made(
  line: Line,
  image: Image,
  nodes: PathNode[],
  closed: boolean,
  own: (at: number) => number,
  other: (at: number) => number,
  end: Joined['end'],
): Joined {
  const { weight, finish } = line
  const stops = (all: readonly WidthStop[]): WidthStop[] =>
    all
      .flatMap((s) => [
        { ...s, at: own(s.at) },
        { ...s, at: other(s.at) },
      ])
      .sort((a, b) => a.at - b.at)
      .filter((s, i, list) => (i === 0 || s.at > list[i - 1]!.at) && !(closed && s.at === 1))
  const taper = end && (end.of === 'first' ? weight.start : weight.end)
  const cap = end?.of === 'last' ? finish.endCap : finish.startCap
  const both: Weight = {
    ...weight,
    stops: stops(weight.stops),
    start: halved(taper),
    end: halved(taper),
    ...(weight.unlit && { unlit: stops(weight.unlit) }),
  }
  const snips = line.snips.flatMap((s): Snip[] => [spanned(s, own), spanned(s, other)])
  return {
    line: {
      ...line,
      path: { nodes, closed },
      weight: both,
      finish: { ...finish, startCap: cap, endCap: cap },
      trace: null,
      snips,
      ...(line.scrapes && {
        scrapes: [...line.scrapes, ...line.scrapes.map((c) => mapPath(c, (p) => mapped(image.by, p)))],
      }),
      ...twice('tuck', line.tuck, end),
      ...twice('contact', line.contact, end),
      ...twice('over', line.over, end),
    },
    own,
    other,
    end,
  }
}

/** A taper told in shares of the line is half as long a share of both. */
const halved = (taper: Taper | null): Taper | null =>
  taper?.unit === '%' ? { ...taper, length: taper.length / 2 } : taper

const spanned = (s: Snip, by: (at: number) => number): Snip => {
  const [a, b] = [by(s.from), by(s.to)]
  return { from: Math.min(a, b), to: Math.max(a, b), ...(s.idle && { idle: true }) }
}

/** What was decided of the end that is one still holds at both. */
function twice<K extends string, V>(
  field: K,
  decided: Partial<Record<'first' | 'last', V>> | undefined,
  end: Joined['end'],
): Partial<Record<K, Partial<Record<'first' | 'last', V>>>> {
  if (!decided) return {}
  const one = end ? decided[end.of] : undefined
  const made: Partial<Record<'first' | 'last', V>> = one === undefined ? {} : { first: one, last: one }
  return { [field]: made } as Partial<Record<K, typeof made>>
}
