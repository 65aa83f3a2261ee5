import type { Line, Weight, WidthStop } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { newLine } from '#core/model/create'
import { ArcLength } from '../../core/geometry/arc-length'
import type { Cubic } from '../../core/geometry/cubic'
import { flatten, subcurve } from '../../core/geometry/cubic'
import { cubicsOfPath, pathOfCubics } from '../../core/geometry/path'
import { Profile } from '../../core/weight/profile'

/** What hides the lines behind it: a polygon. */
export type Front = readonly Vec[]

/** The front that paths enclose when they follow one another. */
export const front = (...paths: Path[]): Front =>
  paths.flatMap((p) => cubicsOfPath(p).flatMap((c) => flatten(c, 0.1).slice(1)))

/** A part of a drawing: its lines, the front with which it hides what lies behind, and the layer that it goes on. */
export interface Part {
  layer: string
  lines: readonly Line[]
  front?: Front
}

/** Parts told from the front to the back, each hidden by all before it, as layers from the bottom to the top. */
export function stacked(parts: readonly Part[]): { name: string; lines: Line[] }[] {
  const layers = new Map<string, Line[]>()
  const fronts: Front[] = []
  for (const { layer, lines, front: mine } of parts) {
    layers.set(layer, [...(layers.get(layer) ?? []), ...behind(lines, fronts)])
    if (mine) fronts.push(mine)
  }
  return [...layers].reverse().map(([name, lines]) => ({ name, lines }))
}

/** Parts shorter than this (px) are crumbs, not strokes: at an end of the line, and between two cuts. */
const CRUMB = { end: 5, between: 16 }
/** Over this length (px) a line narrows to tuck under the one in front. */
const TUCK = 16

/**
 * The parts of lines that no front hides. A cut end lies on the front's edge, no wider than `widest` px, so that it tucks
 * under the outline drawn there.
 */
export function behind(lines: readonly Line[], fronts: readonly Front[], widest = 4.4): Line[] {
  return lines.flatMap((line) => {
    const hidden = (p: Vec): boolean => fronts.some((f) => inside(f, p))
    const parts = visibleParts(line.path, hidden)
    return parts === null ? [line] : parts.map((part) => cutOut(line, part, widest))
  })
}

/** A stretch of a path by arc length, px; on a closed path `to` may lie beyond its length. */
interface Stretch {
  from: number
  to: number
  cutStart: boolean
  cutEnd: boolean
}

function visibleParts(path: Path, hidden: (p: Vec) => boolean): Stretch[] | null {
  const arc = new ArcLength(cubicsOfPath(path))
  const { total } = arc
  const at = (s: number): boolean => hidden(arc.point(path.closed ? s % total : s))
  const steps = Math.ceil(total)
  const states = Array.from({ length: steps + 1 }, (_, i) => at((i / steps) * total))
  if (!states.includes(true)) return null
  const start = path.closed ? (states.indexOf(true) / steps) * total : 0
  const parts: Stretch[] = []
  let open: Stretch | null = null
  let before = at(start)
  if (!before) open = { from: start, to: start, cutStart: false, cutEnd: false }
  for (let i = 1; i <= steps; i++) {
    const s = start + (i / steps) * total
    const now = at(s)
    if (now !== before) {
      const edge = bisect(at, s - total / steps, s, before)
      if (now && open) parts.push({ ...open, to: edge, cutEnd: true })
      open = now ? null : { from: edge, to: edge, cutStart: true, cutEnd: false }
    }
    before = now
  }
  if (open) parts.push({ ...open, to: start + total })
  return parts.filter((p) => p.to - p.from > (p.cutStart && p.cutEnd ? CRUMB.between : CRUMB.end))
}

function bisect(at: (s: number) => boolean, low: number, high: number, atLow: boolean): number {
  for (let i = 0; i < 30; i++) {
    const mid = (low + high) / 2
    if (at(mid) === atLow) low = mid
    else high = mid
  }
  return (low + high) / 2
}

function cutOut(line: Line, part: Stretch, widest: number): Line {
  const cubics = cubicsOfPath(line.path)
  const once = new ArcLength(cubics)
  const arc = line.path.closed ? new ArcLength([...cubics, ...cubics]) : once
  const a = arc.locate(part.from)
  const b = arc.locate(part.to)
  const pieces: Cubic[] = []
  for (let i = a.segment; i <= b.segment; i++) {
    const t0 = i === a.segment ? a.t : 0
    const t1 = i === b.segment ? b.t : 1
    if (t1 - t0 > 1e-6) pieces.push(subcurve(arc.cubics[i]!, t0, t1))
  }
  return newLine(pathOfCubics(pieces, false), { weight: cutWeight(line, part, once.total, widest) })
}

/** The widths that the line had along the part, less at cut ends. */
function cutWeight(line: Line, part: Stretch, total: number, widest: number): Weight {
  const { weight, path } = line
  const profile = new Profile(weight.stops, path.closed)
  const length = part.to - part.from
  const stopAt = (s: number): WidthStop => {
    const u = path.closed ? (s / total) % 1 : s / total
    const held = (w: number): number =>
      (s === part.from && part.cutStart) || (s === part.to && part.cutEnd) ? Math.min(w, widest / weight.size) : w
    return {
      at: (s - part.from) / length,
      left: held(profile.sampleLeft(u).value),
      right: held(profile.sampleRight(u).value),
    }
  }
  const places = new Set([part.from, part.to])
  if (part.cutStart && length > 3 * TUCK) places.add(part.from + TUCK)
  if (part.cutEnd && length > 3 * TUCK) places.add(part.to - TUCK)
  for (const stop of weight.stops) {
    for (const s of [stop.at * total, (stop.at + 1) * total])
      if (s > part.from + TUCK && s < part.to - TUCK) places.add(s)
  }
  return { ...weight, stops: [...places].sort((s, t) => s - t).map(stopAt) }
}

function inside(polygon: Front, p: Vec): boolean {
  let is = false
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [polygon[i]!, polygon[j]!]
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) is = !is
  }
  return is
}
