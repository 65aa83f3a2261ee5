import type { Path, PathNode } from '../geometry/path'
import type { PenTrace, TraceSample } from '../model/model'
import type { Vec } from '../geometry/point'
import { add, direction, distance, lerp, scale, subtract } from '../geometry/point'

/** The ends of a loop meet within these shares of its length from them: what a hand draws past its start is cut off. */
const OVERLAP = 0.2
/** So many samples at each end are looked at for where they meet. */
const LOOKED_AT = 80
/** Points and pressure run together over this share of the loop on both sides of where its ends meet. */
const RUN = 0.1
/** Ends that meet at less than this angle are one curve, radians. */
const SMOOTH = 1.4

/**
 * A trace whose hand came back to where it began, as a loop without a seam: what overlaps is cut off, points and pressure run
 * together where the ends meet, and it begins and ends half way round, where nothing was joined.
 */
export function loopOfTrace(trace: PenTrace): PenTrace {
  const cut = withoutOverlap(trace.samples)
  if (cut.length < 4) return trace
  const lengths = lengthsAlong(cut)
  const total = lengths[lengths.length - 1]!
  const [first, last] = [cut[0]!, cut[cut.length - 1]!]
  const meeting = lerp(first, last, 0.5)
  const pressure = (first.pressure + last.pressure) / 2
  const joined = cut.map((s, i): TraceSample => {
    const [ahead, behind] = [lengths[i]! / total, 1 - lengths[i]! / total]
    const end = ahead < behind ? first : last
    const share = falloff(Math.min(ahead, behind) / RUN)
    const moved = add(s, scale(subtract(meeting, end), share))
    return { ...s, ...moved, pressure: s.pressure + (pressure - end.pressure) * share }
  })
  const half = lengths.findIndex((l) => l >= total / 2)
  const period = last.t - first.t + 1
  const samples = [...joined.slice(half), ...joined.slice(1, half + 1).map((s) => ({ ...s, t: s.t + period }))]
  return { ...trace, samples: samples.map((s) => ({ ...s, t: s.t - joined[half]!.t })) }
}

/** The path of a loop's trace, whose first and last node are one place, closed there. */
export function closedThere({ nodes }: Path): Path {
  const [first, last] = [nodes[0]!, nodes[nodes.length - 1]!]
  if (nodes.length < 3) return { nodes, closed: false }
  const node: PathNode = { ...first, in: last.in, joint: 'corner' }
  const out = node.out && direction(subtract(node.out, node.at))
  const arriving = node.in && direction(subtract(node.at, node.in))
  const way = out && arriving && direction(add(out, arriving))
  if (way && out.x * arriving.x + out.y * arriving.y > Math.cos(SMOOTH))
    Object.assign(node, {
      out: add(node.at, scale(way, distance(node.out!, node.at))),
      in: add(node.at, scale(way, -distance(node.in!, node.at))),
      joint: 'smooth',
    })
  return { nodes: [node, ...nodes.slice(1, -1)], closed: true }
}

/** How far the ends of a trace are from each other, and how long it is, in its own px. */
export function gapOfTrace(samples: readonly TraceSample[]): { gap: number; length: number } {
  const cut = withoutOverlap(samples)
  const lengths = lengthsAlong(samples)
  return { gap: distance(cut[0]!, cut[cut.length - 1]!), length: lengths[lengths.length - 1]! }
}

/** The samples between the places near both ends that lie nearest to each other. */
function withoutOverlap(samples: readonly TraceSample[]): TraceSample[] {
  const lengths = lengthsAlong(samples)
  const total = lengths[lengths.length - 1]!
  const heads = few(samples.flatMap((_, i) => (lengths[i]! <= OVERLAP * total ? [i] : [])))
  // From the very end on, so that this is always among them.
  const tails = few(samples.flatMap((_, i) => (total - lengths[i]! <= OVERLAP * total ? [i] : [])).reverse())
  let best = { from: 0, to: samples.length - 1, cost: Infinity }
  for (const from of heads)
    for (const to of tails) {
      // As little as can be is cut off.
      const cost = distance(samples[from]!, samples[to]!) + 0.2 * (lengths[from]! + total - lengths[to]!)
      if (cost < best.cost) best = { from, to, cost }
    }
  return samples.slice(best.from, best.to + 1)
}

function few(all: readonly number[]): number[] {
  const step = Math.max(1, Math.ceil(all.length / LOOKED_AT))
  return all.filter((_, i) => i % step === 0)
}

function lengthsAlong(points: readonly Vec[]): number[] {
  const lengths = [0]
  for (let i = 1; i < points.length; i++) lengths.push(lengths[i - 1]! + distance(points[i - 1]!, points[i]!))
  return lengths
}

/** 1 at 0, 0 from 1 on, level at both. */
const falloff = (x: number): number => (x >= 1 ? 0 : (1 + Math.cos(Math.PI * x)) / 2)
