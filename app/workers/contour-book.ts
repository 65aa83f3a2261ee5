import type { Path, Shape } from '#core/drawing/model'
import type { ShapesResult } from '#core/ink/open-ink'
import type { Box } from '#core/geometry/bounds'
import { boxOfCubics } from '#core/geometry/bounds'
import { cubicsOfPath, pathData } from '#core/geometry/path'

/** A contour ready for drawing. */
export interface Contour {
  path: Path
  /** Path data. */
  data: string
  box: Box
}

/** Shapes whose contours are told by number, and the contours that whoever asked does not have yet. */
export interface ShapesAnswer extends Omit<ShapesResult, 'shapes'> {
  shapes: (Omit<Shape, 'contours'> & { contours: number[] })[]
  fresh: [number: number, contour: Contour][]
}

/** Numbers the contours of answers, so that each contour is sent only once for as long as it is part of every answer. */
export class SentContours {
  private readonly numbers = new WeakMap<Path, number>()
  private next = 0
  private held = new Set<number>()

  answer({ shapes, ...rest }: ShapesResult): ShapesAnswer {
    const fresh: [number, Contour][] = []
    const now = new Set<number>()
    const numberOf = (path: Path): number => {
      let n = this.numbers.get(path)
      if (n === undefined) this.numbers.set(path, (n = this.next++))
      if (!this.held.has(n) && !now.has(n)) fresh.push([n, contourOf(path)])
      now.add(n)
      return n
    }
    const told = shapes.map((s) => ({ ...s, contours: s.contours.map(numberOf) }))
    this.held = now
    return { ...rest, shapes: told, fresh }
  }
}

/** The other side: contours by number, as far as the last answer names them. Every answer must be taken, in order. */
export class HeldContours {
  private held = new Map<number, Contour>()

  take({ shapes, fresh, ...rest }: ShapesAnswer): { result: ShapesResult; contours: readonly Contour[][] } {
    const known = new Map([...this.held, ...fresh])
    const contours = shapes.map((s) => s.contours.map((n) => known.get(n)!))
    this.held = new Map(shapes.flatMap((s) => s.contours.map((n) => [n, known.get(n)!] as const)))
    return { result: { ...rest, shapes: shapes.map((s, i) => ({ ...s, contours: contours[i]!.map((c) => c.path) })) }, contours }
  }
}

function contourOf(path: Path): Contour {
  const closed = { ...path, closed: true }
  return { path, data: pathData(closed, 4), box: boxOfCubics(cubicsOfPath(closed)) }
}
