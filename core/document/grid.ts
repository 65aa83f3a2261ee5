import { mapPath } from '../geometry/path'
import { isKept, placeOnGrid } from '../model/line-trace'
import type { Drawing, Line, Shape } from '../model/model'
import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'

/** Coordinates of a document are whole multiples of a hundred-thousandth of a px: moves are exact, there and back. */
const PER_PX = 1e5

/** A coordinate, px, on the grid of documents; what is no finite number stays as it is. */
export const onGrid = (v: number): number => {
  // Adding nothing makes minus zero zero: JSON knows only one.
  const near = Math.round(v * PER_PX) / PER_PX + 0
  return Number.isFinite(near) ? near : v
}

/** A point with both coordinates on the grid. */
export const pointOnGrid = (p: Vec): Vec => ({ x: onGrid(p.x), y: onGrid(p.y) })

const isOnGrid = ({ x, y }: Vec): boolean => onGrid(x) === x && onGrid(y) === y

/** A path on the grid; the same object where it lies there already. */
function pathOnGrid(path: Path): Path {
  const lies = path.nodes.every((n) => isOnGrid(n.at) && (!n.in || isOnGrid(n.in)) && (!n.out || isOnGrid(n.out)))
  return lies ? path : mapPath(path, pointOnGrid)
}

const allOnGrid = (paths: readonly Path[]): Path[] => {
  const next = paths.map(pathOnGrid)
  return next.every((p, i) => p === paths[i]) ? (paths as Path[]) : next
}

/** An item whose points lie on the grid, as far as they are not those that it had before. */
function itemOnGrid<T extends Line | Shape>(item: T, was: Line | Shape | undefined): T {
  if (!('path' in item)) {
    const contours =
      was && 'contours' in was && was.contours === item.contours ? item.contours : allOnGrid(item.contours)
    return contours === item.contours ? item : { ...item, contours }
  }
  const old = was && 'path' in was ? was : null
  const path = old?.path === item.path ? item.path : pathOnGrid(item.path)
  const scrapes = item.scrapes && (old?.scrapes === item.scrapes ? item.scrapes : allOnGrid(item.scrapes))
  const trace =
    item.trace && isKept(item.trace) && old?.trace !== item.trace
      ? { ...item.trace, at: placeOnGrid(item.trace.at) }
      : item.trace
  return path === item.path && scrapes === item.scrapes && trace === item.trace
    ? item
    : { ...item, path, trace, ...(scrapes && { scrapes }) }
}

/** `after` with what differs from `before` put on the grid. */
export function withPointsOnGrid(before: Drawing | null, after: Drawing): Drawing {
  let changed = false
  const old = new Map(before?.layers.map((l) => [l.id, l]))
  const layers = after.layers.map((layer) => {
    const was = old.get(layer.id)
    if (layer === was || layer.kind === 'sketch') return layer
    const items = itemsOnGrid(layer.items as (Line | Shape)[], (was?.items ?? []) as (Line | Shape)[])
    if (items === layer.items) return layer
    changed = true
    return { ...layer, items } as typeof layer
  })
  return changed ? { ...after, layers } : after
}

/** Items on the grid; the same list where nothing had to be moved. Most stand where they stood: under a hand, all but one. */
function itemsOnGrid(items: (Line | Shape)[], before: readonly (Line | Shape)[]): (Line | Shape)[] {
  let known: Map<string, Line | Shape> | null = null
  let moved: (Line | Shape)[] | null = null
  for (const [i, item] of items.entries()) {
    if (item === before[i]) continue
    const was = before[i]?.id === item.id ? before[i] : (known ??= new Map(before.map((b) => [b.id, b]))).get(item.id)
    const next = was === item ? item : itemOnGrid(item, was)
    if (next !== item) (moved ??= [...items])[i] = next
  }
  return moved ?? items
}
