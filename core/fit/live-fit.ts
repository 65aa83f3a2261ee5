import type { Path } from '../geometry/path'
import type { TraceSample } from '../model/model'
import type { Cubic } from '../geometry/cubic'
import { pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'
import type { TraceOptions } from './fit-trace'
import { CORNER, fitSteadied, STEADIEST } from './fit-trace'
import { evenlySpaced, steadied } from './steady'
import { cornersOf } from './trace-corners'

/** A tail longer than this is fitted for good up to where the hand can change nothing any more, points. */
const LONG = 520
/** The steadying looks so many standard deviations to either side. */
const LOOK = 3
/** What is left to follow the hand beyond that, points. */
const LOOSE = 60

/**
 * The path of a trace while it is being drawn. What lies far behind the hand is fitted once, so that the work of a step
 * does not grow with the trace; short traces give the very path of `fitTrace`.
 */
export class LiveFit {
  private points: Vec[] = []
  private readonly done: Cubic[] = []
  /** The first point that is not fitted for good. */
  private from = 0
  /** The first point that the steadying of those after `from` may look at: the last corner. */
  private corner = 0
  private taken = 0

  constructor(private readonly options: Required<Omit<TraceOptions, 'squared' | 'quick'>>) {}

  /** The path up to the last of `samples`, which hold those of the call before and maybe more. */
  path(samples: readonly TraceSample[]): Path {
    const { grain, tolerance } = this.options
    this.append(samples)
    // A hand that has not left its place: one point, however many samples.
    if (this.points.length < 2)
      return { nodes: [{ at: this.points[0]!, in: null, out: null, joint: 'corner' }], closed: false }
    const cubics = [...this.done]
    const cuts = [this.from, ...this.cornersAfter(), this.points.length - 1]
    for (let i = 0; i + 1 < cuts.length; i++) cubics.push(...this.fitRun(cuts[i]!, cuts[i + 1]!))
    this.fixTail()
    return pathOfCubics(cubics, false, Math.min(0.01 * grain, tolerance / 10))
  }

  /** Spaces the samples; all but the last point stay as they are when more come. */
  private append(samples: readonly TraceSample[]): void {
    if (this.taken === samples.length) return
    this.points = evenlySpaced(samples, this.options.grain)
    this.taken = samples.length
  }

  private cornersAfter(): number[] {
    const lead = Math.max(0, this.from - CORNER.window)
    return cornersOf(this.points.slice(lead), CORNER)
      .map((i) => i + lead)
      .filter((i) => i > this.from)
  }

  /** Points `from` to `to`, steadied with what lies before and after them in their run. */
  private steady(from: number, to: number): Vec[] {
    const lead = from === this.from ? Math.max(this.corner, from - this.look) : from
    return steadied(this.points.slice(lead, to + 1), this.options.steadiness * STEADIEST).slice(from - lead)
  }

  private get look(): number {
    return Math.ceil(LOOK * this.options.steadiness * STEADIEST) + 1
  }

  private fitRun(from: number, to: number): Cubic[] {
    return fitSteadied(this.steady(from, to), this.options)
  }

  /** Fits for good what no later point can change. */
  private fixTail(): void {
    const last = this.points.length - 1
    if (last - this.from < LONG) return
    const [corner] = this.cornersAfter()
    const safe = last - this.look - LOOSE
    const to = corner !== undefined && corner <= safe ? corner : safe
    // Up to a corner the run is whole; else it is steadied with what follows, and cut.
    const run = to === corner ? this.steady(this.from, to) : this.steady(this.from, last).slice(0, to - this.from + 1)
    this.done.push(...fitSteadied(run, this.options))
    if (to === corner) this.corner = to
    this.from = to
  }
}
