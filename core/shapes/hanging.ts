import { arcOfPath, boxOfPath } from '../geometry/known'
import { grown, isWithin } from '../geometry/bounds'
import type { Vec } from '../geometry/point'
import { cross, distance, rotate, subtract } from '../geometry/point'
import type { Hanging, Line } from '../model/model'
import { LineWidth } from '../weight/half-widths'

/** An edit farther from a line's edge than so many of its sizes has nothing to do with it. */
const FARTHEST = 3

/** Where a line is thinner than this share of its size, its thickness there says nothing about how far things lie apart. */
const THINNEST = 0.1

/** A line at a place along it: where that is, which way the line goes, and how far the ink reaches to one side. */
interface Place {
  at: Vec
  /** rad */
  turn: number
  /** px, never nothing */
  half: number
}

/** What a hand's edit of an outline does now: `toNow` leads from where things lay when it was made to where they belong now. */
export interface Put {
  toNow: (p: Vec) => Vec
  /** By how much the line has become thicker there. */
  scale: number
  /** The outline on which it is put lies within so many px of where it belongs. */
  reach: number
}

function placeOn(line: Line, share: number, side: number): Place {
  const arc = arcOfPath(line.path)
  const s = share * arc.total
  const t = arc.tangent(s) ?? { x: 1, y: 0 }
  const { left, right } = new LineWidth(line.weight, line.finish.align, arc.total, line.path.closed).at(s)
  const { size } = line.weight
  return {
    at: arc.point(s),
    turn: Math.atan2(t.y, t.x),
    half: Math.max(side < 0 ? right : left, THINNEST * size) || 1,
  }
}

/** What an edit at a point of an outline hangs on: of some lines, the one whose edge is nearest to it. */
export function hangingOn(p: Vec, lines: readonly Line[]): Hanging | null {
  let best: { off: number; line: Line; share: number; left: number } | null = null
  for (const line of lines) {
    const most = FARTHEST * line.weight.size
    if (!isWithin(p, grown(boxOfPath(line.path), most))) continue
    const arc = arcOfPath(line.path)
    const { length } = arc.nearest(p)
    const share = arc.total ? length / arc.total : 0
    const t = arc.tangent(length) ?? { x: 1, y: 0 }
    const d = subtract(p, arc.point(length))
    const left = cross(d, t)
    const off = Math.abs(Math.hypot(d.x, d.y) - placeOn(line, share, left).half)
    if (off <= most && (!best || off < best.off)) best = { off, line, share, left }
  }
  if (!best) return null
  const { line, share } = best
  const { at, turn, half } = placeOn(line, share, best.left)
  const d = rotate(subtract(p, at), -turn)
  // As the y axis points down, what lies to the left of a line that goes along x lies above it.
  return { line: line.id, at: share, ahead: d.x / half, left: -d.y / half, turn, half }
}

/** How an edit made at a point `at` is put on now. */
export function putOnLine(line: Line, hanging: Hanging, at: Vec): Put {
  const place = placeOn(line, hanging.at, hanging.left)
  const turn = place.turn - hanging.turn
  const scale = place.half / hanging.half
  const off = rotate({ x: hanging.ahead * place.half, y: -hanging.left * place.half }, place.turn)
  const now: Vec = { x: place.at.x + off.x, y: place.at.y + off.y }
  return {
    toNow: (p) => {
      const d = rotate(subtract(p, at), turn)
      return { x: now.x + scale * d.x, y: now.y + scale * d.y }
    },
    scale,
    reach: 0.75 * Math.max(place.half, distance(now, place.at)),
  }
}
