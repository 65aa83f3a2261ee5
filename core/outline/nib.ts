import type { Line, Nib } from '../drawing/model'
import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { cubic, reverse } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { rotate } from '../geometry/point'
import { LineWidth } from '../weight/half-widths'
import type { Loop } from '../shapes/loop'
import { reverseLoop, whole } from '../shapes/loop'
import { arc as circleArc } from './arc'
import { Centreline } from './centreline'
import type { Part } from './folds'
import { rootBetween } from './folds'
import type { Parts } from './parts'
import { partsOf } from './parts'
import type { Rib, RibField, SideSign } from './ribs'
import { newRib } from './ribs'
import { closedLoop, sideChain } from './side-chain'
import type { Stretch } from './visible'

/** A nib thinner than this share of its longer axis is taken to be this thin. */
const THINNEST = 1e-3

/**
 * Loops whose union is the sweep of an elliptical nib that does not turn with the path. In a plane turned and stretched
 * so that the nib is a circle, each circle touches the envelope of all at two points; the ribs that lead to them, and
 * whole circles where the sweep begins, ends, turns a corner or outgrows itself, cover the same region.
 */
export function nibLoops(line: Line, arc: ArcLength, stretch: Stretch, tolerance: number): Loop[] {
  const nib = line.weight.nib!
  const size = Math.max(nib.width, nib.height)
  if (size === 0) return []
  const plane = new NibPlane(nib)
  const width = new LineWidth(line.weight, 'centre', arc.total, line.path.closed)
  const cubics = arc.cubics.map((c) => plane.onto(c))
  const field = new CircleRibs(cubics, arc, width)
  const fine = tolerance / size
  const loops: Loop[] = []
  for (const group of groupsOf(field, partsOf(arc, width, stretch, tolerance))) {
    const first = group.parts[0]!
    const last = group.parts[group.parts.length - 1]!
    const corners = { join: 'bevel' as const, miterLimit: 1 }
    const left = sideChain(field, 1, group.parts, group.meets, false, corners, fine)
    const right = sideChain(field, -1, group.parts, group.meets, false, corners, fine)
    loops.push(closedLoop([...left.arcs, ...reverseLoop(right.arcs)]), ...left.loops, ...right.loops)
    loops.push(field.circle(first.segment, first.t0, fine), field.circle(last.segment, last.t1, fine))
    group.parts.forEach((p, i) => {
      if (i > 0 && (group.meets[i] !== 'smooth' || field.jumps(group.parts[i - 1]!, p))) loops.push(field.circle(p.segment, p.t0, fine))
    })
  }
  return loops.map((loop) => plane.back(loop))
}

/** The turn and stretch that make a nib of scale 1 the unit circle, and their inverse. */
class NibPlane {
  private readonly angle: number
  private readonly a: number
  private readonly b: number
  /** A nib that was mirrored would turn loops over; a rotation and a stretch do not. */
  constructor(nib: Nib) {
    const least = THINNEST * Math.max(nib.width, nib.height)
    this.angle = (nib.angle * Math.PI) / 180
    this.a = Math.max(nib.width, least)
    this.b = Math.max(nib.height, least)
  }

  onto(c: Cubic): Cubic {
    const to = (p: Vec): Vec => {
      const q = rotate(p, -this.angle)
      return { x: q.x / this.a, y: q.y / this.b }
    }
    return cubic(to(c.p0), to(c.p1), to(c.p2), to(c.p3))
  }

  back(loop: Loop): Loop {
    const from = (p: Vec): Vec => rotate({ x: p.x * this.a, y: p.y * this.b }, this.angle)
    return loop.map(({ curve, t0 }) => {
      const c = cubic(from(curve.p0), from(curve.p1), from(curve.p2), from(curve.p3))
      return whole(t0 === 0 ? c : reverse(c))
    })
  }
}

/** Ribs from the centre of each circle to where it touches the envelope of all. */
class CircleRibs implements RibField {
  private readonly turned: Rib = newRib()
  /** The centreline in the nib's plane, and as it is. */
  private readonly centre: Centreline
  private readonly true: Centreline

  constructor(
    cubics: readonly Cubic[],
    private readonly arc: ArcLength,
    private readonly width: LineWidth,
  ) {
    this.centre = new Centreline(cubics)
    this.true = new Centreline(arc.cubics)
  }

  isOpen(): boolean {
    return false
  }

  /** Radius at t and its derivative by t; the derivative of arc length is that of the true centreline. */
  private radius(segment: number, t: number, fromBelow: boolean): { r: number; slope: number } {
    const h = this.width.at(this.arc.at(segment, t), fromBelow)
    this.true.place(segment, t, this.turned)
    return { r: (h.left + h.right) / 2, slope: ((h.leftSlope + h.rightSlope) / 2) * this.true.speed }
  }

  /** How fast the circle grows against how fast it moves, -1 .. 1 where it touches the envelope at all. */
  growth(segment: number, t: number, fromBelow = false): number {
    const { slope } = this.radius(segment, t, fromBelow)
    this.centre.place(segment, t, this.turned)
    return this.centre.speed > 0 ? slope / this.centre.speed : 0
  }

  rib(segment: number, t: number, side: SideSign, fromBelow: boolean, out: Rib): void {
    const { r, slope } = this.radius(segment, t, fromBelow)
    const e = 1e-5
    const [a, b] = [Math.max(0, t - e), Math.min(1, t + e)]
    const tilt = this.growth(segment, t, fromBelow)
    const tiltSlope = (this.growth(segment, b, true) - this.growth(segment, a)) / (b - a)
    this.centre.place(segment, t, out)
    const { tangentX, tangentY, turning } = this.centre
    // n = -g T + sqrt(1 - g^2) N, with N the side's normal; T' = turning n, as for any curve.
    const g = Math.min(1, Math.max(-1, tilt))
    const across = Math.sqrt(Math.max(1e-12, 1 - g * g))
    const nx = side * tangentY
    const ny = -side * tangentX
    out.nx = -g * tangentX + across * nx
    out.ny = -g * tangentY + across * ny
    const acrossSlope = (-g * tiltSlope) / across
    const turn = side * turning
    out.ndx = -tiltSlope * tangentX + g * turn * nx + acrossSlope * nx + across * turn * tangentX
    out.ndy = -tiltSlope * tangentY + g * turn * ny + acrossSlope * ny + across * turn * tangentY
    out.half = r
    out.halfSlope = slope
    out.width = 2 * r
  }

  tangent(segment: number, t: number): Vec {
    return this.centre.tangent(segment, t)
  }

  /** Whether the circle's growth jumps where two parts meet, as it does at a sharp stop or the end of a taper. */
  jumps(before: Part, after: Part): boolean {
    const a = this.growth(before.segment, before.t1, true)
    const b = this.growth(after.segment, after.t0)
    return Math.abs(a - b) > 1e-3
  }

  circle(segment: number, t: number, tolerance: number): Loop {
    const { r } = this.radius(segment, t, false)
    this.centre.place(segment, t, this.turned)
    const centre = { x: this.turned.cx, y: this.turned.cy }
    const arcs = circleArc(centre, { x: r, y: 0 }, 2 * Math.PI, tolerance)
    return arcs.map((c, i) => whole(i + 1 === arcs.length ? { ...c, p3: arcs[0]!.p0 } : c))
  }
}

const PROBES = 16

/** The parts in groups over which circles touch their envelope; where one outgrows its neighbours the sweep is theirs. */
function groupsOf(field: CircleRibs, { parts, meets }: Parts): Parts[] {
  const groups: Parts[] = []
  let open = false
  parts.forEach((p, i) => {
    const free = (t: number): number => 1 - 1e-6 - Math.abs(field.growth(p.segment, t, t > (p.t0 + p.t1) / 2))
    const marks = [p.t0]
    for (let k = 0; k < PROBES; k++) {
      const a = p.t0 + ((p.t1 - p.t0) * k) / PROBES
      const b = p.t0 + ((p.t1 - p.t0) * (k + 1)) / PROBES
      if (free(a) < 0 !== free(b) < 0) marks.push(rootBetween(free, a, b))
    }
    marks.push(p.t1)
    for (let k = 0; k + 1 < marks.length; k++) {
      if (marks[k + 1]! - marks[k]! < 1e-9) continue
      const touches = free((marks[k]! + marks[k + 1]!) / 2) > 0
      if (touches && !open) groups.push({ parts: [], meets: [] })
      if (touches) {
        groups[groups.length - 1]!.parts.push({ ...p, t0: marks[k]!, t1: marks[k + 1]!, easeStart: false, easeEnd: false })
        const meet = marks[k] === p.t0 ? meets[i]! : 'smooth'
        // A bend turns by another angle in the nib's plane; the whole circle that stands there covers its turn.
        groups[groups.length - 1]!.meets.push(typeof meet === 'object' ? 'cusp' : meet)
      }
      open = touches
    }
  })
  return groups
}
