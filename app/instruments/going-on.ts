import type { Line } from '#core/model/model'
import type { PathNode } from '#core/geometry/path'
import { findLine } from '#core/model/find'
import type { Edits, View } from './worktop'

/** A line that is being gone on with, and at which of its ends. */
export interface GoingOn {
  line: Line
  end: 'first' | 'last'
}

/** The line that is to be gone on with from an end mark; null after telling the person why it stays as it is. */
export function goOnWith(worktop: Edits & View, id: string, end: GoingOn['end']): GoingOn | null {
  const found = findLine(worktop.drawing(), id)
  if (!found) return null
  const { layer, line } = found
  if (line.locked) worktop.say('This line is locked: it stays as it is. Unlock it in Layers.')
  else if (!layer.locked && layer.visible) return { line, end }
  else worktop.say(`Layer "${layer.name}" is ${layer.locked ? 'locked' : 'hidden'}: its lines stay as they are.`)
  return null
}

/** Nodes laid on from an end, in the direction of the line that they go on with; and back. */
export const inOrder = (nodes: readonly PathNode[], end: 'first' | 'last'): PathNode[] =>
  end === 'last' ? [...nodes] : nodes.toReversed().map((n) => ({ ...n, in: n.out, out: n.in }))
