import type { Drawing, LightRule, LitFill, Shade } from '../../model/model'
import type { Path } from '../../geometry/path'
import { tonedInk } from '../../model/inks'
import { shapeSettingsOf } from '../../model/fineness'
import { orElse } from '../../arrangement/as-far-as-possible'
import { loopOf, loopOfPoints } from '../../arrangement/loop'
import { loopOfPath, toPaths } from '../../arrangement/contours'
import { resolveGroups } from '../../arrangement/resolve'
import { areaOfCubics } from '../../geometry/area'
import { boxOfCubics } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { flatten } from '../../geometry/cubic'
import { controlLength, cubicsOfPath } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { add, direction, lerp, scale, subtract } from '../../geometry/point'
import { simplifyContours } from '../../shapes/simplify'
import type { Poured } from './fill-stage'
import { remembered } from '../../remembered'

/** A shape of shade or light within a fill. */
export interface ShadePart {
  id: string
  ink: string
  contours: Cubic[][]
}

/** Edges of shades from a light are drawn this near, px of the page for each px of tolerance of the usual outline. */
const FINE = 4
/** Shade smaller than this share of its fill is none. */
const CRUMB = 0.003

/** The shades of a fill's contours that were made already, by what they were made of. */
const madeOn = remembered((_contours: readonly (readonly Cubic[])[]) => new Map<unknown, ShadePart[]>())

/** The shades of a fill, bottom to top, each kept within the fill: those from the light, then those that a hand laid. */
export function shadesOf({ fill, faces, contours }: Poured, drawing: Drawing): ShadePart[] {
  if (!contours.length) return []
  const { tolerance } = shapeSettingsOf(drawing)
  const { light } = drawing.settings
  const lit =
    fill.lit && light && faces.length ? fromTheLight(fill.lit, light, fill.ink, fill.id, contours, tolerance) : []
  return [...lit, ...(fill.shades ?? []).map((s) => within(s, fill.ink, contours, tolerance))]
}

function madeOnce(contours: readonly (readonly Cubic[])[], key: unknown, make: () => ShadePart[]): ShadePart[] {
  const all = madeOn(contours)
  let parts = all.get(key)
  if (!parts) all.set(key, (parts = make()))
  return parts
}

const within = (shade: Shade, ink: string, contours: Cubic[][], tolerance: number): ShadePart =>
  madeOnce(contours, shade, () => [
    {
      id: `shade:${shade.id}`,
      ink: shade.ink ?? tonedInk(ink, shade.tone),
      // A shade that cannot be kept within its fill is none.
      contours: orElse(
        () =>
          resolveGroups(
            [contours.map(loopOf), shade.contours.map(loopOfPath)],
            tolerance,
            ({ covered }) => covered === 2,
          ),
        [],
      ),
    },
  ])[0]!

/** A crescent of shade on the side away from the light, and one of light on the side towards it. */
function fromTheLight(
  lit: LitFill,
  { at }: LightRule,
  ink: string,
  id: string,
  contours: Cubic[][],
  tolerance: number,
): ShadePart[] {
  const key = `${JSON.stringify(lit)} ${at.x} ${at.y} ${ink}`
  return madeOnce(contours, key, () => {
    const box = boxOfCubics(contours.flat())
    const centre = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
    const half = { x: (box.maxX - box.minX) / 2, y: (box.maxY - box.minY) / 2 }
    const towards = direction(subtract(at, centre)) ?? { x: 0, y: -1 }
    // Of something long and thin the width counts, not how far it reaches.
    const wide =
      (2 * contours.reduce((n, c) => n + areaOfCubics(c), 0)) / contours.reduce((n, c) => n + controlLength(c), 0)
    const far = lit.depth * Math.min(half.x, half.y, wide)
    const least = CRUMB * contours.reduce((n, c) => n + areaOfCubics(c), 0)
    // What lies in the fill casts nothing of its own: only outer edges count.
    const cutter = contours.filter((c) => areaOfCubics(c) > 0).map((c) => turned(c, centre, half, lit.softness))
    const crescent = (by: Vec): Cubic[][] => {
      const loops = cutter.map((points) => loopOfPoints(points.map((p) => add(p, by))))
      const cut = orElse(
        () =>
          resolveGroups(
            [contours.map(loopOf), loops],
            tolerance,
            ({ covered, winding }) => covered === 1 && winding[0] !== 0,
          ),
        [],
      )
      return slim(toPaths(cut), FINE * tolerance, least)
    }
    const parts: ShadePart[] = []
    if (lit.shade > 0)
      parts.push({ id: `shade:${id}`, ink: tonedInk(ink, -lit.shade), contours: crescent(scale(towards, far)) })
    if (lit.light > 0)
      parts.push({ id: `light:${id}`, ink: tonedInk(ink, lit.light), contours: crescent(scale(towards, -far * 0.6)) })
    return parts
  })
}

/** A contour on the way from itself to the ellipse about it: the softer, the more gently its edge turns. */
function turned(contour: readonly Cubic[], centre: Vec, half: Vec, softness: number): Vec[] {
  return contour
    .flatMap((c) => flatten(c, 0.1).slice(1))
    .map((p) => {
      const d = { x: (p.x - centre.x) / (half.x || 1), y: (p.y - centre.y) / (half.y || 1) }
      const r = Math.hypot(d.x, d.y) || 1
      return lerp(p, { x: centre.x + (d.x / r) * half.x, y: centre.y + (d.y / r) * half.y }, softness)
    })
}

/** Fewer nodes; crumbs that are no shade go. */
const slim = (contours: Path[], tolerance: number, least: number): Cubic[][] =>
  simplifyContours(contours, { tolerance })
    .contours.map((c) => cubicsOfPath({ ...c, closed: true }))
    .filter((c) => Math.abs(areaOfCubics(c)) > least)
