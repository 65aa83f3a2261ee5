import fitPoints from 'fit-curve'
import paper from 'paper/dist/paper-core.js'
import { fitCurve } from '../core/fit/fit-curve'
import { CubicChain } from '../core/fit/source'
import type { Cubic } from '../core/geometry/cubic'
import { cubic, flatten, straight } from '../core/geometry/cubic'
import { outlineOf } from '../core/outline/expand'
import { deviationBetween } from '../core/shapes/deviation'
import { strokes } from './strokes'

export interface NodeRow {
  curves: string
  rival: string
  ours: number
  theirs: number
  /** Deviation that both were held to, as measured, px. */
  deviation: number
}

type Point = [number, number]

/** Sides of strokes as dense polylines: what all three are given. */
const CURVES: Cubic[][] = strokes(24, 7).map((l) => {
  const outline = outlineOf(l, 0.002)[0]!
  return outline.slice(1, 1 + Math.ceil(outline.length / 2))
})

const pointsOf = (chain: readonly Cubic[]): Point[] =>
  chain.flatMap((c, i) => flatten(c, 0.002).slice(i ? 1 : 0)).map((p) => [p.x, p.y])

const vec = ([x, y]: Point): { x: number; y: number } => ({ x, y })

function byFitCurve(points: Point[], error: number): Cubic[] {
  return fitPoints(points, error).map(([a, b, c, d]) =>
    cubic(vec(a as Point), vec(b as Point), vec(c as Point), vec(d as Point)),
  )
}

function byPaper(points: Point[], tolerance: number): Cubic[] {
  paper.setup(new paper.Size(10, 10))
  const path = new paper.Path(points.map(([x, y]) => new paper.Point(x, y)))
  path.simplify(tolerance)
  const out = path.curves.map((c) => cubic(c.point1, c.point1.add(c.handle1), c.point2.add(c.handle2), c.point2))
  path.remove()
  return out
}

function byUs(points: Point[], tolerance: number): Cubic[] {
  const chain = points.slice(1).map((p, i) => straight(vec(points[i]!), vec(p)))
  return fitCurve(new CubicChain(chain), tolerance).map((f) => f.cubic)
}

/** The fewest cubics of a method whose measured deviation stays within `limit`, over a ladder of its own settings. */
function fewestWithin(fit: (points: Point[], setting: number) => Cubic[], points: Point[], limit: number): number {
  const truth = points.slice(1).map((p, i) => straight(vec(points[i]!), vec(p)))
  let best = Infinity
  for (let setting = limit * limit * 0.5; setting < limit * 40; setting *= 1.6) {
    const cubics = fit(points, setting)
    if (cubics.length < best && deviationBetween(truth, cubics, limit) <= limit) best = cubics.length
  }
  return best
}

export function nodeRows(): NodeRow[] {
  return [0.5, 0.1].flatMap((deviation) => {
    const totals = [byUs, byFitCurve, byPaper].map((fit) =>
      CURVES.reduce((n, c) => n + fewestWithin(fit, pointsOf(c), deviation), 0),
    )
    const row = (rival: string, theirs: number): NodeRow => ({
      curves: `${CURVES.length} sides of strokes`,
      rival,
      ours: totals[0]!,
      theirs,
      deviation,
    })
    return [row('fit-curve', totals[1]!), row("paper's simplify", totals[2]!)]
  })
}
