import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils'
import type { Matrix } from '../geometry/matrix'
import { composed, mapped, matrixOfMap } from '../geometry/matrix'
import { distance } from '../geometry/point'
import type { KeptTrace, PenTrace, TraceSample } from './model'
import type { Vec } from '../geometry/point'

/** Whether a line's trace is kept apart, by its hash; else it still has its samples with it. */
export const isKept = (trace: PenTrace | KeptTrace): trace is KeptTrace => 'of' in trace

/** How many samples a trace has. */
export const sampleCount = (trace: PenTrace | KeptTrace): number => (isKept(trace) ? trace.count : trace.samples.length)

const bare = ({ x, y, t, pressure, tiltX, tiltY }: TraceSample): TraceSample => ({
  x,
  y,
  t,
  pressure,
  ...(tiltX !== undefined && { tiltX }),
  ...(tiltY !== undefined && { tiltY }),
})

/** The sha-256 of samples, hexadecimal: that of their JSON. */
export const hashOfSamples = (samples: readonly TraceSample[]): string =>
  bytesToHex(sha256(utf8ToBytes(JSON.stringify(samples.map(bare)))))

/** A trace as a line holds it, and its samples, which are kept apart from their first point on: a trace that was moved is the same. */
export function keptApart({ samples, ...settings }: PenTrace): { trace: KeptTrace; samples: TraceSample[] } {
  const [first] = samples
  const [x, y] = [first?.x ?? 0, first?.y ?? 0]
  const own = samples.map((s) => bare({ ...s, x: s.x - x, y: s.y - y }))
  return { trace: { ...settings, of: hashOfSamples(own), count: own.length, at: [1, 0, 0, 1, x, y] }, samples: own }
}

/** A kept trace with its samples, where it lies on the page. */
export function wholeTrace(
  { of: _of, count: _count, at, reversed, part, ...settings }: KeptTrace,
  samples: readonly TraceSample[],
): PenTrace {
  const trace: PenTrace = { ...settings, samples: samples.map((s) => ({ ...s, ...mapped(at, s) })) }
  const cut = part ? (partOfSamples(trace.samples, part[0], part[1]) ?? trace.samples) : trace.samples
  return { ...trace, samples: reversed ? reversedSamples(cut) : cut }
}

/** A trace whose points went through `map`, which is affine. */
export function mappedTrace<T extends PenTrace | KeptTrace | null>(trace: T, map: (p: Vec) => Vec): T {
  if (!trace) return trace
  if (isKept(trace)) return { ...trace, at: [...composed(matrixOfMap(map), trace.at)] }
  return { ...trace, samples: trace.samples.map((s) => ({ ...s, ...map(s) })) }
}

/** A trace drawn the other way. */
export function reversedTrace(trace: PenTrace | KeptTrace): PenTrace | KeptTrace {
  if (!isKept(trace)) return { ...trace, samples: reversedSamples(trace.samples) }
  const { reversed, ...rest } = trace
  return reversed ? rest : { ...rest, reversed: true }
}

/** The part of a trace between two shares 0..1 of its length; null where that is no stroke. */
export function partOfTrace(trace: PenTrace | KeptTrace, from: number, to: number): PenTrace | KeptTrace | null {
  if (!isKept(trace)) {
    const samples = partOfSamples(trace.samples, from, to)
    return samples && { ...trace, samples }
  }
  const [a, b] = trace.part ?? [0, 1]
  const [low, high] = trace.reversed ? [1 - to, 1 - from] : [from, to]
  return { ...trace, part: [a + (b - a) * low, a + (b - a) * high] }
}

function reversedSamples(samples: readonly TraceSample[]): TraceSample[] {
  const last = samples[samples.length - 1]?.t ?? 0
  return samples.map((s) => ({ ...s, t: last - s.t })).reverse()
}

function partOfSamples(samples: readonly TraceSample[], from: number, to: number): TraceSample[] | null {
  const lengths = [0]
  for (let i = 1; i < samples.length; i++) lengths.push(lengths[i - 1]! + distance(samples[i - 1]!, samples[i]!))
  const total = lengths[lengths.length - 1]! || 1
  const within = samples.filter((_, i) => lengths[i]! / total >= from && lengths[i]! / total <= to)
  const began = within[0]?.t ?? 0
  return within.length > 1 ? within.map((s) => ({ ...s, t: s.t - began })) : null
}

/** The matrix of a trace's place as it is stored: digits past what a screen can show are none. */
export const placeOnGrid = (at: Matrix): KeptTrace['at'] =>
  at.map((v: number, i: number) => Math.round(v * (i < 4 ? 1e7 : 1e5)) / (i < 4 ? 1e7 : 1e5) + 0) as KeptTrace['at']
