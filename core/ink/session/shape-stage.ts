import type { Cubic } from '../../geometry/cubic'
import type { Path } from '../../geometry/path'
import { pathOfCubics } from '../../geometry/path'
import { linesOf } from '../../model/queries'
import { shapeSettingsOf } from '../../model/fineness'
import type { Drawing } from '../../model/model'
import { digestOfNumbers } from '../../recall/digest'
import { encodedPath } from '../../recall/path-code'
import type { Recall } from '../../recall/recall'
import { lastOf } from '../../remembered'
import { withRetouches } from '../../shapes/retouch'
import type { LocallySimplified } from '../../shapes/simplify-locally'
import { LocalSimplifier } from '../../shapes/simplify-locally'
import type { Region } from '../outlines/outlines'
import type { Group } from '../stack/groups'
import { OwnFineness } from '../stack/own-fineness'
import { amended } from '../stack/stack'
import type { Measure, ShapesResult } from './ink-session'
import type { United } from './unions'

/** How contours are simplified, what was kept of each group, and of regions that stand alone. */
interface Kept {
  simplifier: () => LocalSimplifier
  groups: Map<string, LocalSimplifier>
  alone: WeakMap<Region, LocallySimplified>
}

/** Simplifies the contours of groups and puts their retouches on; kept from edit to edit. */
export class ShapeStage {
  private readonly kept: (simplify: number, corner: number | undefined) => Kept
  private readonly paths = new WeakMap<readonly Cubic[], Path>()
  private readonly measures = new WeakMap<Path, Measure>()
  private readonly originals = new WeakMap<Path, readonly Cubic[]>()
  /** Contours that were read, by what they are: those that are made the same are these. */
  private adopted = new Map<string, Path>()

  /** @param recall where what was worked out before is found */
  constructor(recall: Recall | null) {
    this.kept = lastOf((simplify, corner) => ({
      simplifier: () => new LocalSimplifier(simplify, radians(corner), recall),
      groups: new Map(),
      alone: new WeakMap(),
    }))
  }

  of(drawing: Drawing, { stack, groups, contours: all, failed }: United): ShapesResult {
    const { unite, simplify, corner } = shapeSettingsOf(drawing)
    const kept = this.kept(simplify, corner)
    const ids = new Set(groups.map((g) => g.id))
    for (const id of kept.groups.keys()) if (!ids.has(id)) kept.groups.delete(id)
    const result: ShapesResult = {
      shapes: [],
      nodesBefore: 0,
      nodesAfter: 0,
      deviation: 0,
      waiting: 0,
      waits: [],
      failed: [...stack.failed, ...failed],
    }
    const own = new OwnFineness(drawing)
    for (const [i, group] of groups.entries()) {
      const contours = all[i]!
      const items = group.parts.flatMap(({ item }) => ('path' in item ? [item.id] : item.from))
      const tolerances = own.of(contours, new Set(items))
      const slim = unite
        ? simplifierOf(group, kept).of(contours, tolerances)
        : simplifiedAlone(group.parts[0]!.region, tolerances, kept)
      result.nodesBefore += slim.nodesBefore
      result.nodesAfter += slim.nodesAfter
      result.deviation = Math.max(result.deviation, slim.deviation)
      const paths = slim.contours.map((c, k) => this.pathOf(c, contours[k]!, slim.deviations[k]!))
      if (paths.length) result.shapes.push({ id: group.id, contours: paths, ink: group.ink, from: items })
    }
    // They are the contours of one state: this one, or an edit of it.
    this.adopted = new Map()
    return retouched(result, drawing, [...own.waits(), ...stack.frontsWait])
  }

  readonly measureOf = (path: Path): Measure | null => this.measures.get(path) ?? null

  /** A contour as it was before it was simplified; null for one that was retouched or not made here. */
  readonly originalOf = (path: Path): readonly Cubic[] | null => this.originals.get(path) ?? null

  /** Takes in contours that were made before and read. */
  adopt(measures: ReadonlyMap<Path, Measure>): void {
    for (const [path, measure] of measures) {
      this.measures.set(path, measure)
      this.adopted.set(digestOfNumbers(encodedPath(path)), path)
    }
  }

  /** A contour as a path, and what it was before it was simplified. */
  private pathOf(contour: readonly Cubic[], before: readonly Cubic[], deviation: number): Path {
    let path = this.paths.get(contour)
    if (!path) {
      const made = pathOfCubics(contour, true, 1e-6)
      path = this.adopted.size ? (this.adopted.get(digestOfNumbers(encodedPath(made))) ?? made) : made
      this.paths.set(contour, path)
      this.measures.set(path, { nodes: before.length, deviation })
      this.originals.set(path, before)
    }
    return path
  }
}

function simplifierOf({ id }: Group, { groups, simplifier }: Kept): LocalSimplifier {
  let own = groups.get(id)
  if (!own) groups.set(id, (own = simplifier()))
  return own
}

function simplifiedAlone(
  region: Region,
  own: ReadonlyMap<readonly Cubic[], number> | undefined,
  { alone, simplifier }: Kept,
): LocallySimplified {
  if (own) return simplifier().of(region.contours, own)
  let slim = alone.get(region)
  if (!slim) alone.set(region, (slim = simplifier().of(region.contours)))
  return slim
}

/** The angle at which a joint is a corner. */
const radians = (degrees: number | undefined): number | undefined => degrees && (degrees * Math.PI) / 180

/** Shapes with the retouches of a drawing; `waits` are the amendments that found no place before. */
function retouched(result: ShapesResult, drawing: Drawing, waits: readonly string[]): ShapesResult {
  const retouches = amended(drawing, 'retouch')
  if (!retouches.length) return { ...result, waiting: waits.length, waits }
  const lines = new Map(linesOf(drawing).map((l) => [l.id, l]))
  const { tolerance } = shapeSettingsOf(drawing)
  const put = withRetouches(result.shapes, retouches, tolerance, (id) => lines.get(id))
  const nodesAfter = put.shapes.reduce((n, s) => n + s.contours.reduce((m, c) => m + c.nodes.length, 0), 0)
  const all = [...waits, ...put.waits.map((r) => r.id)]
  return { ...result, shapes: put.shapes, nodesAfter, waiting: all.length, waits: all }
}
