import type { Line } from '../model/model'
import type { Path } from '../geometry/path'
import { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { reach } from '../geometry/cubic'
import { cubicsOfPath } from '../geometry/path'
import { scale } from '../geometry/point'
import type { Loop } from '../arrangement/loop'
import { loopOf, reverseLoop } from '../arrangement/loop'
import { resolveGroups, resolveLoops } from '../arrangement/resolve'
import { checkTolerance, loopOfPath, toPaths } from '../arrangement/contours'
import { LineWidth } from '../weight/half-widths'
import { roughWeight } from '../weight/rough'
import { checkLine } from './check'
import { capArcs } from './joins-and-caps'
import { nibLoops } from './nib'
import type { Parts } from './parts'
import { partsOf, seamOf } from './parts'
import { NormalRibs } from './ribs'
import type { Meet } from './side-chain'
import { closedLoop, sideChain } from './side-chain'
import type { Stretch } from './visible'
import { isDashed, visibleStretches } from './visible'

/** How much of the tolerance the fitting of sides, joins and caps may use; the rest is for what the grid moves. */
const FIT_SHARE = 0.82

/** So many dashes in a row are united before they meet the others. */
const RUN = 16

/** Expands lines into outlines; see `expandLine`. */
export interface ExpandOptions {
  /** px, above 0 */
  tolerance: number
}

/**
 * The outline of a line's ink: closed contours that do not cross themselves, the ink on their left (outer loops have
 * positive area, holes negative), nowhere farther than `tolerance` px from the true boundary of the region defined by
 * ribbon, joins and caps. Degenerate lines give an empty or a dot-like outline.
 *
 * @throws InputError naming the field, for numbers that are not finite, negative widths and empty paths
 */
export function expandLine(line: Line, { tolerance }: ExpandOptions): Path[] {
  return toPaths(outlineOf(line, tolerance))
}

/** As `expandLine`, in cubics. */
export function outlineOf(line: Line, tolerance: number): Cubic[][] {
  checkTolerance(tolerance)
  checkLine(line)
  const ink = resolveLoops(mergedByRuns(inkLoops(line, tolerance * FIT_SHARE), tolerance), tolerance)
  return line.scrapes?.length ? withoutScrapes(ink, line.scrapes, tolerance) : ink
}

/** What of an outline is not scraped away. */
function withoutScrapes(ink: Cubic[][], scrapes: readonly Path[], tolerance: number): Cubic[][] {
  const groups = [ink.map(loopOf), scrapes.map(loopOfPath)]
  return resolveGroups(groups, tolerance, ({ covered, winding }) => covered === 1 && winding[0] !== 0)
}

/**
 * Dashes that follow one another are united in runs first: where each overlaps many of its neighbours, most of what
 * would cross is gone before all are brought together.
 */
function mergedByRuns(dashes: readonly Loop[][], tolerance: number): Loop[] {
  if (dashes.length < 2 * RUN) return dashes.flat()
  const runs = Array.from({ length: Math.ceil(dashes.length / RUN) }, (_, i) =>
    dashes.slice(i * RUN, (i + 1) * RUN).flat(),
  )
  return runs.flatMap((loops) => resolveLoops(loops, tolerance).map(loopOf))
}

/** For each visible stretch of a line, loops whose union by the non-zero rule is its region. */
function inkLoops(smooth: Line, tolerance: number): Loop[][] {
  const { path, finish } = smooth
  const cubics = cubicsOfPath(path).filter((c) => reach(c) > 0)
  const arc = new ArcLength(cubics)
  const line = finish.rough ? { ...smooth, weight: roughWeight(smooth, arc.total) } : smooth
  const width = new LineWidth(line.weight, finish.align, arc.total, path.closed)
  if (!cubics.length || arc.total === 0) return [dot(line, width, tolerance)]
  const stretches = visibleStretches(line, arc.total)
  if (line.weight.nib) return stretches.map((s) => nibLoops(line, arc, s, tolerance))
  const closed = path.closed && stretches.length === 1 && stretches[0]!.from === 0 && stretches[0]!.to === arc.total
  return overSeam(line, stretches, arc.total).map((run) => stretchLoops(line, arc, width, run, closed, tolerance))
}

/** Stretches in runs, each by itself but for those of a closed line that meet at its seam: they go on there, unless these are dashes. */
function overSeam(line: Line, stretches: readonly Stretch[], total: number): Stretch[][] {
  const [first, last] = [stretches[0], stretches[stretches.length - 1]]
  const meet = first !== last && first?.from === 0 && last?.to === total
  if (!line.path.closed || !meet || isDashed(line, total)) return stretches.map((s) => [s])
  return [[last!, first!], ...stretches.slice(1, -1).map((s) => [s])]
}

function stretchLoops(
  line: Line,
  arc: ArcLength,
  width: LineWidth,
  run: readonly Stretch[],
  closed: boolean,
  tolerance: number,
): Loop[] {
  const { finish } = line
  const field = new NormalRibs(arc, width)
  const seam = seamOf(arc, width, tolerance)
  const all = joined(
    run.map((s) => partsOf(arc, width, s, tolerance)),
    seam,
  )
  if (closed && all.meets.length) all.meets[0] = seam
  const groups = inked(
    all,
    (segment, t) => {
      const h = width.at(arc.at(segment, t))
      return h.left + h.right > 0
    },
    closed,
  )
  const whole = closed && groups.length === 1 && groups[0]!.parts.length === all.parts.length
  return groups.flatMap((group): Loop[] => {
    const left = sideChain(field, 1, group.parts, group.meets, whole, finish, tolerance)
    const right = sideChain(field, -1, group.parts, group.meets, whole, finish, tolerance)
    const loops = [...left.loops, ...right.loops]
    if (whole) return [closedLoop(left.arcs), closedLoop(reverseLoop(right.arcs)), ...loops]
    const first = group.parts[0]!
    const last = group.parts[group.parts.length - 1]!
    const atStart = first === all.parts[0] && !closed
    const atEnd = last === all.parts[all.parts.length - 1] && !closed
    const back = scale(field.tangent(first.segment, first.t0), -1)
    const outline = closedLoop([
      ...left.arcs,
      ...capArcs(
        left.last,
        right.last,
        field.tangent(last.segment, last.t1),
        atEnd ? (run[run.length - 1]!.endCap ?? finish.endCap) : 'butt',
        tolerance,
      ),
      ...reverseLoop(right.arcs),
      ...capArcs(right.first, left.first, back, atStart ? (run[0]!.startCap ?? finish.startCap) : 'butt', tolerance),
    ])
    return [outline, ...loops]
  })
}

/** Parts one after the other that meet at the seam. */
const joined = (all: readonly Parts[], seam: Meet): Parts => ({
  parts: all.flatMap((p) => p.parts),
  meets: all.flatMap(({ meets }, i) => (i > 0 ? [seam, ...meets.slice(1)] : meets)),
})

/** The parts in groups that follow one another, on a closed line over its seam, without those that have no width anywhere. */
function inked({ parts, meets }: Parts, hasInk: (segment: number, t: number) => boolean, closed: boolean): Parts[] {
  const groups: Parts[] = []
  let open = false
  parts.forEach((p, i) => {
    const inside = [0.03, 0.25, 0.5, 0.75, 0.97].some((u) => hasInk(p.segment, p.t0 + (p.t1 - p.t0) * u))
    if (inside && !open) groups.push({ parts: [], meets: [] })
    open = inside
    if (!inside) return
    groups[groups.length - 1]!.parts.push(p)
    groups[groups.length - 1]!.meets.push(meets[i]!)
  })
  const [first, last] = [groups[0], groups[groups.length - 1]]
  const overSeam = closed && first !== last && first?.parts[0] === parts[0] && last?.parts.at(-1) === parts.at(-1)
  return overSeam ? [joined([last!, first!], meets[0]!), ...groups.slice(1, -1)] : groups
}

/** A line without length: as in SVG, round and square caps still make a mark. */
function dot(line: Line, width: LineWidth, tolerance: number): Loop[] {
  const { at } = line.path.nodes[0]!
  const { left, right } = width.at(0)
  const { startCap, endCap } = line.finish
  const l = { x: at.x, y: at.y - left }
  const r = { x: at.x, y: at.y + right }
  const arcs = [
    ...capArcs(l, r, { x: 1, y: 0 }, endCap, tolerance),
    ...capArcs(r, l, { x: -1, y: 0 }, startCap, tolerance),
  ]
  return arcs.length ? [arcs] : []
}
