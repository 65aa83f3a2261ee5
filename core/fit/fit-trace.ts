import type { Path } from '../geometry/path'
import type { PenTrace, TraceSample, WidthStop } from '../model/model'
import { InputError } from '../errors'
import type { Cubic } from '../geometry/cubic'
import { cubic, straight } from '../geometry/cubic'
import { pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import { fitCurve } from './fit-curve'
import { closedThere, loopOfTrace } from './loop-of-trace'
import { pressureStops, quickStops } from './pressure-stops'
import { CubicChain } from './source'
import { squaredRuns } from './square-up'
import { evenlySpaced, steadied, thinned } from './steady'
import { cornersOf } from './trace-corners'

export interface TraceOptions {
  /** 0 as drawn .. 1 very steady. */
  steadiness: number
  /** How far the path may lie from the steadied trace, px, above 0. */
  tolerance: number
  /** What a px of the screen was on the page when it was drawn, px: steadying and corners are in the hand's own measure. */
  grain?: number
  /** Near-straight runs become straight, and turns corners. */
  squared?: boolean
  /** The stroke is still being drawn: more stops, at once. */
  quick?: boolean
}

/** How far the path of a trace that was drawn at full size may lie from it, px. */
const HAND_TOLERANCE = 0.7
/** Standard deviation of the steadying at steadiness 1, in grains of arc length. */
export const STEADIEST = 24
/** Turns sharper than this over the window (grains) on either side are corners, radians. */
export const CORNER = { turn: 1.2, window: 5 }

/**
 * A hand's trace as a path of few nodes and the stops of its pressure. The ends stay where the hand put them; sharp
 * turns stay corners; in between the trace is steadied by a Gaussian over its arc length. A trace that never leaves one
 * place gives a path of one node.
 *
 * @throws InputError for an empty trace or a sample that is not a number
 */
export function fitTrace(
  trace: PenTrace,
  { steadiness, tolerance, grain = 1, squared = false, quick = false }: TraceOptions,
): { path: Path; stops: WidthStop[] } {
  checkSamples(trace)
  return {
    path: pathOfSamples(trace.samples, { steadiness, tolerance, grain, squared }),
    stops: (quick ? quickStops : pressureStops)(trace),
  }
}

function pathOfSamples(
  samples: readonly TraceSample[],
  { steadiness, tolerance, grain, squared }: Required<Omit<TraceOptions, 'quick'>>,
): Path {
  const points = evenlySpaced(samples, grain)
  if (points.length < 2) return { nodes: [{ at: points[0]!, in: null, out: null, joint: 'corner' }], closed: false }
  const runs = squared ? squaredRuns(points, grain) : runsBetween(points, cornersOf(points, CORNER))
  const cubics: Cubic[] = []
  for (const run of runs) {
    if (run.straight) {
      cubics.push(straight(run.points[0]!, run.points[run.points.length - 1]!))
      continue
    }
    cubics.push(...fitSteadied(steadied(run.points, steadiness * STEADIEST), { tolerance, grain }))
  }
  return pathOfCubics(cubics, false, Math.min(0.01 * grain, tolerance / 10))
}

/** Few cubics along the points of a steadied run. */
export function fitSteadied(
  points: readonly Vec[],
  { tolerance, grain }: { tolerance: number; grain: number },
): Cubic[] {
  const chain = throughPoints(thinned(points, Math.round(Math.min(6, Math.max(1, (tolerance / grain) * 5)))))
  return fitCurve(new CubicChain(chain), tolerance).map((f) => f.cubic)
}

/** The path and stops of a trace by what it holds itself. */
export const fitByTrace = (trace: PenTrace): { path: Path; stops: WidthStop[] } => fitTrace(trace, optionsOf(trace))

/** The path alone, as `fitByTrace` gives it. */
export function pathByTrace(trace: PenTrace): Path {
  checkSamples(trace)
  return trace.loop
    ? closedThere(pathOfSamples(loopOfTrace(trace).samples, optionsOf(trace)))
    : pathOfSamples(trace.samples, optionsOf(trace))
}

/** The options of fitting that a trace holds. */
export function optionsOf({
  steadiness,
  squared = false,
  zoom = 1,
}: Pick<PenTrace, 'steadiness' | 'squared' | 'zoom'>): Required<Omit<TraceOptions, 'quick'>> {
  return { steadiness, squared, grain: 1 / zoom, tolerance: HAND_TOLERANCE / zoom }
}

function checkSamples({ samples }: PenTrace): void {
  if (!samples.length) throw new InputError('samples', 'The trace has no samples: draw again.')
  samples.forEach((s, i) => {
    if (![s.x, s.y, s.t, s.pressure].every(Number.isFinite))
      throw new InputError(`samples[${i}]`, `Sample ${i} of the trace is not a number.`)
  })
}

const runsBetween = (points: readonly Vec[], corners: readonly number[]): { points: Vec[]; straight: boolean }[] => {
  const cuts = [0, ...corners, points.length - 1]
  return cuts.slice(1).map((to, i) => ({ points: points.slice(cuts[i], to + 1), straight: false }))
}

/** A smooth chain through points (E. Catmull and R. Rom, A class of local interpolating splines, 1974). */
function throughPoints(points: readonly Vec[]): Cubic[] {
  const n = points.length
  const slope = (i: number): Vec => {
    const a = points[Math.max(0, i - 1)]!
    const b = points[Math.min(n - 1, i + 1)]!
    const k = i === 0 || i === n - 1 ? 1 : 0.5
    return { x: (b.x - a.x) * k, y: (b.y - a.y) * k }
  }
  return points.slice(1).map((q, i) => {
    const p = points[i]!
    const a = slope(i)
    const b = slope(i + 1)
    return cubic(p, { x: p.x + a.x / 3, y: p.y + a.y / 3 }, { x: q.x - b.x / 3, y: q.y - b.y / 3 }, q)
  })
}
