import fitPoints from 'fit-curve'
import { getStroke } from 'perfect-freehand'
import { evenWeight, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import { areaOfCubics } from '../core/geometry/area'
import type { Cubic } from '../core/geometry/cubic'
import { flatten, straight } from '../core/geometry/cubic'
import { cubicsOfPath } from '../core/geometry/path'
import type { Vec } from '../core/geometry/point'
import { outlineOf } from '../core/outline/expand'
import { deviationBetween } from '../core/shapes/deviation'
import { whole } from '../core/arrangement/loop'
import { resolveLoops } from '../core/arrangement/resolve'
import { loadClipper } from './clipper'
import { strokes } from './strokes'
import { medianTime, sideBySide, timeOnce } from './timing'

export const TOLERANCE = 0.05

/** Flattening for the polygon library at which a thousand outlines have about 200,000 edges, px. */
const FLAT = 0.025

export interface SpeedRow {
  work: string
  rival: string
  ours: number
  theirs: number
  /** What goes with the times: sizes and accuracy. */
  notes: string
}

type Clip = Awaited<ReturnType<typeof loadClipper>>

const union = (outlines: readonly Cubic[][]): Cubic[][] =>
  resolveLoops(
    outlines.map((c) => c.map(whole)),
    TOLERANCE,
  )
const polygonsOf = (contours: readonly Cubic[][], tolerance: number): Vec[][] =>
  contours.map((c) => c.flatMap((s) => flatten(s, tolerance).slice(1)))
const areaOf = (contours: readonly Cubic[][]): number => contours.reduce((a, c) => a + areaOfCubics(c), 0)
const count = (contours: readonly (readonly unknown[])[]): number => contours.reduce((n, c) => n + c.length, 0)

export async function speedRows(): Promise<SpeedRow[]> {
  const clip = await loadClipper()
  const lines = strokes(1000)
  const outlines = lines.flatMap((l) => outlineOf(l, TOLERANCE))
  const polygons = polygonsOf(outlines, FLAT)
  const united = union(outlines)
  const clipped = clip(polygons)
  const [ours, theirs] = sideBySide([() => void union(outlines), () => void clip(polygons)])
  const [oursExpand, theirsExpand] = sideBySide([
    () => lines.forEach((l) => outlineOf(l, TOLERANCE)),
    () => lines.forEach((l) => clip([strokeOf(l)])),
  ])
  const points = lines.reduce((n, l) => n + clip([strokeOf(l)]).points, 0)
  const deviation = lines
    .slice(0, 100)
    .reduce(
      (worst, l) =>
        Math.max(
          worst,
          deviationBetween(outlineOf(l, TOLERANCE).flat(), outlineOf(l, TOLERANCE / 50).flat(), TOLERANCE),
        ),
      0,
    )
  return [
    {
      work: 'union of 1,000 outlines',
      rival: `clipper2-wasm, ${count(polygons).toLocaleString('en')} edges`,
      ours: ours!,
      theirs: theirs!,
      notes: `${count(united).toLocaleString('en')} cubics against ${clipped.points.toLocaleString('en')} points; areas agree to ${Math.abs(areaOf(united) / clipped.area - 1).toExponential(1)}`,
    },
    hatchingRow(clip),
    curvedHatchingRow(clip),
    {
      work: 'expansion of 1,000 lines at 0.05 px',
      rival: 'perfect-freehand + clipper2-wasm',
      ours: oursExpand!,
      theirs: theirsExpand!,
      notes: `${count(outlines).toLocaleString('en')} cubics against ${points.toLocaleString('en')} points; deviation from outlines fifty times as fine ${deviation.toFixed(3)} px`,
    },
    sameOutputRow(clip, lines),
  ]
}

/** Cubic outlines from both sides: the polygons of the one are fitted to within the same tolerance. */
function sameOutputRow(clip: Clip, lines: readonly Line[]): SpeedRow {
  const fitted = (line: Line): Fit => {
    const { polygons } = clip([strokeOf(line)], true)
    return { polygons, cubics: polygons.map((p) => cubicsThrough([...p, p[0]!])) }
  }
  const fits = lines.slice(0, 100).map(fitted)
  const deviation = fits.reduce(
    (worst, { polygons, cubics }) =>
      Math.max(worst, deviationBetween(cubics.flat(), polygons.flatMap(edgesOf), TOLERANCE)),
    0,
  )
  const [ours, theirs] = sideBySide(
    [() => lines.forEach((l) => outlineOf(l, TOLERANCE)), () => lines.forEach(fitted)],
    1,
  )
  return {
    work: 'the same, to cubic outlines on both sides',
    rival: 'perfect-freehand + clipper2-wasm + fit-curve',
    ours: ours!,
    theirs: theirs!,
    notes: `of the first 100 lines: ${count(lines.slice(0, 100).flatMap((l) => outlineOf(l, TOLERANCE)))} cubics against ${count(fits.flatMap((f) => f.cubics))}; theirs leave their polygons by up to ${deviation.toFixed(3)} px`,
  }
}

interface Fit {
  polygons: Vec[][]
  cubics: Cubic[][]
}

const cubicsThrough = (points: readonly Vec[]): Cubic[] =>
  fitPoints(
    points.map(({ x, y }) => [x, y]),
    TOLERANCE * TOLERANCE,
  ).map((c) => {
    const [p0, p1, p2, p3] = c.map(([x, y]) => ({ x: x!, y: y! }))
    return { p0: p0!, p1: p1!, p2: p2!, p3: p3! }
  })

const edgesOf = (polygon: readonly Vec[]): Cubic[] =>
  polygon.map((p, i) => straight(p, polygon[(i + 1) % polygon.length]!))

/** Cross-hatching: as many crossings as strokes times strokes. */
function hatchingRow(clip: Clip): SpeedRow {
  const n = 200
  const reach = n * 8
  const rect = (x0: number, y0: number, x1: number, y1: number): Cubic[] => {
    const corners = [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ]
    return corners.map((p, i) => straight(p, corners[(i + 1) % 4]!))
  }
  const outlines = Array.from({ length: n }, (_, i) => 4 + 8 * i).flatMap((at) => [
    rect(at - 0.5, 0, at + 0.5, reach),
    rect(0, at - 0.5, reach, at + 0.5),
  ])
  return crossedRow(clip, `union of cross-hatching, ${n} lines a direction`, n, outlines)
}

/** The same with strokes that bend, round at their ends, the second lot askew. */
function curvedHatchingRow(clip: Clip): SpeedRow {
  const n = 120
  const reach = n * 4
  const hatching = (degrees: number, bend: number): Line[] =>
    Array.from({ length: n }, (_, i) => {
      const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)]
      const turned = (x: number, y: number): Vec => ({ x: reach + x * c - y * s, y: reach + x * s + y * c })
      const y = 4 * (i - n / 2)
      const node = { in: null, out: null, joint: 'corner' as const }
      const path = {
        nodes: [
          { ...node, at: turned(-reach / 2, y), out: turned(-reach / 6, y + bend * reach) },
          { ...node, at: turned(reach / 2, y), in: turned(reach / 6, y + bend * reach) },
        ],
        closed: false,
      }
      return newLine(path, { weight: evenWeight(1) })
    })
  const outlines = [...hatching(0, 0.08), ...hatching(67, 0.05)].flatMap((l) => outlineOf(l, TOLERANCE))
  return crossedRow(clip, `the same, curved, ${n} lines a direction`, n, outlines)
}

function crossedRow(clip: Clip, work: string, n: number, outlines: readonly Cubic[][]): SpeedRow {
  const polygons = polygonsOf(outlines, FLAT)
  const [ours, theirs] = sideBySide([() => void union(outlines), () => void clip(polygons)], 1)
  return {
    work,
    rival: 'clipper2-wasm',
    ours: ours!,
    theirs: theirs!,
    notes: `${(n * n).toLocaleString('en')} crossings; areas agree to ${Math.abs(areaOf(union(outlines)) / clip(polygons).area - 1).toExponential(1)}`,
  }
}

/** The other library's outline of a line's centreline: its width model is not ours, only the amount of work is alike. */
function strokeOf(line: Line): Vec[] {
  const points = cubicsOfPath(line.path).flatMap((c, i) => flatten(c, 0.02).slice(i ? 1 : 0))
  return getStroke(
    points.map((p) => [p.x, p.y, 0.5]),
    { size: line.weight.size, thinning: 0.5, smoothing: 0.5, streamline: 0, simulatePressure: false },
  ).map(([x, y]) => ({ x: x!, y: y! }))
}

export interface Growth {
  lines: number
  expand: number
  unite: number
}

/** Times for 100, 1,000 and 10,000 lines, ms; the largest is timed once. */
export function growth(): Growth[] {
  return [100, 1000, 10_000].map((lines) => {
    const all = strokes(lines)
    let outlines: Cubic[][] = []
    const expand = (): void => void (outlines = all.flatMap((l) => outlineOf(l, TOLERANCE)))
    const unite = (): void => void union(outlines)
    const time = lines > 1000 ? timeOnce : medianTime
    return { lines, expand: time(expand), unite: time(unite) }
  })
}
