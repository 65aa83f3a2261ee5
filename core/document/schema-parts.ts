import * as yup from 'yup'
import { useWords } from './schema-words'
import type { Path, PathNode } from '../geometry/path'

useWords()

/** Coordinates are no farther from 0 than this, px. */
export const LARGEST = 1e7
/** A required number, never read out of a text. */
export const number = () => yup.number().strict().required()
/** A required coordinate, px. */
export const coordinate = () => number().min(-LARGEST).max(LARGEST)
/** A required factor, 0..1000. */
export const factor = () => number().min(0).max(1000)
/** A share 0..1, if it is there. */
export const share = () => yup.number().strict().min(0).max(1)
/** A required text of at most `most` characters. */
export const text = (most: number) => yup.string().strict().required().max(most)
/** A required id. */
export const id = () => text(80)

/** Whether a value is a coordinate. */
export const isCoordinate = (v: unknown): boolean => typeof v === 'number' && v >= -LARGEST && v <= LARGEST

const isVec = (v: unknown): boolean => {
  const p = v as { x: unknown; y: unknown } | null
  return (
    typeof p === 'object' && p !== null && isCoordinate(p.x) && isCoordinate(p.y) && unknownField(p, POINT) === null
  )
}

const POINT: ReadonlySet<string> = new Set(['x', 'y'])
const NODE: ReadonlySet<string> = new Set(['at', 'in', 'out', 'joint'])

/** A field of a record that is none of those known; null where there is none. */
export function unknownField(record: object, fields: ReadonlySet<string>): string | null {
  for (const field in record) if (!fields.has(field)) return field
  return null
}

/**
 * A list of plain records, checked by `problem` rather than a schema for each: paths and traces are long, and a schema
 * for every point would take most of the time of opening a drawing. `problem` names the field that is wrong.
 */
export const records = <T extends object>(most: number, problem: (item: Partial<T>) => string | null) =>
  yup
    .array<yup.AnyObject>()
    .required()
    .max(most)
    .test((all, context) => {
      for (const [i, item] of (all ?? []).entries()) {
        const field = typeof item === 'object' && item !== null ? problem(item as Partial<T>) : 'value'
        if (field) return context.createError({ message: `${context.path}[${i}].${field} cannot be used` })
      }
      return true
    })

/** The field of a node that cannot be used, if any. */
export function nodeProblem(n: Partial<PathNode>): string | null {
  if (!isVec(n.at)) return 'at'
  if (n.in !== null && !isVec(n.in)) return 'in'
  if (n.out !== null && !isVec(n.out)) return 'out'
  return n.joint === 'corner' || n.joint === 'smooth' ? unknownField(n, NODE) : 'joint'
}

/** The field of a path's nodes that cannot be used, if any. */
export const pathProblem = (path: Path): string | null => path.nodes.map(nodeProblem).find((p) => p) ?? null

/** Nodes of a path, at most 20,000, each checked by hand: a schema a node would be slow. */
export const nodes = records<PathNode>(20_000, nodeProblem)

/** A point, px. */
export const place = yup
  .mixed()
  .test((v, context) => isVec(v) || context.createError({ message: `${context.path} cannot be used` }))
