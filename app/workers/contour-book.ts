import type { Path } from '#core/geometry/path'
import type { Shape } from '#core/model/model'
import { areaOfCubics } from '#core/geometry/area'
import type { Box } from '#core/geometry/bounds'
import { boxOfCubics } from '#core/geometry/bounds'
import type { Cubic } from '#core/geometry/cubic'
import { cubicsOfPath, pathData } from '#core/geometry/path'
import { windingOf } from '#core/geometry/winding-at'
import type { InkSession, Measure, ShapesResult } from '#core/ink/open-ink'
import type { Ring } from '#core/shapes/islands'
import { ownersOf } from '#core/shapes/islands'
import { changedBoxes } from '#core/shapes/changed-boxes'
import type { InkPart } from '~/painting/paint-stack'
import type { Encoded } from './dictionary'
import { DictionaryDecoder, DictionaryEncoder } from './dictionary'

/** A contour ready for drawing. */
export interface Contour extends InkPart {
  path: Path
  /** How many nodes it had as expanded, and how far from that it may lie, px; none where it was retouched. */
  measure: { nodes: number; deviation: number } | null
  /** px squared, below 0 for a hole. */
  area: number
}

/** Shapes without their contours: how many each has, and where it differs from the shape of that id in the answer before. */
export interface ShapesAnswer extends Omit<ShapesResult, 'shapes'> {
  shapes: (Omit<Shape, 'contours'> & { contours: number; changed: Box[] | null; owners: Int32Array })[]
  /** The contours of all shapes in a row. */
  told: Encoded<Contour>
}

/** Answers with shapes whose contours are told by number, each sent only once. */
export class SentContours {
  private readonly sent = new DictionaryEncoder<Contour>()
  private readonly known = new WeakMap<Path, Contour>()
  private readonly rings = new WeakMap<Path, Ring>()
  private before = new Map<string, Shape>()

  answer({ shapes, ...rest }: ShapesResult, measureOf: InkSession['measureOf']): ShapesAnswer {
    const told = this.sent.tell(shapes.flatMap((s) => s.contours.map((c) => this.contourOf(c, measureOf(c)))))
    const answer = {
      ...rest,
      told,
      shapes: shapes.map((s) => ({
        ...s,
        contours: s.contours.length,
        changed: this.changed(s),
        owners: ownersOf(s.contours.map((c) => this.ringOf(c))),
      })),
    }
    this.before = new Map(shapes.map((s) => [s.id, s]))
    return answer
  }

  private changed(shape: Shape): Box[] | null {
    const was = this.before.get(shape.id)
    if (!was) return null
    const [old, now] = [new Set(was.contours), new Set(shape.contours)]
    return changedBoxes(
      was.contours.filter((c) => !now.has(c)),
      shape.contours.filter((c) => !old.has(c)),
    )
  }

  private contourOf(path: Path, measure: Measure | null): Contour {
    let contour = this.known.get(path)
    if (!contour) {
      const closed = { ...path, closed: true }
      const cubics = cubicsOfPath(closed)
      this.known.set(
        path,
        (contour = { path, measure, data: pathData(closed, 4), box: boxOfCubics(cubics), area: areaOfCubics(cubics) }),
      )
    }
    return contour
  }

  /** What matters of a contour for islands; its curves are held only once something is looked up in it. */
  private ringOf(path: Path): Ring | null {
    const [first] = path.nodes
    let ring = this.rings.get(path)
    if (ring || !first) return ring ?? null
    const { area, box } = this.known.get(path)!
    let cubics: Cubic[] | null = null
    ring = {
      area,
      box,
      at: first.at,
      winding: (p) => windingOf((cubics ??= cubicsOfPath({ ...path, closed: true })), p),
    }
    this.rings.set(path, ring)
    return ring
  }
}

/** A shape with its contours ready for drawing. */
export interface DrawnShape {
  shape: Shape
  parts: readonly Contour[]
  /** Where it differs from the shape of its id in the answer before; null where there was none. */
  changed: readonly Box[] | null
  /** By contour, the place of the outer one of its island. */
  owners: Int32Array
}

/** The other side. Every answer must be taken, in order. */
export class HeldContours {
  private readonly held = new DictionaryDecoder<Contour>()

  take({ shapes, told, ...rest }: ShapesAnswer): { result: ShapesResult; drawn: DrawnShape[] } {
    const all = this.held.take(told)
    let next = 0
    const drawn = shapes.map(({ changed, contours, owners, ...s }): DrawnShape => {
      const parts = all.slice(next, (next += contours))
      return { shape: { ...s, contours: parts.map((p) => p.path) }, parts, changed, owners }
    })
    return { result: { ...rest, shapes: drawn.map((d) => d.shape) }, drawn }
  }
}
