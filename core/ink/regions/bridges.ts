import type { Line } from '../../model/model'
import type { Box } from '../../geometry/bounds'
import { boxOfPoints, grown, isWithin, overlap } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { arcOfPath } from '../../geometry/known'
import type { Vec } from '../../geometry/point'
import { along, distance, dot, scale, subtract } from '../../geometry/point'
import { windingAt } from '../../geometry/winding-at'
import { shownParts } from '../../relations/shown'
import { nearestTo, nearestWithin } from '../outlines/ink-distance'
import { isInOrder } from '../ends/ends'
import { indexOf } from '../stack/groups'
import type { Region } from '../outlines/outlines'
import type { Part } from '../stack/stack'
import { remembered } from '../../remembered'

/** An invisible closing of a gap between two pieces of ink. */
export interface Bridge {
  curve: Cubic
  /** Ids of the items that it joins; the same where a line is closed. */
  from: string
  to: string
  /** The paper between them, px. */
  gap: number
  /** The end of the line that it leaves. */
  end: 'first' | 'last'
}

/** An end of the shown part of a line: where it is, and which way the line would go on. */
interface Tip {
  line: Line
  end: 'first' | 'last'
  at: Vec
  outward: Vec
}

/** A bridge leaves an end within this angle of its direction: the cosine. */
const AHEAD = Math.cos((80 * Math.PI) / 180)
/** A bridge that bends costs as much as one that is so many times as long, at the widest angle. */
const BENT = 1.5
/** Ink of the own line is a part of the end up to so many of its sizes back. */
const OWN = 1.5

/** An end, how far round it ink matters to it, and what it comes to. */
interface Known {
  tip: Tip
  box: Box
  /** The ink within that box, in the order of the stack. */
  near: readonly Part[]
  bridge: Bridge | null
  isStale: boolean
}

/** From so many changed parts on all ends are looked at. */
const MANY = 64

/** Bridges over gaps of up to `reach` px, kept for as long as the ink about an end is the same. */
export class Bridges {
  private known = new Map<string, { part: Part; ends: Known[] }>()
  private order: readonly string[] = []
  private bridges: Bridge[] = []

  constructor(private readonly reach: number) {}

  /** The bridges among the parts of a stack, at most one an end. */
  of(parts: readonly Part[]): Bridge[] {
    if (!this.follow(parts)) return this.bridges
    const index = indexOf(parts)
    const found: Bridge[] = []
    for (const { part, ends } of this.known.values()) {
      for (const known of ends) {
        if (known.isStale) {
          const { minX, minY, maxX, maxY } = known.box
          known.near = index!
            .search(minX, minY, maxX, maxY)
            .sort((a, b) => a - b)
            .map((i) => parts[i]!)
          const bridge = this.bridgeFrom(known.tip, part, known.near)
          // What stays the same stays the same object.
          if (!known.bridge || !bridge || !isSameBridge(known.bridge, bridge)) known.bridge = bridge
          known.isStale = false
        }
        if (known.bridge) found.push(known.bridge)
      }
    }
    this.bridges = found.filter((b, i) => !found.some((o, k) => k < i && isTwin(o, b)))
    return this.bridges
  }

  /** Whether a place at a bridge lies on ink. */
  isOnInk(bridge: Bridge, p: Vec): boolean {
    const at = this.known.get(bridge.from)?.ends.find((k) => k.bridge === bridge)
    return !!at && at.near.some(({ region }) => isWithin(p, region.box) && windingAt(region.contours, p) !== 0)
  }

  /** Takes the parts as they are now; answers whether any end is to be looked at anew. */
  private follow(parts: readonly Part[]): boolean {
    const before = this.known
    this.known = new Map()
    const changed: Part[] = []
    for (const part of parts) {
      const { id } = part.item
      const was = before.get(id)
      before.delete(id)
      if (was?.part.item === part.item && was.part.region === part.region && was.part.seen === part.seen) {
        this.known.set(id, was)
        continue
      }
      changed.push(part)
      if (was) changed.push(was.part)
      this.known.set(id, { part, ends: this.endsOf(part, was?.ends) })
    }
    for (const { part } of before.values()) changed.push(part)
    // Of ink that is as near, the lower is taken: where the order changed, all is looked at.
    const order = parts.map((p) => p.item.id)
    const isFew = changed.length < MANY && isInOrder(this.order, order)
    this.order = order
    if (isFew && !changed.length) return false
    const boxes = changed.map((p) => p.region.box)
    for (const { ends } of this.known.values())
      for (const end of ends) end.isStale ||= !isFew || boxes.some((b) => overlap(b, end.box))
    return true
  }

  private endsOf({ item, seen }: Part, before: readonly Known[] = []): Known[] {
    if (!('path' in item)) return []
    const far = this.reach + item.weight.size
    return tipsOf(seen ?? item).map((tip, i) => ({
      tip,
      box: grown(boxOfPoints([tip.at]), far),
      near: [],
      bridge: before[i]?.bridge ?? null,
      isStale: true,
    }))
  }

  /** The bridge that closes the gap before an end best; null where it is held, or nothing is near. */
  private bridgeFrom(tip: Tip, own: Part, near: readonly Part[]): Bridge | null {
    const { line, at, outward } = tip
    const { size } = line.weight
    if (!isOnInk(own.region, at, size)) return null
    let best: { bridge: Bridge; cost: number } | null = null
    for (const other of near) {
      const isOwn = other.item.id === own.item.id
      if (!isOwn && windingAt(other.region.contours, at) !== 0) return null
      const landed = this.landing(tip, own.region, other, isOwn)
      if (!landed) continue
      if (landed.gap <= 0) {
        if (isOwn) continue
        return null
      }
      const way = subtract(landed.at, at)
      const far = Math.hypot(way.x, way.y)
      const ahead = far > 0 ? dot(way, outward) / far : 1
      if (landed.gap > this.reach || ahead < AHEAD) continue
      const cost = landed.gap * (1 + (BENT * Math.acos(Math.min(1, ahead))) / Math.acos(AHEAD))
      if (best && cost >= best.cost) continue
      best = {
        cost,
        bridge: { curve: curveTo(tip, landed, far), from: line.id, to: other.item.id, gap: landed.gap, end: tip.end },
      }
    }
    return best?.bridge ?? null
  }

  /** Where a bridge from an end comes down on other ink: at an end of that line where one is as near, else where it is nearest. */
  private landing(
    { line, at, outward }: Tip,
    own: Region,
    other: Part,
    isOwn: boolean,
  ): { at: Vec; gap: number; inward: Vec | null } | null {
    const most = this.reach + line.weight.size
    const ends = 'path' in other.item ? tipsOf(other.item).filter((t) => distance(t.at, at) > 1e-6) : []
    for (const end of ends) {
      if (
        distance(end.at, at) > most + end.line.weight.size ||
        dot(subtract(end.at, at), outward) <= 0 ||
        dot(subtract(at, end.at), end.outward) <= 0
      )
        continue
      const gap = gapBetween(own, at, line.weight.size, other.region, end.at, end.line.weight.size)
      if (gap <= this.reach) return { at: end.at, gap, inward: scale(end.outward, -1) }
    }
    if (isOwn) return null
    const hit = nearestWithin(other.region, at, most, (p) => dot(subtract(p, at), outward) >= AHEAD * distance(p, at))
    if (!hit) return null
    const gap = nearestTo(own, hit)?.distance ?? Infinity
    return { at: hit, gap: windingAt(own.contours, hit) !== 0 ? 0 : gap, inward: null }
  }
}

/** The paper between two ends, px. */
function gapBetween(a: Region, at: Vec, size: number, b: Region, end: Vec, otherSize: number): number {
  const way = subtract(end, at)
  const far = Math.hypot(way.x, way.y) || 1
  const d = scale(way, 1 / far)
  // Where each ink ends on the straight way from the one end to the other.
  const reachOf = (region: Region, from: Vec, along1: number, most: number): number => {
    let s = 0
    const step = most / 48
    if (windingAt(region.contours, along(from, d, along1 * 0.01)) === 0) return 0
    while (s < most && windingAt(region.contours, along(from, d, along1 * (s + step))) !== 0) s += step
    return s
  }
  return Math.max(0, far - reachOf(a, at, 1, OWN * size) - reachOf(b, end, -1, OWN * otherSize))
}

/** The way of a bridge: on from the end's direction, and into the other end's or straight onto the ink. */
function curveTo({ at, outward }: Tip, landed: { at: Vec; inward: Vec | null }, far: number): Cubic {
  const to = landed.inward
    ? landed.at
    : along(landed.at, scale(subtract(landed.at, at), 1 / (far || 1)), Math.min(0.25, far * 0.05))
  const arm = far / 3
  const p1 = along(at, outward, arm)
  const p2 = landed.inward ? along(landed.at, landed.inward, -arm) : { x: (p1.x + to.x) / 2, y: (p1.y + to.y) / 2 }
  return { p0: at, p1, p2, p3: to }
}

/** Whether an end is where the ink of its line is: not trimmed away, nor covered. */
const isOnInk = (region: Region, at: Vec, size: number): boolean =>
  windingAt(region.contours, at) !== 0 || (nearestTo(region, at)?.distance ?? Infinity) <= Math.max(0.15, 0.05 * size)

const isSameBridge = (a: Bridge, b: Bridge): boolean =>
  a.from === b.from &&
  a.to === b.to &&
  a.end === b.end &&
  a.gap === b.gap &&
  (['p0', 'p1', 'p2', 'p3'] as const).every((k) => a.curve[k].x === b.curve[k].x && a.curve[k].y === b.curve[k].y)

const isTwin = (a: Bridge, b: Bridge): boolean =>
  distance(a.curve.p0, b.curve.p3) < 1e-6 && distance(a.curve.p3, b.curve.p0) < 1e-6

/** The ends of all shown parts of a line, those that snips leave as well. */
const tipsOf = remembered((line: Line): Tip[] =>
  shownParts(line).flatMap(({ path }): Tip[] => {
    if (path.closed) return []
    const arc = arcOfPath(path)
    const [first, last] = [arc.tangent(0), arc.tangent(arc.total)]
    return first && last
      ? [
          { line, end: 'first', at: arc.point(0), outward: scale(first, -1) },
          { line, end: 'last', at: arc.point(arc.total), outward: last },
        ]
      : []
  }),
)
