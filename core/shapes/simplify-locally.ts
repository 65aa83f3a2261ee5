import { areaOfCubics } from '../geometry/area'
import type { Box } from '../geometry/bounds'
import { BoxIndex } from '../geometry/box-index'
import { boxOfCubics, grown } from '../geometry/bounds'
import { crossingsOf, selfCrossings } from '../geometry/crossings'
import type { Cubic } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'
import { decodedContours, encodedContours } from '../recall/contour-code'
import { digestOf, digestOfContour } from '../recall/digest'
import type { Code, Recall } from '../recall/recall'
import { recalled } from '../recall/recall'
import { asCircle } from './as-circle'
import { deviationBetween } from './deviation'
import { chainsOf, redrawChain } from './redraw'
import { CORNER_ANGLE, SHARES } from './simplify'
import { isSameList } from '../same-list'

/** A crossing so near to where two chains meet is where they meet, as a share of the tolerance. */
const MEETING = 1 / 64

/** A chain of a contour from corner to corner, or all of a contour that has none; and the same drawn with fewer cubics. */
interface Chain {
  before: readonly Cubic[]
  after: readonly Cubic[]
  /** What it was drawn with, px. */
  tolerance: number
  /** px */
  deviation: number
  /** Of both. */
  box: Box
}

/** A contour of the region, its chains, and what it has come to. */
interface Entry {
  readonly before: readonly Cubic[]
  readonly tolerance: number
  chains: readonly Chain[]
  /** The contour with the chains that are taken drawn anew; to be drawn where it is stale. */
  contour: Cubic[]
  deviation: number
  isStale: boolean
  /** When it was last a part of the region. */
  round: number
}

export interface LocallySimplified {
  contours: Cubic[][]
  /** Of each contour, measured as below. */
  deviations: number[]
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
  private readonly known = new WeakMap<readonly Cubic[], { tolerance: number; chains: readonly Chain[] }>()
  private readonly byFirst = new WeakMap<Cubic, Chain[]>()
  private readonly entries = new Map<readonly Cubic[], Entry>()
  private round = 0
  /** The chains of the region, and the contour to which each belongs. */
  private readonly live = new Map<Chain, Entry>()
  private readonly taken = new Set<Chain>()
  private readonly index = new BoxIndex<Chain>()

  /** The largest tolerance that any contour was drawn with: so far apart chains may come to meet. */
  private most: number

  /**
   * @param tolerance px; 0 leaves a contour as it is
   * @param corner turn at which a joint is a corner, radians
   * @param recall where what was worked out before is found
   */
  constructor(
    private readonly tolerance: number,
    private readonly corner = CORNER_ANGLE,
    private readonly recall: Recall | null = null,
  ) {
    this.most = tolerance
  }

  /**
   * Contours that neither cross themselves nor each other, with fewer nodes.
   *
   * @param own tolerances of contours that have another than the rest, px
   */
  of(contours: readonly (readonly Cubic[])[], own?: ReadonlyMap<readonly Cubic[], number>): LocallySimplified {
    for (const tolerance of own?.values() ?? []) this.most = Math.max(this.most, tolerance)
    const { entries, changed } = this.exchange(contours, (c) => own?.get(c) ?? this.tolerance)
    for (const chain of changed) if (this.judge(chain)) this.live.get(chain)!.isStale = true
    const result: LocallySimplified = { contours: [], deviations: [], deviation: 0, nodesBefore: 0, nodesAfter: 0 }
    for (const entry of entries) {
      if (entry.isStale) this.join(entry)
      result.contours.push(entry.contour)
      result.deviations.push(entry.deviation)
      result.deviation = Math.max(result.deviation, entry.deviation)
      result.nodesBefore += entry.before.length
      result.nodesAfter += entry.contour.length
    }
    return result
  }

  /** Takes contours in and out of the region; answers what they are now, and the chains that are new, and those near what is new or gone. */
  private exchange(
    contours: readonly (readonly Cubic[])[],
    toleranceOf: (contour: readonly Cubic[]) => number,
  ): { entries: Entry[]; changed: Set<Chain> } {
    const round = ++this.round
    const gone = new Set<Chain>()
    const fresh: Chain[] = []
    const added: Entry[] = []
    const entries = contours.map((before) => {
      const tolerance = toleranceOf(before)
      let entry = this.entries.get(before)
      if (entry?.tolerance !== tolerance) {
        for (const chain of entry?.chains ?? []) gone.add(chain)
        this.entries.set(
          before,
          (entry = { before, tolerance, chains: [], contour: [], deviation: 0, isStale: true, round }),
        )
        added.push(entry)
      }
      entry.round = round
      return entry
    })
    if (entries.length < this.entries.size) {
      for (const [contour, { chains, round: last }] of this.entries) {
        if (last === round) continue
        for (const chain of chains) gone.add(chain)
        this.entries.delete(contour)
      }
    }
    for (const entry of added) {
      entry.chains = this.chainsIn(entry.before, entry.tolerance)
      for (const chain of entry.chains) {
        // Most chains of a contour that was made anew are those of before.
        if (!gone.delete(chain)) fresh.push(chain)
        this.live.set(chain, entry)
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
    return { entries, changed }
  }

  private near(chain: Chain): Chain[] {
    return this.index.search(grown(chain.box, 2 * this.most)).filter((c) => c !== chain)
  }

  /** Decides on a chain; answers whether it was decided otherwise before. */
  private judge(chain: Chain): boolean {
    if (chain.after === chain.before) return false
    const crosses = (other: Chain): boolean => {
      const reach = MEETING * Math.max(chain.tolerance, other.tolerance)
      return (
        cross(chain.after, other.before, reach) ||
        (other.after !== other.before && cross(chain.after, other.after, reach))
      )
    }
    const take = !this.near(chain).some(crosses)
    if (take === this.taken.has(chain)) return false
    if (take) this.taken.add(chain)
    else this.taken.delete(chain)
    return true
  }

  private chainsIn(contour: readonly Cubic[], tolerance: number): readonly Chain[] {
    const known = this.known.get(contour)
    if (known?.tolerance === tolerance) return known.chains
    const chains = this.chainsOf(contour, tolerance)
    this.known.set(contour, { tolerance, chains })
    return chains
  }

  private chainsOf(contour: readonly Cubic[], tolerance: number): readonly Chain[] {
    if (!(tolerance > 0)) return [this.chainOf([...contour], 0)]
    const parts = chainsOf(contour, SHARES[0]! * tolerance, this.corner)
    // A contour without corners is drawn as a whole, so that it may become a circle.
    return parts.length > 1 && parts[0]![0] !== contour[0]
      ? parts.map((p) => this.chainOf(p, tolerance))
      : this.chainsFrom(contour, parts, tolerance)
  }

  private chainsFrom(contour: readonly Cubic[], parts: Cubic[][], tolerance: number): readonly Chain[] {
    const circle = asCircle(contour, SHARES[0]! * tolerance)
    if (!circle || circle.length >= contour.length) return parts.map((p) => this.chainOf(p, tolerance))
    const deviation = deviationBetween(contour, circle, tolerance)
    if (deviation > tolerance) return parts.map((p) => this.chainOf(p, tolerance))
    return [{ before: contour, after: circle, tolerance, deviation, box: boxOfCubics([...contour, ...circle]) }]
  }

  private chainOf(before: Cubic[], tolerance: number): Chain {
    const first = before[0]!
    let known = this.byFirst.get(first)
    if (!known) this.byFirst.set(first, (known = []))
    const same = known.find((k) => k.tolerance === tolerance && isSameList(k.before, before))
    if (same) return same
    const key = (): string => digestOf(`chain ${tolerance} ${digestOfContour(before)}`)
    const draw = (): Chain => this.drawn(before, tolerance)
    // One cubic stays as it is.
    const chain = before.length > 1 ? recalled(this.recall, key, chainCode(before, tolerance), draw) : draw()
    known.push(chain)
    return chain
  }

  private drawn(before: Cubic[], tolerance: number): Chain {
    for (const share of before.length > 1 && tolerance > 0 ? SHARES : []) {
      const after = redrawChain(before, share * tolerance)
      if (after.length >= before.length) break
      const deviation = deviationBetween(before, after, tolerance)
      if (deviation > tolerance || selfCrossings(after, false).length) continue
      return { before, after, tolerance, deviation, box: boxOfCubics([...before, ...after]) }
    }
    return { before, after: before, tolerance, deviation: 0, box: boxOfCubics(before) }
  }

  private join(entry: Entry): void {
    const { before, chains } = entry
    const taken = chains.filter((c) => this.taken.has(c))
    const drawn = taken.length ? chains.flatMap((c) => (this.taken.has(c) ? c.after : c.before)) : []
    const isSound = drawn.length > 1 && areaOfCubics(before) * areaOfCubics(drawn) > 0
    entry.contour = isSound ? drawn : (before as Cubic[])
    entry.deviation = isSound ? taken.reduce((m, c) => Math.max(m, c.deviation), 0) : 0
    entry.isStale = false
  }
}

/** A chain as numbers: its deviation and what it was drawn with, and nothing more where it stays as it was. */
const chainCode = (before: readonly Cubic[], tolerance: number): Code<Chain> => ({
  encode: ({ after, deviation }) => Float64Array.of(deviation, ...(after === before ? [] : encodedContours([after]))),
  decode: (numbers) => {
    const after = numbers.length > 1 ? decodedContours(numbers.subarray(1))[0]! : before
    return { before, after, tolerance, deviation: numbers[0]!, box: boxOfCubics([...before, ...after]) }
  },
  owner: (chain) => chain,
})

/** Whether chains cross other than within `reach` px of where they meet. */
function cross(a: readonly Cubic[], b: readonly Cubic[], reach: number): boolean {
  const meeting = endsOf(a).filter((p) => endsOf(b).some((q) => p.x === q.x && p.y === q.y))
  return crossingsOf(a, b).some((hit) => !meeting.some((p) => distance(p, hit.at) < reach))
}

const endsOf = (c: readonly Cubic[]): Vec[] => [c[0]!.p0, c[c.length - 1]!.p3]
