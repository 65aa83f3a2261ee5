import type { Path } from '../../geometry/path'
import type { Shape } from '../../model/model'
import { decodedPath, encodedPath } from '../../recall/path-code'
import { decodedText, encodedText } from '../../recall/text-code'
import type { Measure, ShapesResult } from './ink-session'

/** Shapes, and how the contours of each were simplified. */
export interface MeasuredShapes {
  result: ShapesResult
  measures: ReadonlyMap<Path, Measure>
}

/** Numbers before each contour: the nodes that it had, -1 for one that was retouched, and its deviation. */
const HEAD = 2

/** What is said of shapes beside their contours, of which it is said how many there are. */
type Said = Omit<ShapesResult, 'shapes'> & { shapes: (Omit<Shape, 'contours'> & { contours: number })[] }

/** Shapes as numbers: what is said of them, then their contours. */
export function encodedShapes(
  { shapes, ...rest }: ShapesResult,
  measureOf: (path: Path) => Measure | null,
): Float64Array {
  const said: Said = { ...rest, shapes: shapes.map((s) => ({ ...s, contours: s.contours.length })) }
  const text = encodedText(JSON.stringify(said))
  const contours = shapes.flatMap((s) => s.contours.map((path) => ({ path, code: encodedPath(path) })))
  const out = new Float64Array(contours.reduce((n, { code }) => n + HEAD + code.length, text.length))
  out.set(text)
  let at = text.length
  for (const { path, code } of contours) {
    const measure = measureOf(path)
    out[at++] = measure?.nodes ?? -1
    out[at++] = measure?.deviation ?? 0
    out.set(code, at)
    at += code.length
  }
  return out
}

/** The shapes of `encodedShapes`. */
export function decodedShapes(code: Float64Array): MeasuredShapes {
  const { text, end } = decodedText(code)
  const said = JSON.parse(text) as Said
  const measures = new Map<Path, Measure>()
  let at = end
  const shapes = said.shapes.map((shape): Shape => {
    const contours = Array.from({ length: shape.contours }, () => {
      const [nodes, deviation] = [code[at]!, code[at + 1]!]
      const { path, end: next } = decodedPath(code, at + HEAD)
      at = next
      if (nodes >= 0) measures.set(path, { nodes, deviation })
      return path
    })
    return { ...shape, contours }
  })
  return { result: { ...said, shapes }, measures }
}
