import type { EdgeSoup } from './edge-soup'
import { emptySoup, pushEdge } from './edge-soup'

/** Packs two integers below 2^26 into one exact double. */
export const pair = (a: number, b: number): number => a * 67108864 + b

/**
 * One edge for all that join the same two points: those that run in opposite directions cancel, since they change no
 * winding number, and what is left keeps the curve of an edge in the direction that prevails.
 */
export function mergeCoincident(soup: EdgeSoup): EdgeSoup {
  const vertices = new Map<number, number>()
  const vertexOf = (x: number, y: number): number => {
    const key = pair(x, y)
    let v = vertices.get(key)
    if (v === undefined) {
      v = vertices.size
      vertices.set(key, v)
    }
    return v
  }
  const slots = new Map<number, number>()
  const forward: number[] = []
  const backward: number[] = []
  const net: number[] = []
  for (let i = 0; i < soup.count; i++) {
    const a = vertexOf(soup.ax[i]!, soup.ay[i]!)
    const b = vertexOf(soup.bx[i]!, soup.by[i]!)
    const key = a < b ? pair(a, b) : pair(b, a)
    let slot = slots.get(key)
    if (slot === undefined) {
      slot = net.length
      slots.set(key, slot)
      net.push(0)
      forward.push(-1)
      backward.push(-1)
    }
    const side = a < b ? forward : backward
    if (side[slot] === -1) side[slot] = i
    net[slot]! += a < b ? soup.net[i]! : -soup.net[i]!
  }
  const out = emptySoup(net.length, soup)
  net.forEach((n, slot) => {
    if (n === 0) return
    const i = n > 0 ? forward[slot]! : backward[slot]!
    pushEdge(
      out,
      soup.ax[i]!,
      soup.ay[i]!,
      soup.bx[i]!,
      soup.by[i]!,
      soup.curve[i]!,
      soup.ta[i]!,
      soup.tb[i]!,
      Math.abs(n),
    )
  })
  return out
}
