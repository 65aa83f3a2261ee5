import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { BoxIndex } from '../geometry/box-index'
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

/** A contour of the region, its chains, and what it has come to. */
interface Entry {
  chains: readonly Chain[]
  /** The contour with the chains that are taken drawn anew. */
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
 * Simplifies the contours of one region chain by chain. A chain drawn anew is taken unless it crosses another, as that was
 * or as that is drawn anew: so any mix of taken and untaken chains is free of crossings, and each depends on nothing but
 * itself and what lies near it. From call to call only what changed is looked at, with the chains near it; all else stays
 * the same object, and the result is the same as from scratch.
 */
export class LocalSimplifier {
  private readonly known = new WeakMap<readonly Cubic[], readonly Chain[]>()
  private readonly byFirst = new WeakMap<Cubic, Chain[]>()
  private entries = new Map<readonly Cubic[], Entry>()
  /** The chains of the region, and the contour to which each belongs. */
  private readonly live = new Map<Chain, readonly Cubic[]>()
  private readonly taken = new Set<Chain>()
  private readonly index = new BoxIndex<Chain>()

  /** @param tolerance px, above 0 */
  constructor(private readonly tolerance: number) {}

  /** Contours that neither cross themselves nor each other, with fewer nodes. */
  of(contours: readonly (readonly Cubic[])[]): LocallySimplified {
    const changed = this.exchange(contours)
    const anew = new Set<readonly Cubic[]>()
    for (const chain of changed) if (this.judge(chain)) anew.add(this.live.get(chain)!)
    for (const contour of contours) {
      const entry = this.entries.get(contour)!
      if (!entry.contour.length || anew.has(contour)) this.entries.set(contour, this.joined(contour, entry.chains))
    }
    const result: LocallySimplified = { contours: [], deviation: 0, nodesBefore: 0, nodesAfter: 0 }
    for (const contour of contours) {
      const entry = this.entries.get(contour)!
      result.contours.push(entry.contour)
      result.deviation = Math.max(result.deviation, entry.deviation)
      result.nodesBefore += contour.length
      result.nodesAfter += entry.contour.length
    }
    return result
  }

  /** Takes contours in and out of the region; answers the chains that are new, and those near what is new or gone. */
  private exchange(contours: readonly (readonly Cubic[])[]): Set<Chain> {
    const before = this.entries
    this.entries = new Map()
    const gone = new Set<Chain>()
    const fresh: Chain[] = []
    const added: (readonly Cubic[])[] = []
    for (const contour of contours) {
      const entry = before.get(contour)
      if (entry) this.entries.set(contour, entry)
      else added.push(contour)
      before.delete(contour)
    }
    for (const { chains } of before.values()) for (const chain of chains) gone.add(chain)
    for (const contour of added) {
      const chains = this.chainsIn(contour)
      this.entries.set(contour, { chains, contour: [], deviation: 0 })
      for (const chain of chains) {
        // Most chains of a contour that was made anew are those of before.
        if (!gone.delete(chain)) fresh.push(chain)
        this.live.set(chain, contour)
      }
    }
    for (const chain of gone) {
      this.live.delete(chain)
      this.taken.delete(chain)
      this.index.remove(chain)
    }
    for (const chain of fresh) this.index.add(chain)
    const changed = new Set(fresh)
    for (const list of [fresh, gone]) for (const chain of list) for (const near of this.near(chain)) changed.add(near)
    return changed
  }

  private near(chain: Chain): Chain[] {
    return this.index.search(grown(chain.box, 2 * this.tolerance)).filter((c) => c !== chain)
  }

  /** Decides on a chain; answers whether it was decided otherwise before. */
  private judge(chain: Chain): boolean {
    if (chain.after === chain.before) return false
    const crosses = (other: Chain): boolean => this.cross(chain.after, other.before) || (other.after !== other.before && this.cross(chain.after, other.after))
    const take = !this.near(chain).some(crosses)
    if (take === this.taken.has(chain)) return false
    if (take) this.taken.add(chain)
    else this.taken.delete(chain)
    return true
  }

  private chainsIn(contour: readonly Cubic[]): readonly Chain[] {
    let chains = this.known.get(contour)
    if (chains) return chains
    const parts = chainsOf(contour, SHARES[0]! * this.tolerance, CORNER_ANGLE)
    // A contour without corners is drawn as a whole, so that it may become a circle.
    chains = parts.length > 1 && parts[0]![0] !== contour[0] ? parts.map((p) => this.chainOf(p)) : this.chainsFrom(contour, parts)
    this.known.set(contour, chains)
    return chains
  }

  private chainsFrom(contour: readonly Cubic[], parts: Cubic[][]): readonly Chain[] {
    const circle = asCircle(contour, SHARES[0]! * this.tolerance)
    if (!circle || circle.length >= contour.length) return parts.map((p) => this.chainOf(p))
    const deviation = deviationBetween(contour, circle, this.tolerance)
    if (deviation > this.tolerance) return parts.map((p) => this.chainOf(p))
    return [{ before: contour, after: circle, deviation, box: boxOfCubics([...contour, ...circle]) }]
  }

  private chainOf(before: Cubic[]): Chain {
    const first = before[0]!
    let known = this.byFirst.get(first)
    if (!known) this.byFirst.set(first, (known = []))
    const same = known.find((k) => isSameList(k.before, before))
    if (same) return same
    const chain = this.drawn(before)
    known.push(chain)
    return chain
  }

  private drawn(before: Cubic[]): Chain {
    const { tolerance } = this
    for (const share of before.length > 1 ? SHARES : []) {
      const after = redrawChain(before, share * tolerance)
      if (after.length >= before.length) break
      const deviation = deviationBetween(before, after, tolerance)
      if (deviation > tolerance || selfCrossings(after, false).length) continue
      return { before, after, deviation, box: boxOfCubics([...before, ...after]) }
    }
    return { before, after: before, deviation: 0, box: boxOfCubics(before) }
  }

  /** Whether chains cross other than where they meet. */
  private cross(a: readonly Cubic[], b: readonly Cubic[]): boolean {
    const meeting = endsOf(a).filter((p) => endsOf(b).some((q) => p.x === q.x && p.y === q.y))
    return crossingsOf(a, b).some((hit) => !meeting.some((p) => distance(p, hit.at) < MEETING * this.tolerance))
  }

  private joined(contour: readonly Cubic[], chains: readonly Chain[]): Entry {
    const taken = chains.filter((c) => this.taken.has(c))
    const asItWas = { chains, contour: contour as Cubic[], deviation: 0 }
    if (!taken.length) return asItWas
    const drawn = chains.flatMap((c) => (this.taken.has(c) ? c.after : c.before))
    if (drawn.length < 2 || areaOfCubics(contour) * areaOfCubics(drawn) <= 0) return asItWas
    return { chains, contour: drawn, deviation: taken.reduce((m, c) => Math.max(m, c.deviation), 0) }
  }
}

const endsOf = (c: readonly Cubic[]): Vec[] => [c[0]!.p0, c[c.length - 1]!.p3]
const isSameList = <T>(a: readonly T[], b: readonly T[]): boolean => a.length === b.length && a.every((x, i) => x === b[i])
