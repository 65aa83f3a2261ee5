import type { Vec } from '#core/drawing/model'
import { areaOfCubics } from '#core/geometry/area'
import { boxOfPath } from '#core/geometry/known'
import { cubicsOfPath } from '#core/geometry/path'
import type { ShapesResult } from '#core/ink/open-ink'
import { islandsOf } from '#core/shapes/islands'
import type { IslandOfInk } from '~/instruments/instrument'
import { outlineOfContours } from '~/workers/outline'

const known = new WeakMap<ShapesResult, readonly IslandOfInk[]>()

/** The islands of shapes, bottom to top; worked out once. */
export function islandsOfResult(result: ShapesResult | null): readonly IslandOfInk[] {
  if (!result) return []
  let islands = known.get(result)
  if (!islands) known.set(result, (islands = result.shapes.flatMap(islandsOfShape)))
  return islands
}

function islandsOfShape(shape: ShapesResult['shapes'][number]): IslandOfInk[] {
  const cubics = shape.contours.map((c) => cubicsOfPath({ ...c, closed: true }))
  return islandsOf(cubics).map((places): IslandOfInk => {
    const contours = places.map((i) => shape.contours[i]!)
    const { x, y } = contours[0]!.nodes[0]!.at
    return {
      key: `${shape.id} ${x.toFixed(3)} ${y.toFixed(3)}`,
      shape,
      places,
      contours,
      nodes: contours.reduce((n, c) => n + c.nodes.length, 0),
      area: places.reduce((n, i) => n + areaOfCubics(cubics[i]!), 0),
    }
  })
}

/** The topmost island that has ink at a point. */
export function islandUnder(islands: readonly IslandOfInk[], p: Vec): IslandOfInk | null {
  const ctx = document.createElement('canvas').getContext('2d')!
  const isIn = ({ shape, contours }: IslandOfInk): boolean => {
    const box = boxOfPath({ ...contours[0]!, closed: true })
    return p.x >= box.minX && p.x <= box.maxX && p.y >= box.minY && p.y <= box.maxY && ctx.isPointInPath(new Path2D(outlineOfContours(shape, contours).data), p.x, p.y, 'nonzero')
  }
  return islands.findLast(isIn) ?? null
}

export function chosenAmong(islands: readonly IslandOfInk[], keys: readonly string[]): IslandOfInk[] {
  const chosen = new Set(keys)
  return chosen.size ? islands.filter((i) => chosen.has(i.key)) : []
}
