import { newLine } from '../../model/create'
import type { Finish, Line, Shape, Weight } from '../../model/model'
import type { Path } from '../../geometry/path'
import { parseRecord } from '../json'
import type { DrawingBuilder } from './drawing-builder'
import type { SpareHandles } from './write-svg'

type Attributes = Readonly<Record<string, string>>

/** A record of live data in an attribute. */
export const record = (text: string, field: string): Record<string, unknown> =>
  parseRecord(text, field, `The live data in this SVG is damaged (${field}). Export it again.`)

/** A line that the file holds with its weight. */
export function liveLine(a: Attributes, path: Path, colour: string, into: DrawingBuilder): Line {
  const given = (a['bt:line'] ? record(a['bt:line'], 'bt:line') : {}) as Partial<Line> & { spare?: SpareHandles }
  const { spare, ...rest } = given
  return {
    ...newLine(withSpare(withJoints(path, a['bt:joints']), spare)),
    ...rest,
    id: into.idOf(a.id),
    ink: rest.ink ?? into.inkOf(colour),
    weight: record(a['bt:weight']!, 'bt:weight') as unknown as Weight,
    ...(a['bt:finish'] && { finish: record(a['bt:finish'], 'bt:finish') as unknown as Finish }),
  }
}

/** A shape that the file holds with its ink. */
export function liveShape(a: Attributes, paths: readonly Path[], colour: string, into: DrawingBuilder): Shape {
  const live = record(a['bt:shape']!, 'bt:shape') as { ink: string; from: string[]; joints: string[] }
  const contours = paths.map((p, i) => withJoints({ ...p, closed: true }, live.joints?.[i]))
  return { id: into.idOf(a.id), contours, ink: live.ink ?? into.inkOf(colour), from: live.from ?? [] }
}

function withJoints(path: Path, joints: string | undefined): Path {
  if (joints?.length !== path.nodes.length) return path
  return { ...path, nodes: path.nodes.map((n, i) => ({ ...n, joint: joints[i] === 's' ? 'smooth' : 'corner' })) }
}

function withSpare(path: Path, spare: SpareHandles | undefined): Path {
  if (!spare || path.closed) return path
  const last = path.nodes.length - 1
  return {
    ...path,
    nodes: path.nodes.map((n, i) => ({
      ...n,
      ...(i === 0 && { in: spare.in }),
      ...(i === last && { out: spare.out }),
    })),
  }
}
