import type { Path } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { areaOfCubics } from '../geometry/area'
import type { Cubic } from '../geometry/cubic'
import { flatten, pointAt } from '../geometry/cubic'
import { cubicsOfPath } from '../geometry/path'
import { InputError } from '../errors'
import { checkPath } from '../outline/check'

/** What counts as too small: either is enough. 0 lets everything pass. */
export interface SpeckLimits {
  /** px squared */
  area: number
  /** Mean width, px: twice the area over the length of the outline. */
  width: number
}

/** Something that went. */
export interface Speck {
  kind: 'ink' | 'hole'
  area: number
  width: number
  /** A point on its outline. */
  at: Vec
}

/**
 * Contours without their specks and slivers: ink that is too small goes with the holes in it, holes that are too small
 * are filled with what lies in them. Contours must have the region on their left and not cross, as unions come.
 *
 * @throws InputError for limits or coordinates that are not numbers, or negative limits
 */
export function dropSpecks(contours: readonly Path[], limits: SpeckLimits): { contours: Path[]; dropped: Speck[] } {
  checkLimits(limits)
  contours.forEach((c, i) => checkPath(c, `contours[${i}]`))
  const cubics = contours.map((c) => cubicsOfPath({ nodes: c.nodes, closed: true }))
  const measures = cubics.map(measure)
  const dropped: Speck[] = []
  const gone = new Set<number>()
  contours.forEach((_, i) => {
    const { area, width } = measures[i]!
    if (!isSpeck(Math.abs(area), width, limits)) return
    gone.add(i)
    dropped.push({ kind: area < 0 ? 'hole' : 'ink', area: Math.abs(area), width, at: placeOf(cubics[i]!) })
  })
  const outlines = [...gone].map((i) => flat(cubics[i]!))
  const kept = contours.filter((_, i) => {
    if (gone.has(i)) return false
    const at = placeOf(cubics[i]!)
    return !outlines.some((o) => holds(o, at))
  })
  return { contours: kept, dropped }
}

function checkLimits(limits: SpeckLimits): void {
  for (const [field, value] of Object.entries(limits)) {
    if (!(value >= 0) || !Number.isFinite(value))
      throw new InputError(field, `The smallest ${field} to keep must be a number, 0 or more, not ${value}.`)
  }
}

const isSpeck = (area: number, width: number, limits: SpeckLimits): boolean =>
  area < limits.area || width < limits.width

function measure(cubics: readonly Cubic[]): { area: number; width: number } {
  const area = areaOfCubics(cubics)
  const length = lengthOf(cubics)
  return { area, width: length > 0 ? (2 * Math.abs(area)) / length : 0 }
}

const flat = (cubics: readonly Cubic[]): Vec[] => cubics.flatMap((c) => flatten(c, 0.01).slice(1))

function lengthOf(cubics: readonly Cubic[]): number {
  const points = flat(cubics)
  return points.reduce((l, p, i) => {
    const q = points[(i + 1) % points.length]!
    return l + Math.hypot(q.x - p.x, q.y - p.y)
  }, 0)
}

const placeOf = (cubics: readonly Cubic[]): Vec => (cubics.length ? pointAt(cubics[0]!, 0.5) : { x: 0, y: 0 })

/** Whether a point lies within a closed polygon, by the parity of a ray. */
function holds(polygon: readonly Vec[], p: Vec): boolean {
  let inside = false
  polygon.forEach((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!
    if (a.y <= p.y !== b.y <= p.y && a.x + ((p.y - a.y) / (b.y - a.y)) * (b.x - a.x) < p.x) inside = !inside
  })
  return inside
}
