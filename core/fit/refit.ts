import type { Line, PenTrace } from '../drawing/model'
import { distance } from '../geometry/point'
import { fitByTrace } from './fit-trace'
import { withOwnStops } from '../weight/own-stops'
import { pressureStops } from './pressure-stops'

/** What of a trace can be changed after it was drawn. */
export type HandSettings = Partial<Omit<PenTrace, 'samples' | 'device' | 'zoom'>>

/** Settings that shape the path; the others shape the width. */
const OF_PATH: readonly (keyof HandSettings)[] = ['steadiness', 'squared']

/** A drawn path counts as changed by hand when a node is farther than this from where its trace puts it, px. */
const MOVED = 0.01

/**
 * A line drawn anew from its trace with other settings: its path where they change the path, its stops where they change
 * the width. Its ends stay where the hand put them. Lines without a trace come back as they are.
 */
export function refitted(line: Line, settings: HandSettings): Line {
  if (!line.trace) return line
  const trace: PenTrace = { ...line.trace, ...settings }
  const changes = (keys: readonly string[]): boolean => Object.keys(settings).some((k) => keys.includes(k))
  const width = Object.keys(settings).some((k) => !(OF_PATH as readonly string[]).includes(k))
  return {
    ...line,
    trace,
    path: changes(OF_PATH) ? fitByTrace(trace).path : line.path,
    weight: width ? { ...withOwnStops(line.weight, pressureStops(trace)), start: null, end: null } : line.weight,
  }
}

/** Whether a line's path is no longer the one that its trace gives: it was edited since it was drawn. */
export function wasEdited(line: Line): boolean {
  if (!line.trace) return false
  const { nodes } = fitByTrace(line.trace).path
  return nodes.length !== line.path.nodes.length || nodes.some((n, i) => distance(n.at, line.path.nodes[i]!.at) > MOVED)
}
