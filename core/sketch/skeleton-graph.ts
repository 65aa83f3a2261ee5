/** A way along a skeleton between two places where it ends or branches; pixels by their number, both ends among them. */
interface Way {
  pixels: number[]
  /** Numbers of the nodes at its ends; -1 where it goes round and comes back to itself. */
  from: number
  to: number
}

/** A thinned mask as ways between nodes: ends, and junctions of touching pixels taken together. */
export interface SkeletonGraph {
  /** Of each node, its pixels. */
  nodes: number[][]
  ways: Way[]
}

/** Reads the graph off a thinned mask, whose border is clear. */
export function graphOf(mask: Uint8Array, width: number): SkeletonGraph {
  const ring = [-width, 1, width, -1, -width + 1, width + 1, width - 1, -width - 1]
  const neighbours = (i: number): number[] => ring.flatMap((d) => (mask[i + d] ? [i + d] : []))
  const node = new Map<number, number>()
  const nodes: number[][] = []
  const all: number[] = []
  for (let i = 0; i < mask.length; i++) if (mask[i]) all.push(i)
  const isNode = (i: number): boolean => neighbours(i).length !== 2
  for (const i of all) {
    if (!isNode(i) || node.has(i)) continue
    const cluster = [i]
    node.set(i, nodes.length)
    for (const p of cluster) {
      // Ends stand alone; pixels at which a skeleton branches hang together.
      if (neighbours(p).length < 3) continue
      for (const q of neighbours(p)) {
        if (node.has(q) || neighbours(q).length < 3) continue
        node.set(q, nodes.length)
        cluster.push(q)
      }
    }
    nodes.push(cluster)
  }
  const ways: Way[] = []
  const used = new Set<number>()
  const stepKey = (a: number, b: number): string => `${a} ${b}`
  const steps = new Set<string>()
  for (const [id, cluster] of nodes.entries()) {
    for (const start of cluster) {
      for (const first of neighbours(start)) {
        if (node.get(first) === id || steps.has(stepKey(start, first))) continue
        const pixels = [start]
        let [before, here] = [start, first]
        while (!node.has(here)) {
          pixels.push(here)
          used.add(here)
          const next = neighbours(here).filter((q) => q !== before && !pixels.slice(-3).includes(q))
          // Straight neighbours before slanting ones, and a node before anything.
          const on = next.find((q) => node.has(q) && node.get(q) !== id) ?? next.find((q) => node.has(q)) ?? next[0]
          if (on === undefined) break
          ;[before, here] = [here, on]
        }
        if (!node.has(here)) continue
        pixels.push(here)
        steps.add(stepKey(here, pixels[pixels.length - 2]!))
        steps.add(stepKey(start, first))
        ways.push({ pixels, from: id, to: node.get(here)! })
      }
    }
  }
  // What has no node goes round.
  for (const i of all) {
    if (node.has(i) || used.has(i)) continue
    const pixels = [i]
    used.add(i)
    for (let here = i; ;) {
      const on = neighbours(here).find((q) => !used.has(q))
      if (on === undefined) break
      pixels.push(on)
      used.add(on)
      here = on
    }
    if (pixels.length > 2) ways.push({ pixels: [...pixels, i], from: -1, to: -1 })
  }
  return { nodes, ways }
}
