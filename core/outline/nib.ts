import type { Line, Nib } from '../model/model'
import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { cubic, reverse } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { rotate } from '../geometry/point'
import { LineWidth } from '../weight/half-widths'
import type { Loop } from '../arrangement/loop'
import { reverseLoop, whole } from '../arrangement/loop'
import { CircleRibs } from './circle-ribs'
import { rootBetween } from './folds'
import type { Parts } from './parts'
import { partsOf } from './parts'
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
      if (i > 0 && (group.meets[i] !== 'smooth' || field.jumps(group.parts[i - 1]!, p)))
        loops.push(field.circle(p.segment, p.t0, fine))
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
      // Where circles start or stop touching their envelope, the ribs turn infinitely fast.
      if (touches) {
        groups[groups.length - 1]!.parts.push({
          ...p,
          t0: marks[k]!,
          t1: marks[k + 1]!,
          easeStart: k > 0,
          easeEnd: k + 2 < marks.length,
        })
        const meet = marks[k] === p.t0 ? meets[i]! : 'smooth'
        // A bend turns by another angle in the nib's plane; the whole circle that stands there covers its turn.
        groups[groups.length - 1]!.meets.push(typeof meet === 'object' ? 'cusp' : meet)
      }
      open = touches
    }
  })
  return groups
}
