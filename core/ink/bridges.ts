import Flatbush from 'flatbush'
import type { Line } from '../drawing/model'
import type { Cubic } from '../geometry/cubic'
import { arcOfPath } from '../geometry/known'
import type { Vec } from '../geometry/point'
import { along, distance, dot, scale, subtract } from '../geometry/point'
import { windingAt } from '../geometry/winding-at'
import { shownParts } from '../weight/shown'
import { nearestTo, nearestWithin } from './ink-distance'
import type { Region } from './outlines'
import type { Part } from './stack'

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

/** Bridges over gaps of up to `reach` px, kept for as long as the ink about an end is the same. */
export class Bridges {
  private readonly known = new Map<string, { region: Region; near: readonly Region[]; bridge: Bridge | null }>()

  constructor(private readonly reach: number) {}

  /** The bridges among the parts of a stack, at most one an end. */
  of(parts: readonly Part[]): Bridge[] {
    if (!parts.length) return []
    const index = new Flatbush(parts.length)
    for (const { region } of parts) index.add(region.box.minX, region.box.minY, region.box.maxX, region.box.maxY)
    index.finish()
    const found: Bridge[] = []
    const keys = new Set<string>()
    for (const part of parts) {
      if (!('path' in part.item)) continue
      const line = part.item
      const far = this.reach + line.weight.size
      tipsOf(line).forEach((tip, k) => {
        const key = `${line.id} ${k}`
        keys.add(key)
        const near = index
          .search(tip.at.x - far, tip.at.y - far, tip.at.x + far, tip.at.y + far)
          .sort((a, b) => a - b)
          .map((i) => parts[i]!)
        const was = this.known.get(key)
        const isSame = was?.region === part.region && was.near.length === near.length && was.near.every((r, i) => r === near[i]!.region)
        const bridge = isSame ? was.bridge : this.bridgeFrom(tip, part, near)
        if (!isSame) this.known.set(key, { region: part.region, near: near.map((n) => n.region), bridge })
        if (bridge) found.push(bridge)
      })
    }
    for (const key of this.known.keys()) if (!keys.has(key)) this.known.delete(key)
    return found.filter((b, i) => !found.some((o, k) => k < i && isTwin(o, b)))
  }

  /** The bridge that closes the gap before an end best; null where it is held, or nothing is near. */
  private bridgeFrom(tip: Tip, own: Part, near: readonly Part[]): Bridge | null {
    const { line, at, outward } = tip
    const { size } = line.weight
    if (!isOnInk(own.region, at, size)) return null
    let best: { bridge: Bridge; cost: number } | null = null
    for (const other of near) {
      const isOwn = other === own
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
      best = { cost, bridge: { curve: curveTo(tip, landed, far), from: line.id, to: other.item.id, gap: landed.gap, end: tip.end } }
    }
    return best?.bridge ?? null
  }

  /** Where a bridge from an end comes down on other ink: at an end of that line where one is as near, else where it is nearest. */
  private landing({ line, at, outward }: Tip, own: Region, other: Part, isOwn: boolean): { at: Vec; gap: number; inward: Vec | null } | null {
    const most = this.reach + line.weight.size
    const ends = 'path' in other.item ? tipsOf(other.item).filter((t) => distance(t.at, at) > 1e-6) : []
    for (const end of ends) {
      if (distance(end.at, at) > most + end.line.weight.size || dot(subtract(end.at, at), outward) <= 0 || dot(subtract(at, end.at), end.outward) <= 0) continue
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
  const to = landed.inward ? landed.at : along(landed.at, scale(subtract(landed.at, at), 1 / (far || 1)), Math.min(0.25, far * 0.05))
  const arm = far / 3
  const p1 = along(at, outward, arm)
  const p2 = landed.inward ? along(landed.at, landed.inward, -arm) : { x: (p1.x + to.x) / 2, y: (p1.y + to.y) / 2 }
  return { p0: at, p1, p2, p3: to }
}

/** Whether an end is where the ink of its line is: not trimmed away, nor covered. */
const isOnInk = (region: Region, at: Vec, size: number): boolean => windingAt(region.contours, at) !== 0 || (nearestTo(region, at)?.distance ?? Infinity) <= Math.max(0.15, 0.05 * size)

const isTwin = (a: Bridge, b: Bridge): boolean => distance(a.curve.p0, b.curve.p3) < 1e-6 && distance(a.curve.p3, b.curve.p0) < 1e-6

const tips = new WeakMap<Line, Tip[]>()

/** The ends of all shown parts of a line, those that snips leave as well. */
function tipsOf(line: Line): Tip[] {
  let all = tips.get(line)
  if (all) return all
  all = shownParts(line).flatMap(({ path }): Tip[] => {
    if (path.closed) return []
    const arc = arcOfPath(path)
    const [first, last] = [arc.tangent(0), arc.tangent(arc.total)]
    return first && last ? [{ line, end: 'first', at: arc.point(0), outward: scale(first, -1) }, { line, end: 'last', at: arc.point(arc.total), outward: last }] : []
  })
  tips.set(line, all)
  return all
}
