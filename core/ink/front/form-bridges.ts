import type { Path, PathNode } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { add, lerp, scale, subtract } from '../../geometry/point'
import type { Drawing, FormBridge } from '../../model/model'

/** How far the middle of a bridge lies from the middle between its ends, as multiples of that way: along it, and to its left. */
export type Bow = Pick<FormBridge, 'along' | 'across'>

/** A bridge that closes an open form: its ends, that of the line with the lesser id first, and its middle, px. */
export interface Bridged {
  from: Vec
  to: Vec
  middle: Vec
}

const STRAIGHT: Bow = { along: 0, across: 0 }

/** The lines that bound a form, in one word. */
export const keyOfLines = (ids: readonly string[]): string => [...ids].sort().join(' ')

/** What was decided about bridges, by the lines of their forms. */
export function bridgesBent({ amendments }: Pick<Drawing, 'amendments'>): ReadonlyMap<string, Bow> {
  const bent = new Map<string, Bow>()
  for (const a of amendments ?? []) if (a.kind === 'bridge') bent.set(keyOfLines(a.lines), a)
  return bent
}

/** The bridge between two ends, as it is bent. */
export function bridged(from: Vec, to: Vec, { along, across }: Bow = STRAIGHT): Bridged {
  const way = subtract(to, from)
  return {
    from,
    to,
    middle: add(lerp(from, to, 0.5), add(scale(way, along), scale({ x: way.y, y: -way.x }, across))),
  }
}

/** How a bridge is bent whose middle is drawn to a point; its ends must lie apart. */
export function bowThrough({ from, to }: Pick<Bridged, 'from' | 'to'>, p: Vec): Bow {
  const way = subtract(to, from)
  const off = subtract(p, lerp(from, to, 0.5))
  const square = way.x * way.x + way.y * way.y
  return {
    along: (off.x * way.x + off.y * way.y) / square,
    across: (off.x * way.y - off.y * way.x) / square,
  }
}

/** The handles by which a bridge leaves its ends: a parabola through its middle. */
export function handlesOf({ from, to, middle }: Bridged): { ofFrom: Vec; ofTo: Vec } {
  const top = subtract(scale(middle, 2), lerp(from, to, 0.5))
  return { ofFrom: lerp(from, top, 2 / 3), ofTo: lerp(to, top, 2 / 3) }
}

/** A bridge as a path. */
export function pathOfBridge(bridge: Bridged): Path {
  const { ofFrom, ofTo } = handlesOf(bridge)
  const node = (at: Vec, over: Partial<PathNode>): PathNode => ({ at, in: null, out: null, joint: 'corner', ...over })
  return { nodes: [node(bridge.from, { out: ofFrom }), node(bridge.to, { in: ofTo })], closed: false }
}
