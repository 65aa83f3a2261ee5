import type { Line, Path, Shape } from '../drawing/model'
import { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { reach } from '../geometry/cubic'
import { cubicsOfPath } from '../geometry/path'
import type { Loop } from '../shapes/loop'
import { whole } from '../shapes/loop'
import { checkTolerance, resolveLoops, toPaths } from '../shapes/union'
import { LineWidth } from '../weight/half-widths'
import { checkLine } from './check'
import { capLoops, joinLoops } from './ends-and-corners'
import { nibLoops } from './nib'
import { ribbonPiece } from './ribbon'
import type { Section } from './sides'
import { sectionAt, WeighedSegment } from './sides'
import type { Stretch } from './visible'
import { visibleStretches } from './visible'

/** How much of the tolerance the fitting of sides, joins and caps may use. */
const FIT_SHARE = 0.5

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
  return resolveLoops(inkLoops(line, tolerance * FIT_SHARE), tolerance)
}

/**
 * Shapes of many lines: one shape a line, or with `union` one shape an ink, in the order in which inks first appear.
 * `onProgress` hears how many lines are done.
 */
export function expandLines(
  lines: readonly Line[],
  { tolerance, union, onProgress }: ExpandOptions & { union: boolean; onProgress?: (done: number) => void },
): Shape[] {
  const outlines = lines.map((line, i) => {
    const outline = outlineOf(line, tolerance)
    onProgress?.(i + 1)
    return outline
  })
  if (!union) {
    return lines
      .map((l, i) => ({ id: `${l.id}:shape`, contours: toPaths(outlines[i]!), ink: l.ink, from: [l.id] }))
      .filter((s) => s.contours.length)
  }
  const inks = [...new Set(lines.map((l) => l.ink))]
  return inks.map((ink) => {
    const mine = lines.flatMap((l, i) => (l.ink === ink ? [i] : []))
    const loops = mine.flatMap((i) => outlines[i]!.map((contour) => contour.map(whole)))
    return {
      id: `${ink}:shape`,
      contours: toPaths(resolveLoops(loops, tolerance)),
      ink,
      from: mine.map((i) => lines[i]!.id),
    }
  })
}

/** Loops whose union by the non-zero rule is the line's region. */
function inkLoops(line: Line, tolerance: number): Loop[] {
  const { path } = line
  const cubics = cubicsOfPath(path).filter((c) => reach(c) > 0)
  const arc = new ArcLength(cubics)
  const width = new LineWidth(line.weight, line.finish.align, arc.total, path.closed)
  if (!cubics.length || arc.total === 0) return dot(line, width, tolerance)
  const stretches = visibleStretches(line, arc.total)
  if (line.weight.nib) return stretches.flatMap((s) => nibLoops(line, arc, s, tolerance))
  const closed = path.closed && stretches.length === 1 && stretches[0]!.from === 0 && stretches[0]!.to === arc.total
  return stretches.flatMap((s) => stretchLoops(line, arc, width, s, closed, tolerance))
}

function stretchLoops(
  line: Line,
  arc: ArcLength,
  width: LineWidth,
  stretch: Stretch,
  closed: boolean,
  tolerance: number,
): Loop[] {
  const { finish } = line
  const loops: Loop[] = []
  let first: Section | null = null
  let last: Section | null = null
  for (const { segment, t0, t1 } of smoothParts(arc, width, stretch)) {
    const piece = ribbonPiece(
      new WeighedSegment(arc, segment, width),
      t0,
      t1,
      last,
      width.roundStart && segment === 0 && t0 === 0,
      width.roundEnd && segment === arc.cubics.length - 1 && t1 === 1,
      tolerance,
    )
    if (!piece) continue
    if (last) loops.push(...joinLoops(last, piece.start, finish.join, finish.miterLimit, tolerance))
    first ??= piece.start
    last = piece.end
    loops.push(...piece.loops)
  }
  if (!first || !last) return loops
  if (closed) loops.push(...joinLoops(last, first, finish.join, finish.miterLimit, tolerance))
  else {
    loops.push(...capLoops(first, finish.startCap, 'start', tolerance))
    loops.push(...capLoops(last, finish.endCap, 'end', tolerance))
  }
  return loops
}

/** The parts of a stretch between nodes, stops and tapers' inner ends. */
function smoothParts(arc: ArcLength, width: LineWidth, { from, to }: Stretch): { segment: number; t0: number; t1: number }[] {
  const least = 1e-9 * arc.total
  const marks = [from, to]
  for (const s of [...arc.starts, ...width.breaks]) if (s > from + least && s < to - least) marks.push(s)
  marks.sort((a, b) => a - b)
  const out: { segment: number; t0: number; t1: number }[] = []
  for (let i = 0; i + 1 < marks.length; i++) {
    const a = marks[i]!
    const b = marks[i + 1]!
    if (b - a <= least) continue
    const { segment } = arc.locate((a + b) / 2)
    const parameter = (s: number): number => {
      if (Math.abs(s - arc.starts[segment]!) <= least) return 0
      if (Math.abs(s - arc.starts[segment + 1]!) <= least) return 1
      return arc.locate(s).t
    }
    out.push({ segment, t0: parameter(a), t1: parameter(b) })
  }
  return out
}

/** A line without length: as in SVG, round and square caps still make a mark. */
function dot(line: Line, width: LineWidth, tolerance: number): Loop[] {
  const section = sectionAt(line.path.nodes[0]!.at, { x: 1, y: 0 }, width.at(0))
  const { startCap, endCap } = line.finish
  return [...capLoops(section, startCap, 'start', tolerance), ...capLoops(section, endCap, 'end', tolerance)]
}
