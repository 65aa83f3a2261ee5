import type { Hold, Line } from '../../model/model'
import { boxOfPoints, overlap } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { nearestFrom, pointAt, reach, tangentAt } from '../../geometry/cubic'
import { controlLength } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { rotate } from '../../geometry/point'
import type { Bridge } from './bridges'
import type { Face } from './faces'
import type { SideFinder } from './side-finder'
import { isSameList } from '../../same-list'
import { remembered } from '../../remembered'

/** A place on the edge of a region. */
export interface EdgePlace {
  at: Vec
  /** Into the ink, of unit length. */
  inward: Vec
  /** The line whose side this is, and where along it; null on solids, caps, bridges, and where ink was cut away. */
  line: string | null
  side: Hold['side']
  share: number
  /** How far the middle of the ink lies from here, px; null where that is not known. */
  middle: number | null
}

/** Places of the edge of a region, by contour, in its direction. */
export type Edge = readonly (readonly EdgePlace[])[]

/** Places are so far apart, px of the usual page, and so many on a curve at most. */
const STEP = 4
const MOST = 24
/** However small a region, there are so many about it. */
const LEAST = 24
/** At a corner that opens into the ink, a place for each so many radians. */
const FAN = 0.4

const edges = new WeakMap<Face, { lines: readonly Line[]; bridges: readonly Bridge[]; edge: Edge }>()

/** The edge of a region, place by place; worked out once for as long as it and the lines and bridges near it are the same. `perPx` is px for each px of the usual page. */
export function edgeOf(face: Face, finder: SideFinder, all: readonly Bridge[], perPx: number): Edge {
  const { box } = face
  const bridges = box ? all.filter(({ curve: { p0, p1, p2, p3 } }) => overlap(box, boxOfPoints([p0, p1, p2, p3]))) : all
  const lines = face.box ? finder.near(face.box) : []
  const was = edges.get(face)
  if (was && face.box && isSameList(was.lines, lines) && isSameList(was.bridges, bridges)) return was.edge
  const edge = face.contours.map((c) => placesOn(c, finder, bridges, perPx))
  edges.set(face, { lines, bridges, edge })
  return edge
}

function placesOn(
  contour: readonly Cubic[],
  finder: SideFinder,
  bridges: readonly Bridge[],
  perPx: number,
): EdgePlace[] {
  const places: EdgePlace[] = []
  const add = (at: Vec, inward: Vec): void => {
    const found = onBridge(at, bridges, perPx) ??
      finder.at(at) ?? { line: null, side: 'left' as const, share: 0, middle: null }
    places.push({ at, inward, ...found })
  }
  const step = Math.min(STEP * perPx, controlLength(contour) / LEAST)
  contour.forEach((c, i) => {
    const n = Math.min(MOST, Math.max(1, Math.ceil(reach(c) / step)))
    const before = contour[(i + contour.length - 1) % contour.length]!
    const [into, out] = [tangentAt(before, 1), tangentAt(c, 0)]
    if (!out) return
    const turn = into ? Math.atan2(into.x * out.y - into.y * out.x, into.x * out.x + into.y * out.y) : 0
    // The outline goes round its region from x towards y: a turn that way opens towards the ink.
    const fan = turn > FAN ? Math.ceil(turn / FAN) : 0
    for (let k = 0; k < fan; k++) add(c.p0, inwardOf(rotate(into!, (turn * k) / fan)))
    for (let k = 0; k < n; k++) {
      const t = k / n
      const tangent = tangentAt(c, t)
      if (tangent) add(pointAt(c, t), inwardOf(tangent))
    }
  })
  return places
}

/** Away from the region, which an outline has where x turns towards y. */
const inwardOf = ({ x, y }: Vec): Vec => ({ x: y, y: -x })

/** A place on the side of a bridge: its middle is all there is of it. */
function onBridge(
  p: Vec,
  bridges: readonly Bridge[],
  perPx: number,
): Pick<EdgePlace, 'line' | 'side' | 'share' | 'middle'> | null {
  const near = 0.15 * perPx
  for (const { curve } of bridges) {
    const [ax, bx] = [Math.min(curve.p0.x, curve.p3.x), Math.max(curve.p0.x, curve.p3.x)]
    const [ay, by] = [Math.min(curve.p0.y, curve.p3.y), Math.max(curve.p0.y, curve.p3.y)]
    const pad = (bx - ax + by - ay) / 2 + near
    if (p.x < ax - pad || p.x > bx + pad || p.y < ay - pad || p.y > by + pad) continue
    const coarse = [0.1, 0.3, 0.5, 0.7, 0.9]
      .map((t) => ({ t, d: Math.hypot(pointAt(curve, t).x - p.x, pointAt(curve, t).y - p.y) }))
      .sort((a, b) => a.d - b.d)[0]!
    if (nearestFrom(curve, p, coarse.t).distance <= near) return { line: null, side: 'left', share: 0, middle: near }
  }
  return null
}

/** The stretches of lines' sides that bound a region: runs of places, each as far as it goes. */
export const holdOf = remembered((edge: Edge): readonly Hold[] => runsOf(edge))

function runsOf(edge: Edge): Hold[] {
  const out: Hold[] = []
  for (const places of edge) {
    let run: Hold | null = null
    for (const { line, side, share } of places) {
      // From the last place of a closed line to its first the share jumps.
      const goesOn: boolean =
        !!run && run.line === line && run.side === side && share > run.from - 0.25 && share < run.to + 0.25
      if (goesOn) {
        run!.from = Math.min(run!.from, share)
        run!.to = Math.max(run!.to, share)
      } else {
        if (run) out.push(run)
        run = line === null ? null : { line, side, from: share, to: share }
      }
    }
    if (run) out.push(run)
  }
  return merged(out)
}

/** Stretches of one side that overlap are one. */
function merged(holds: readonly Hold[]): Hold[] {
  const out: Hold[] = []
  for (const hold of [...holds].sort(
    (a, b) =>
      (a.line < b.line ? -1 : a.line > b.line ? 1 : 0) ||
      (a.side < b.side ? -1 : a.side > b.side ? 1 : 0) ||
      a.from - b.from,
  )) {
    const last = out.at(-1)
    if (last && last.line === hold.line && last.side === hold.side && hold.from <= last.to + 1e-3)
      last.to = Math.max(last.to, hold.to)
    else out.push({ ...hold, from: Number(hold.from.toFixed(4)), to: Number(hold.to.toFixed(4)) })
  }
  return out.map((h) => ({ ...h, to: Number(h.to.toFixed(4)) }))
}
