import { findShape } from '~/stores/find'
import type { Mark } from '~/canvas/marks'
import type { Bench } from './instrument'

/** Outlines of the chosen blots and fills. */
export function chosenSolidMarks(bench: Bench): Mark[] {
  const shapes = bench.solids().flatMap((id) => findShape(bench.drawing(), id)?.shape ?? [])
  return shapes.length ? [{ kind: 'paths', paths: shapes.flatMap((s) => s.contours.map((c) => ({ ...c, closed: true }))), tone: 'plum' }] : []
}
