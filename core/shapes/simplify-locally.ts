import Flatbush from 'flatbush'
import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { boxOfCubics, grown } from '../geometry/bounds'
import { crossingsOf, selfCrossings } from '../geometry/crossings'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { asCircle } from './as-circle'
import { deviationBetween } from './deviation'
import { chainsOf, redrawChain } from './redraw'
import { CORNER_ANGLE, SHARES } from './simplify'

/** A crossing so near to where two chains meet is where they meet, as a share of the tolerance. */
const MEETING = 1 / 64

/** A chain of a contour from corner to corner, or all of a contour that has none; and the same drawn with fewer cubics. */
interface Chain {
  before: readonly Cubic[]
  after: readonly Cubic[]
  /** px */
  deviation: number
  /** Of both. */
  box: Box
}

/** What one contour has come to. */
interface Simplified {
  /** The chains that could be taken as they were drawn anew; the others stay as they were. */
  taken: readonly boolean[]
  contour: Cubic[]
  deviation: number
}

export interface LocallySimplified {
  contours: Cubic[][]
  /** Largest distance between before and after, measured both ways along each chain, px. */
  deviation: number
  nodesBefore: number
  nodesAfter: number
}

/**
 * Simplifies the contours of a region chain by chain. A chain drawn anew is taken unless it crosses another, as that was or
 * as that is drawn anew: so any mix of taken and untaken chains is free of crossings, and each depends on nothing but
 * itself and what lies near it. What did not change since the last call is not looked at again and stays the same object.
 */
export class LocalSimplifier {
  private readonly chains = new WeakMap<readonly Cubic[], readonly Chain[]>()
  private readonly byFirst = new WeakMap<Cubic, Chain[]>()
  private readonly verdicts = new WeakMap<Chain, { near: readonly Chain[]; taken: boolean }>()
  private readonly simplified = new WeakMap<readonly Cubic[], Simplified>()

  /** @param tolerance px, above 0 */
  constructor(private readonly tolerance: number) {}

  /** Contours that neither cross themselves nor each other, with fewer nodes. */
  of(contours: readonly (readonly Cubic[])[]): LocallySimplified {
    const chains = contours.map((c) => this.chainsIn(c))
    const near = nearOf(chains.flat(), 2 * this.tolerance)
    const done = contours.map((contour, i) => this.joined(contour, chains[i]!, chains[i]!.map((c) => this.isTaken(c, near))))
    return {
      contours: done.map((d) => d.contour),
      deviation: done.reduce((m, d) => Math.max(m, d.deviation), 0),
      nodesBefore: contours.reduce((n, c) => n + c.length, 0),
      nodesAfter: done.reduce((n, d) => n + d.contour.length, 0),
    }
  }

  private chainsIn(contour: readonly Cubic[]): readonly Chain[] {
    let chains = this.chains.get(contour)
    if (chains) return chains
    const parts = chainsOf(contour, SHARES[0]! * this.tolerance, CORNER_ANGLE)
    // A contour without corners is drawn as a whole, so that it may become a circle.
    chains = parts.length > 1 && parts[0]![0] !== contour[0] ? parts.map((p) => this.chainOf(p, false)) : this.chainsFrom(contour, parts)
    this.chains.set(contour, chains)
    return chains
  }

  private chainsFrom(contour: readonly Cubic[], parts: Cubic[][]): readonly Chain[] {
    const circle = asCircle(contour, SHARES[0]! * this.tolerance)
    if (!circle || circle.length >= contour.length) return parts.map((p) => this.chainOf(p, false))
    const deviation = deviationBetween(contour, circle, this.tolerance)
    if (deviation > this.tolerance) return parts.map((p) => this.chainOf(p, false))
    return [{ before: contour, after: circle, deviation, box: boxOfCubics([...contour, ...circle]) }]
  }

  private chainOf(before: Cubic[], closed: boolean): Chain {
    const first = before[0]!
    let known = this.byFirst.get(first)
    if (!known) this.byFirst.set(first, (known = []))
    const same = known.find((k) => isSameList(k.before, before))
    if (same) return same
    const chain = this.drawn(before, closed)
    known.push(chain)
    return chain
  }

  private drawn(before: Cubic[], closed: boolean): Chain {
    const { tolerance } = this
    for (const share of before.length > 1 ? SHARES : []) {
      const after = redrawChain(before, share * tolerance)
      if (after.length >= before.length) break
      const deviation = deviationBetween(before, after, tolerance)
      if (deviation > tolerance || selfCrossings(after, closed).length) continue
      return { before, after, deviation, box: boxOfCubics([...before, ...after]) }
    }
    return { before, after: before, deviation: 0, box: boxOfCubics(before) }
  }

  private isTaken(chain: Chain, nearOf: (c: Chain) => readonly Chain[]): boolean {
    if (chain.after === chain.before) return false
    const near = nearOf(chain)
    const known = this.verdicts.get(chain)
    if (known && isSameList(known.near, near)) return known.taken
    const taken = !near.some((other) => this.cross(chain.after, other.before) || (other.after !== other.before && this.cross(chain.after, other.after)))
    this.verdicts.set(chain, { near, taken })
    return taken
  }

  /** Whether chains cross other than where they meet. */
  private cross(a: readonly Cubic[], b: readonly Cubic[]): boolean {
    const meeting = endsOf(a).filter((p) => endsOf(b).some((q) => p.x === q.x && p.y === q.y))
    return crossingsOf(a, b).some((hit) => !meeting.some((p) => distance(p, hit.at) < MEETING * this.tolerance))
  }

  private joined(contour: readonly Cubic[], chains: readonly Chain[], wanted: readonly boolean[]): Simplified {
    const known = this.simplified.get(contour)
    if (known && isSameList(known.taken, wanted)) return known
    const drawn = wanted.some(Boolean) ? chains.flatMap((c, i) => (wanted[i] ? c.after : c.before)) : (contour as Cubic[])
    const holds = drawn === contour || (drawn.length > 1 && areaOfCubics(contour) * areaOfCubics(drawn) > 0)
    const deviation = holds ? chains.reduce((m, c, i) => (wanted[i] ? Math.max(m, c.deviation) : m), 0) : 0
    const simplified = { taken: wanted, contour: holds ? drawn : (contour as Cubic[]), deviation }
    this.simplified.set(contour, simplified)
    return simplified
  }
}

/** Which chains lie within `reach` px of a chain, other than itself, in the order of where they begin. */
function nearOf(chains: readonly Chain[], reach: number): (c: Chain) => readonly Chain[] {
  if (!chains.length) return () => []
  const index = new Flatbush(chains.length)
  for (const { box } of chains) index.add(box.minX, box.minY, box.maxX, box.maxY)
  index.finish()
  return (chain) => {
    const { minX, minY, maxX, maxY } = grown(chain.box, reach)
    return index
      .search(minX, minY, maxX, maxY)
      .map((i) => chains[i]!)
      .filter((c) => c !== chain)
      .sort((a, b) => a.before[0]!.p0.x - b.before[0]!.p0.x || a.before[0]!.p0.y - b.before[0]!.p0.y || a.before.length - b.before.length)
  }
}

const endsOf = (c: readonly Cubic[]): Vec[] => [c[0]!.p0, c[c.length - 1]!.p3]
const isSameList = <T>(a: readonly T[], b: readonly T[]): boolean => a.length === b.length && a.every((x, i) => x === b[i])
