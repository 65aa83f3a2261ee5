import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { Cubic } from '#core/geometry/cubic'
import { isWithin } from '#core/geometry/bounds'
import { cubicsOfPath } from '#core/geometry/path'
import { windingOf } from '#core/geometry/winding-at'
import { islandsByOwner } from '#core/shapes/islands'
import type { IslandOfInk } from '~/instruments/worktop'
import type { DrawnShape } from '~/workers/contour-book'
import { remembered } from '#core/remembered'

/** How many islands shapes have: a count over numbers that came with them. */
export const countIslands = (drawn: readonly DrawnShape[]): number =>
  drawn.reduce((n, { owners }) => n + owners.reduce((m, owner, i) => (owner === i ? m + 1 : m), 0), 0)

/** The islands of shapes, bottom to top; listed once, when somebody asks: an edit must not wait for a list. */
export const islandsOfDrawn = remembered((drawn: readonly DrawnShape[]): readonly IslandOfInk[] =>
  drawn.flatMap(islandsOfShape),
)

function islandsOfShape({ shape, parts, owners }: DrawnShape): IslandOfInk[] {
  return islandsByOwner(owners).map((places): IslandOfInk => {
    const own = places.map((i) => parts[i]!)
    const { x, y } = own[0]!.path.nodes[0]!.at
    return {
      key: `${shape.id} ${x.toFixed(3)} ${y.toFixed(3)}`,
      shape,
      places,
      contours: own.map((p) => p.path),
      box: own[0]!.box,
      nodes: own.reduce((n, p) => n + p.path.nodes.length, 0),
      area: own.reduce((n, p) => n + p.area, 0),
    }
  })
}

const curvesOf = remembered((contour: Path): Cubic[] => cubicsOfPath({ ...contour, closed: true }))

/** The topmost island that has ink at a point. */
export function islandUnder(islands: readonly IslandOfInk[], p: Vec): IslandOfInk | null {
  return (
    islands.findLast(
      ({ box, contours }) => isWithin(p, box) && contours.reduce((n, c) => n + windingOf(curvesOf(c), p), 0) !== 0,
    ) ?? null
  )
}

export function chosenAmong(islands: readonly IslandOfInk[], keys: readonly string[]): IslandOfInk[] {
  const chosen = new Set(keys)
  return chosen.size ? islands.filter((i) => chosen.has(i.key)) : []
}
