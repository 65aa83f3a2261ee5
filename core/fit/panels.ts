import type { CurveSource } from './source'

/** A panel turns by no more than this (radians), or is shorter than the grain, or has been halved so often. */
const MOST_TURN = 0.4
const MOST_HALVINGS = 12
/** Within a panel the pace changes by no more than this factor, unless it has been halved so often. */
const MOST_PACE = 1.6
const PACE_HALVINGS = 10

/** Fewest panels to a curve. */
const FEWEST = 8

/** What `CurveSource.sample` writes. */
export type Sample = Float64Array<ArrayBuffer>
/** Room for one sample of a curve source, as `CurveSource.sample` writes it. */
export const newSample = (): Sample => new Float64Array(5)

/** Takes the panel from t0 to t1 of a part, with the samples at its ends and in its middle. */
export type TakePanel = (part: number, t0: number, t1: number, left: Sample, mid: Sample, right: Sample) => void

/**
 * Cuts a curve into panels, closer where it turns or changes pace, and hands them on in order.
 *
 * @param grain px: turns within less than this do not matter
 */
export function eachPanel(source: CurveSource, grain: number, take: TakePanel): void {
  // A power of two, so that all parameters are exact.
  let least = 1
  while (least * source.parts < FEWEST) least *= 2
  const mids = Array.from({ length: MOST_HALVINGS + 1 }, newSample)
  const divide = (part: number, t0: number, t1: number, left: Sample, right: Sample, depth: number): void => {
    const t = (t0 + t1) / 2
    const mid = mids[depth]!
    source.sample(part, t, mid)
    if (depth >= MOST_HALVINGS || isCalm(left, mid, right, t1 - t0, grain, depth)) {
      take(part, t0, t1, left, mid, right)
      return
    }
    divide(part, t0, t, left, mid, depth + 1)
    divide(part, t, t1, mid, right, depth + 1)
  }
  let left = newSample()
  let right = newSample()
  for (let part = 0; part < source.parts; part++) {
    source.sample(part, 0, left)
    for (let k = 0; k < least; k++) {
      source.sample(part, (k + 1) / least, right)
      divide(part, k / least, (k + 1) / least, left, right, 0)
      const done = left
      left = right
      right = done
    }
  }
}

/** Whether a curve turns and changes pace little between three samples, `span` of the parameter from first to last. */
function isCalm(left: Sample, mid: Sample, right: Sample, span: number, grain: number, depth: number): boolean {
  const a = left[2]! * left[2]! + left[3]! * left[3]!
  const b = mid[2]! * mid[2]! + mid[3]! * mid[3]!
  const c = right[2]! * right[2]! + right[3]! * right[3]!
  const most = Math.max(a, b, c)
  if (most * span * span < grain * grain) return true
  // A turn that is taken back before the next look still shows as a change of pace.
  const even = most < MOST_PACE * MOST_PACE * Math.min(a, b, c)
  return (even || depth >= PACE_HALVINGS) && turnBetween(left, mid) + turnBetween(mid, right) <= MOST_TURN
}

/** Angle between the directions of two samples, radians; 0 where one has none. */
function turnBetween(a: Sample, b: Sample): number {
  const cross = a[2]! * b[3]! - a[3]! * b[2]!
  const dot = a[2]! * b[2]! + a[3]! * b[3]!
  return cross === 0 && dot === 0 ? 0 : Math.abs(Math.atan2(cross, dot))
}
