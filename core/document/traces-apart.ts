import { isKept, keptApart, placeOnGrid, wholeTrace } from '../model/line-trace'
import type { Drawing, Layer, Line, TraceSample } from '../model/model'
import type { Patch } from './patch'

/** Takes samples into keeping, by their hash. */
export type Keep = (hash: string, samples: TraceSample[]) => void

/** A line whose trace is kept apart; the same object where it is, or has none. */
function lineApart<T extends Pick<Line, 'trace'>>(line: T, keep: Keep): T {
  if (!line.trace || isKept(line.trace)) return line
  const { trace, samples } = keptApart(line.trace)
  keep(trace.of, samples)
  return { ...line, trace: { ...trace, at: placeOnGrid(trace.at) } }
}

function layerApart<T extends Layer>(layer: T, keep: Keep): T {
  if (layer.kind !== 'lines') return layer
  const items = layer.items.map((l) => lineApart(l, keep))
  return items.every((l, i) => l === layer.items[i]) ? layer : { ...layer, items }
}

/** A drawing whose traces are kept apart; layers that are those of `before` are not looked at. */
export function withTracesApart(drawing: Drawing, keep: Keep, before: Drawing | null = null): Drawing {
  const known = new Set<Layer>(before?.layers ?? [])
  const layers = drawing.layers.map((l) => (known.has(l) ? l : layerApart(l, keep)))
  return layers.every((l, i) => l === drawing.layers[i]) ? drawing : { ...drawing, layers }
}

/** Patches of an earlier version, whose traces have their samples with them, with these kept apart. */
export function patchesApart(patches: readonly Patch[], keep: Keep): Patch[] {
  return patches.map((patch): Patch => {
    const { op, path, value } = patch
    if (typeof value !== 'object' || value === null || path[0] !== 'layers') return patch
    if (op === 'add' && path.length === 2) return { ...patch, value: layerApart(value as Layer, keep) }
    if (op === 'add' && path.length === 4) return { ...patch, value: lineApart(value as Line, keep) }
    if (op === 'replace' && path.length === 5 && path[4] === 'trace')
      return { ...patch, value: lineApart({ trace: value as Line['trace'] }, keep).trace }
    return patch
  })
}

/** A drawing whose lines have the samples of their traces with them, as files do; traces that are not at hand are left out. */
export function withWholeTraces(
  drawing: Drawing,
  samplesOf: (hash: string) => readonly TraceSample[] | undefined,
): Drawing {
  const whole = (line: Line): Line => {
    if (!line.trace || !isKept(line.trace)) return line
    const samples = samplesOf(line.trace.of)
    return { ...line, trace: samples ? wholeTrace(line.trace, samples) : null }
  }
  return {
    ...drawing,
    layers: drawing.layers.map((l) => (l.kind === 'lines' ? { ...l, items: l.items.map(whole) } : l)),
  }
}

/** The hashes of the traces that lines keep. */
export const keptTracesOf = (lines: readonly Line[]): string[] => [
  ...new Set(lines.flatMap((l) => (l.trace && isKept(l.trace) ? [l.trace.of] : []))),
]
