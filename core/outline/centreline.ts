import type { Cubic } from '../geometry/cubic'
import { reach, tangentAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import type { Rib } from './rib'

/** Closest that a parameter comes to a place where the centreline stands still. */
const STILL = 1e-7

/** A turn below this share of its two terms is rounding: a straight segment does not turn, however slow it is. */
const NOISE = 1e-13

/** Numbers kept of each cubic: its start, the control points of its derivative, and its end. */
const PER_CUBIC = 10

/** Fast evaluation of the centres of ribs along a chain of cubics. */
export class Centreline {
  /** Of the place last asked for: the speed, the unit tangent and how fast that turns, by t. */
  speed = 0
  tangentX = 1
  tangentY = 0
  turning = 0
  /** Derivative of the speed by t; 0 where the centreline stands still. */
  speedSlope = 0
  private readonly of: Float64Array
  private readonly still: Float64Array

  constructor(readonly cubics: readonly Cubic[]) {
    this.of = new Float64Array(PER_CUBIC * cubics.length)
    this.still = Float64Array.from(cubics, (c) => STILL * reach(c))
    cubics.forEach(({ p0, p1, p2, p3 }, i) => {
      const ax = 3 * (p1.x - p0.x)
      const ay = 3 * (p1.y - p0.y)
      const bx = 3 * (p2.x - p1.x)
      const by = 3 * (p2.y - p1.y)
      const cx = 3 * (p3.x - p2.x)
      const cy = 3 * (p3.y - p2.y)
      this.of.set([p0.x, p0.y, ax, ay, bx, by, cx, cy, p3.x, p3.y], PER_CUBIC * i)
    })
  }

  /** Writes the centre at `t` of a segment and its derivative to `out`, and the rest to the fields. */
  place(segment: number, t: number, out: Rib): void {
    const { of } = this
    const o = PER_CUBIC * segment
    const s = 1 - t
    const ax = of[o + 2]!
    const ay = of[o + 3]!
    const bx = of[o + 4]!
    const by = of[o + 5]!
    const cx = of[o + 6]!
    const cy = of[o + 7]!
    const a = s * s
    const b = 2 * s * t
    const c = t * t
    const x = a * ax + b * bx + c * cx
    const y = a * ay + b * by + c * cy
    out.cdx = x
    out.cdy = y
    // From the nearer end, so that both are met exactly.
    if (t <= 0.5) {
      const t3 = t / 3
      out.cx = of[o]! + t3 * ((1 + s + a) * ax + (t + b) * bx + c * cx)
      out.cy = of[o + 1]! + t3 * ((1 + s + a) * ay + (t + b) * by + c * cy)
    } else {
      const s3 = s / 3
      out.cx = of[o + 8]! - s3 * (a * ax + (s + b) * bx + (1 + t + c) * cx)
      out.cy = of[o + 9]! - s3 * (a * ay + (s + b) * by + (1 + t + c) * cy)
    }
    const speed = Math.sqrt(x * x + y * y)
    this.speed = speed
    if (!this.isStill(segment)) {
      const ddx = 2 * (s * (bx - ax) + t * (cx - bx))
      const ddy = 2 * (s * (by - ay) + t * (cy - by))
      this.tangentX = x / speed
      this.tangentY = y / speed
      const turn = x * ddy - y * ddx
      this.turning = Math.abs(turn) > NOISE * (Math.abs(x * ddy) + Math.abs(y * ddx)) ? turn / (speed * speed) : 0
      this.speedSlope = (x * ddx + y * ddy) / speed
      return
    }
    const tangent = this.tangent(segment, t)
    this.tangentX = tangent.x
    this.tangentY = tangent.y
    this.turning = 0
    this.speedSlope = 0
  }

  /** Whether the centreline stands still at the place of a segment last asked for. */
  isStill(segment: number): boolean {
    return !(this.speed > this.still[segment]!)
  }

  /** The unit tangent at `t`, seen from within the segment. */
  tangent(segment: number, t: number): Vec {
    return tangentAt(this.cubics[segment]!, t) ?? { x: 1, y: 0 }
  }
}
