import type { EdgeSoup } from './edge-soup'
import { emptySoup, pushEdge } from './edge-soup'

/** Packs two integers below 2^26 into one exact double. */
export const pair = (a: number, b: number): number => a * 67108864 + b

/** Numbers grid points in the order in which they are first met. */
export class VertexIds {
  readonly x: number[] = []
  readonly y: number[] = []
  private readonly ids = new Map<number, number>()

  of(x: number, y: number): number {
    const key = pair(x, y)
    let id = this.ids.get(key)
    if (id === undefined) {
      id = this.x.length
      this.ids.set(key, id)
      this.x.push(x)
      this.y.push(y)
    }
    return id
  }
}

/**
 * One edge for all that join the same two points: those that run in opposite directions cancel, since they change no
 * winding number, and what is left keeps the curve of an edge in the direction that prevails.
 */
export function mergeCoincident(soup: EdgeSoup): EdgeSoup {
  const vertices = new VertexIds()
  const slots = new Map<number, number>()
  const forward: number[] = []
  const backward: number[] = []
  const net: number[] = []
  for (let i = 0; i < soup.count; i++) {
    const a = vertices.of(soup.ax[i]!, soup.ay[i]!)
    const b = vertices.of(soup.bx[i]!, soup.by[i]!)
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
