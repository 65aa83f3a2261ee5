import type { Line, PenTrace } from '../model/model'
import { distance } from '../geometry/point'
import { pathByTrace } from './fit-trace'
import { withOwnStops } from '../weight/own-stops'
import { pressureStops } from './pressure-stops'

/** What of a trace can be changed after it was drawn. */
export type HandSettings = Partial<Omit<PenTrace, 'samples' | 'device' | 'zoom'>>

/** Settings that shape the path; the others shape the width. */
const OF_PATH: readonly (keyof HandSettings)[] = ['steadiness', 'squared', 'loop']

/** A drawn path counts as changed by hand when a node is farther than this from where its trace puts it, px. */
const MOVED = 0.01

/**
 * A line drawn anew from its trace with other settings: its path where they change the path, its stops where they change
 * the width. Its ends stay where the hand put them.
 *
 * @param drawn the line's trace with its samples
 */
export function redrawn(line: Line, drawn: PenTrace, settings: HandSettings): Line {
  const trace: PenTrace = { ...drawn, ...settings }
  const changes = (keys: readonly string[]): boolean => Object.keys(settings).some((k) => keys.includes(k))
  const width = Object.keys(settings).some((k) => k === 'loop' || !(OF_PATH as readonly string[]).includes(k))
  return {
    ...line,
    trace: line.trace && 'of' in line.trace ? { ...line.trace, ...settings } : trace,
    path: changes(OF_PATH) ? pathByTrace(trace) : line.path,
    weight: width ? { ...withOwnStops(line.weight, pressureStops(trace)), start: null, end: null } : line.weight,
  }
}

/** Whether a line's path is no longer the one that its trace gives: it was edited since it was drawn. */
export function wasEdited(line: Line, drawn: PenTrace): boolean {
  const { nodes } = pathByTrace(drawn)
  return nodes.length !== line.path.nodes.length || nodes.some((n, i) => distance(n.at, line.path.nodes[i]!.at) > MOVED)
}
