import type { Matrix } from '../geometry/matrix'
import { affineBetween, mapped } from '../geometry/matrix'
import { onGrid, pointOnGrid } from './grid'
import { isKept, mappedTrace, placeOnGrid } from '../model/line-trace'
import type { Line, Shape } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { Mapping } from './patch'

type Item = Line | Shape

/** Grid steps by which a mapped coordinate may be off before the item counts as changed otherwise. */
const MOST_OFF = 99

const STEP = 1e5

const pathsOf = (item: Item): readonly Path[] => ('path' in item ? [item.path, ...(item.scrapes ?? [])] : item.contours)

const geometryOf = (item: Item): unknown => ('path' in item ? item.path : item.contours)

const pointsOf = (item: Item): Vec[] =>
  pathsOf(item).flatMap((p) => p.nodes.flatMap((n) => [n.at, ...(n.in ? [n.in] : []), ...(n.out ? [n.out] : [])]))

/** How many points and handles an item has, and which: items that differ in it are never mapped onto each other. */
const signature = (item: Item): string =>
  pathsOf(item)
    .map((p) => `${p.closed ? 'c' : 'o'}${p.nodes.map((n) => `${n.in ? 1 : 0}${n.out ? 1 : 0}${n.joint[0]}`).join('')}`)
    .join(' ')

/** An item whose points went through a matrix and onto the grid, and `off` steps of it on, x and y of each in turn. */
export function mappedItem<T extends Item>(item: T, by: Matrix, off: readonly number[] = []): T {
  let i = 0
  const fits = off.length === 2 * pointsOf(item).length
  const put = (p: Vec): Vec => {
    const q = pointOnGrid(mapped(by, p))
    return fits ? { x: onGrid(q.x + off[i++]! / STEP), y: onGrid(q.y + off[i++]! / STEP) } : q
  }
  const path = (p: Path): Path => ({
    ...p,
    nodes: p.nodes.map((n) => ({ at: put(n.at), in: n.in && put(n.in), out: n.out && put(n.out), joint: n.joint })),
  })
  if (!('path' in item)) return { ...item, contours: item.contours.map(path) }
  const trace = mappedTrace(item.trace, (p) => mapped(by, p))
  return {
    ...item,
    path: path(item.path),
    ...(item.scrapes && { scrapes: item.scrapes.map(path) }),
    trace: trace && isKept(trace) ? { ...trace, at: placeOnGrid(trace.at) } : trace,
  }
}

/** The one matrix that most of these items went through, and which of them did, in the fewest digits; null where there is none. */
export function mappingOf(pairs: readonly (readonly [was: Item, is: Item])[]): Mapping | null {
  const alike = pairs
    .filter(([a, b]) => geometryOf(a) !== geometryOf(b) && signature(a) === signature(b))
    .map(([a, b]) => ({ id: b.id, from: pointsOf(a), to: pointsOf(b) }))
  if (!alike.length || alike.some((p) => !p.from.length)) return null
  const by = shiftOf(alike) ?? tidied(alike)
  if (!by) return null
  const items = alike.flatMap(({ id, from, to }): Mapping['items'] => {
    const off: number[] = []
    for (const [i, p] of from.entries()) {
      const q = pointOnGrid(mapped(by, p))
      const [x, y] = [(to[i]!.x - q.x) * STEP, (to[i]!.y - q.y) * STEP].map(Math.round) as [number, number]
      // Only what leads to the very number will do.
      if (
        Math.abs(x) > MOST_OFF ||
        Math.abs(y) > MOST_OFF ||
        onGrid(q.x + x / STEP) !== to[i]!.x ||
        onGrid(q.y + y / STEP) !== to[i]!.y
      )
        return []
      off.push(x, y)
    }
    return [off.some((v) => v !== 0) ? [id, ...off] : id]
  })
  return items.length ? { by, items } : null
}

interface Points {
  from: Vec[]
  to: Vec[]
}

/** A mere move: the same way for the first and the last point of all. */
function shiftOf(all: readonly Points[]): Matrix | null {
  const d = all.flatMap(({ from, to }) =>
    [0, from.length - 1].map((i): Vec => ({ x: onGrid(to[i]!.x - from[i]!.x), y: onGrid(to[i]!.y - from[i]!.y) })),
  )
  return (d[0]!.x !== 0 || d[0]!.y !== 0) && d.every(({ x, y }) => x === d[0]!.x && y === d[0]!.y)
    ? [1, 0, 0, 1, d[0]!.x, d[0]!.y]
    : null
}

function tidied(all: readonly Points[]): Matrix | null {
  const by = affineBetween(
    all.flatMap((p) => p.from),
    all.flatMap((p) => p.to),
  )
  return by && (by.map((v, i) => Math.round(v * (i < 4 ? 1e10 : 1e7)) / (i < 4 ? 1e10 : 1e7)) as unknown as Matrix)
}
