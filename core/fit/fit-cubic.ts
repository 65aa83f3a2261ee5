import { handleLengths } from './handle-lengths'
import type { MeasuredCurve } from './measured-curve'

/** Where the shape is narrow a fit may be off by no more than this share of the room, and never less than MOST_STRICT. */
const ROOM_SHARE = 0.2
const MOST_STRICT = 1 / 256

/** Distances are exact to about this share of the tolerance. */
const EXACT = 1 / 256

/** Long stretches are glanced at, at so many samples, before all are. */
const GLANCE = 16

/** A fit as far off as this many times the tolerance is no fit: more exactly need not be known. */
export const HOPELESS = 64

/** A fit. */
export interface CubicFit {
  /** Control points: x and y of all four. */
  points: Float64Array
  /** Largest distance measured, px. */
  deviation: number
  /** Largest distance between neighbouring samples, px: what lies in between has not been seen. */
  gap: number
  /** Length of the chord, px. */
  chord: number
}

const start = new Float64Array(2)
const end = new Float64Array(2)
const leave = new Float64Array(2)
const arrive = new Float64Array(2)
const sums = new Float64Array(3)
const arms = new Float64Array(16)

/**
 * The cubic with the end points and end tangents of a stretch between two stations that also has its area and first moment
 * over the chord (R. Levien, Fitting cubic Bezier curves, 2021). Of the few such cubics, and the one with even handles, the
 * nearest goes to `fit`. Its error falls with the sixth power of the stretch's length.
 *
 * @returns the largest deviation as a multiple of what is allowed: `tolerance` px, less where there is little room.
 * At most 1 is a good fit; HOPELESS where no cubic with sane handles comes near.
 */
export function fitCubic(curve: MeasuredCurve, from: number, to: number, tolerance: number, fit: CubicFit): number {
  curve.point(from, false, start)
  curve.point(to, true, end)
  const dx = end[0]! - start[0]!
  const dy = end[1]! - start[1]!
  const size = Math.sqrt(dx * dx + dy * dy)
  fit.deviation = Infinity
  fit.chord = size
  if (!curve.direction(from, false, leave) || !curve.direction(to, true, arrive)) return asPoint(curve, from, to, fit)
  if (!(size > 0)) return HOPELESS
  curve.integrals(from, to, start[0]!, start[1]!, dx, sums)
  // In the frame of the chord: from (0, 0) to (1, 0).
  const c = dx / size
  const s = dy / size
  const k = 1 / (size * size)
  const i1 = sums[0]!
  const i2 = sums[1]!
  const i3 = sums[2]!
  // Y dX with X = c x + s y, Y = c y - s x; integrals of x dx, y dy and the like follow from the ends.
  const area = (-s * c * (dx * dx) * 0.5 - s * s * (dx * dy - i1) + c * c * i1 + s * c * (dy * dy) * 0.5) * k
  const xxdx = (dx * dx * dx) / 3
  const yydy = (dy * dy * dy) / 3
  const xxdy = dx * dx * dy - 2 * i2
  const xydy = (dx * dy * dy - i3) / 2
  // X Y = c s (y^2 - x^2) + (c^2 - s^2) x y
  const cs = c * s
  const cc = c * c - s * s
  const moment = (c * (cs * (i3 - xxdx) + cc * i2) + s * (cs * (yydy - xxdy) + cc * xydy)) * (k / size)
  const lx = leave[0]! * c + leave[1]! * s
  const ly = leave[1]! * c - leave[0]! * s
  const ax = arrive[0]! * c + arrive[1]! * s
  const ay = arrive[1]! * c - arrive[0]! * s
  const n = handleLengths(lx, ly, ax, -ay, area, moment, arms)
  const samples = 2 * (to - from)
  let best = HOPELESS
  for (let i = 0; i < n; i++) {
    const d0 = arms[2 * i]! * size
    const d1 = arms[2 * i + 1]! * size
    trial[0] = start[0]!
    trial[1] = start[1]!
    trial[2] = start[0]! + leave[0]! * d0
    trial[3] = start[1]! + leave[1]! * d0
    trial[4] = end[0]! - arrive[0]! * d1
    trial[5] = end[1]! - arrive[1]! * d1
    trial[6] = end[0]!
    trial[7] = end[1]!
    // A glance at few samples tells most bad fits.
    let excess = samples > 2 * GLANCE ? excessOf(curve, from, to, tolerance, best, Math.floor(samples / GLANCE)) : 0
    if (excess <= 1) excess = excessOf(curve, from, to, tolerance, best, 1)
    if (excess >= best) continue
    best = excess
    fit.points.set(trial)
    fit.deviation = worst
    fit.gap = Math.sqrt(widest)
    // The even handles, which come last, are for want of better.
    if (best <= 1 && i + 2 === n) break
  }
  return best
}

/** A stretch that never leaves one point. */
function asPoint(curve: MeasuredCurve, from: number, to: number, fit: CubicFit): number {
  for (let k = 2 * from + 1; k < 2 * to; k++) {
    if (curve.x[k] !== start[0] || curve.y[k] !== start[1]) return HOPELESS
  }
  for (let i = 0; i < 4; i++) {
    fit.points[2 * i] = start[0]!
    fit.points[2 * i + 1] = start[1]!
  }
  fit.deviation = 0
  fit.gap = 0
  return 0
}

const trial = new Float64Array(8)
/** Largest distance seen by the last `excessOf`, px. */
let worst = 0
/** Largest squared distance between neighbouring samples, px squared. */
let widest = 0

/**
 * Largest deviation of `trial` between two stations, at the samples and half way between them, as a multiple of what is
 * allowed there. From each sample the cubic is sought along the curve's normal, by Newton on (C - p) . T = 0. A cubic
 * that is not found in order, or that runs the other way, has a loop or a cusp there and is worthless; so is one beyond
 * `limit`. With a stride only every so manieth sample is looked at.
 */
function excessOf(
  curve: MeasuredCurve,
  from: number,
  to: number,
  tolerance: number,
  limit: number,
  stride: number,
): number {
  // The cubic about its start, in powers of t, for speed.
  const x0 = trial[0]!
  const y0 = trial[1]!
  const x3 = trial[6]!
  const y3 = trial[7]!
  const cx = 3 * (trial[2]! - x0)
  const cy = 3 * (trial[3]! - y0)
  const bx = 3 * (trial[4]! - trial[2]!) - cx
  const by = 3 * (trial[5]! - trial[3]!) - cy
  const ax = x3 - x0 - cx - bx
  const ay = y3 - y0 - cy - by
  worst = 0
  widest = 0
  let lastX = x0
  let lastY = y0
  let lastOff = 0
  let lastSlope = 0
  let lastTx = leave[0]!
  let lastTy = leave[1]!
  let excess = 0
  let t = 0
  const bend = 2 * Math.sqrt(Math.max(bx * bx + by * by, (bx + 3 * ax) ** 2 + (by + 3 * ay) ** 2))
  // A last step so short leaves the distance exact to a small share of the tolerance.
  const near = Math.min(0.01, Math.sqrt((2 * EXACT * tolerance) / bend))
  let pace = Math.sqrt(cx * cx + cy * cy)
  let gain = 2 * (bx * lastTx + by * lastTy)
  for (let k = 2 * from + stride; ; k = Math.min(2 * to, k + stride)) {
    const atEnd = k === 2 * to
    const tx = atEnd ? arrive[0]! : curve.tx[k]!
    const ty = atEnd ? arrive[1]! : curve.ty[k]!
    if (tx === 0 && ty === 0 && !atEnd) continue
    const px = atEnd ? x3 : curve.x[k]!
    const py = atEnd ? y3 : curve.y[k]!
    const before = t
    const apart = (px - lastX) * (px - lastX) + (py - lastY) * (py - lastY)
    const dt = Math.sqrt(apart) / pace
    t = Math.min(1, t + dt * Math.max(0.5, 1 - (dt * gain) / (2 * pace)))
    let off = Infinity
    let slope = 0
    if (atEnd) {
      off = 0
      t = 1
    }
    for (let i = 0; i < 8 && !atEnd; i++) {
      const qx = ((ax * t + bx) * t + cx) * t + x0 - px
      const qy = ((ay * t + by) * t + cy) * t + y0 - py
      const vx = (3 * ax * t + 2 * bx) * t + cx
      const vy = (3 * ay * t + 2 * by) * t + cy
      const ahead = vx * tx + vy * ty
      if (!(ahead > 0)) return Infinity
      const step = (qx * tx + qy * ty) / ahead
      t -= step
      if (t < 0) t = 0
      if (t > 1) t = 1
      if (Math.abs(step) < near) {
        const drift = vx * ty - vy * tx
        off = qx * ty - qy * tx - step * drift
        slope = drift / ahead
        pace = ahead
        gain = (6 * ax * t + 2 * bx) * tx + (6 * ay * t + 2 * by) * ty
        break
      }
    }
    if (off === Infinity || t < before) return Infinity
    if (turnsBack(before, t, lastTx + tx, lastTy + ty)) return Infinity
    if (apart > widest) widest = apart
    // Half way from the sample before, by cubic interpolation of the deviation.
    const between = stride > 1 ? 0 : Math.abs((off + lastOff) / 2 + (Math.sqrt(apart) * (lastSlope - slope)) / 8)
    const most = Math.max(Math.abs(off), between)
    if (most > worst) worst = most
    lastX = px
    lastY = py
    lastOff = off
    lastSlope = slope
    lastTx = tx
    lastTy = ty
    const allowed = Math.max(Math.min(tolerance, ROOM_SHARE * curve.room[k]!), tolerance * MOST_STRICT)
    if (most > excess * allowed) {
      excess = most / allowed
      if (excess >= limit) return Infinity
    }
    if (atEnd) return excess
  }
}

/** Whether `trial` runs against the direction (tx, ty) anywhere between two parameters at whose ends it does not. */
function turnsBack(from: number, to: number, tx: number, ty: number): boolean {
  // Its advance is a quadratic in t, with these for its Bernstein coefficients.
  const a = (trial[2]! - trial[0]!) * tx + (trial[3]! - trial[1]!) * ty
  const b = (trial[4]! - trial[2]!) * tx + (trial[5]! - trial[3]!) * ty
  const c = (trial[6]! - trial[4]!) * tx + (trial[7]! - trial[5]!) * ty
  const bend = a - 2 * b + c
  if (!(bend > 0)) return false
  const lowest = (a - b) / bend
  return lowest > from && lowest < to && a - bend * lowest * lowest < 0
}
