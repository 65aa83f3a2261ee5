import type { Path, PathNode } from '../geometry/path'
import type { Box } from '../geometry/bounds'
import { boxOfCubic, overlap, uniteBoxes } from '../geometry/bounds'
import { segmentBetween } from '../geometry/path'

interface Run {
  box: Box
}

/**
 * Boxes, px, outside of which two regions are the same: those of the connected runs of segments that only one of them
 * has. `gone` and `come` are the closed contours that differ between the two.
 */
export function changedBoxes(gone: readonly Path[], come: readonly Path[]): Box[] {
  const before = segmentsOf(gone)
  const after = segmentsOf(come)
  const runs = new Map<number, Run>()
  const add = (key: number, [a, b]: [PathNode, PathNode], others: ReadonlyMap<number, unknown>): void => {
    if (others.has(key)) return
    const box = boxOfCubic(segmentBetween(a, b))
    const ends = [hashOf([a.at.x, a.at.y]), hashOf([b.at.x, b.at.y])]
    const met = ends.map((e) => runs.get(e))
    // Runs that share a node bound one change together.
    const all = [box, ...met.flatMap((r) => (r ? [rootOf(r).box] : []))]
    const run: Run = { box: all.reduce(uniteBoxes) }
    for (const r of met) if (r && rootOf(r) !== run) joined.set(rootOf(r), run)
    for (const e of ends) runs.set(e, run)
  }
  const joined = new Map<Run, Run>()
  const rootOf = (run: Run): Run => {
    let root = run
    while (joined.has(root)) root = joined.get(root)!
    for (let r = run; r !== root;) {
      const next = joined.get(r)!
      joined.set(r, root)
      r = next
    }
    return root
  }
  for (const [key, segment] of before) add(key, segment, after)
  for (const [key, segment] of after) add(key, segment, before)
  return apart([...new Set([...runs.values()].map(rootOf))].map((r) => r.box))
}

/** Boxes that overlap as one, until none do. */
function apart(boxes: Box[]): Box[] {
  const out: Box[] = []
  for (let box of boxes) {
    for (let i = 0; i < out.length;) {
      if (!overlap(box, out[i]!)) i++
      else {
        box = uniteBoxes(box, out[i]!)
        out.splice(i, 1)
        i = 0
      }
    }
    out.push(box)
  }
  return out
}

function segmentsOf(contours: readonly Path[]): Map<number, [PathNode, PathNode]> {
  const out = new Map<number, [PathNode, PathNode]>()
  for (const { nodes } of contours) {
    for (const [i, a] of nodes.entries()) {
      const b = nodes[(i + 1) % nodes.length]!
      const from = a.out ?? a.at
      const to = b.in ?? b.at
      out.set(hashOf([a.at.x, a.at.y, from.x, from.y, to.x, to.y, b.at.x, b.at.y]), [a, b])
    }
  }
  return out
}

const double = new Float64Array(1)
const halves = new Uint32Array(double.buffer)

/** Numbers as one of 52 bits, by two rounds of multiplying and mixing (A. Appleby, MurmurHash, 2008). */
function hashOf(numbers: readonly number[]): number {
  let [low, high] = [0x9747b28c, 0x3c6ef372]
  for (const n of numbers) {
    double[0] = n
    low = Math.imul(low ^ halves[0]!, 0x5bd1e995)
    high = Math.imul(high ^ halves[1]!, 0x1b873593)
    low = Math.imul((low ^ (low >>> 15)) + (high | 0), 0x85ebca6b)
    high = Math.imul((high ^ (high >>> 13)) + (low | 0), 0xc2b2ae35)
  }
  return ((low ^ (low >>> 16)) >>> 0) * 2 ** 20 + ((high ^ (high >>> 16)) >>> 12)
}
