import type { CurveSource } from './source'

/** A panel turns by no more than this (radians), or is shorter than the grain, or has been halved so often. */
const MOST_TURN = 0.4
const MOST_HALVINGS = 12
/** Within a panel the pace changes by no more than this factor, unless it has been halved so often. */
const MOST_PACE = 1.6
const PACE_HALVINGS = 10

/** Fewest panels to a curve. */
const FEWEST = 8

/**
 * Parameters at which panels of a curve start: closer where it turns or changes pace.
 *
 * @param grain px: turns within less than this do not matter
 */
export function panelStarts(source: CurveSource, grain: number): number[] {
  const at = new Float64Array(5)
  const marks: number[] = []
  const least = Math.max(1, Math.ceil(FEWEST / source.parts))
  for (let part = 0; part < source.parts; part++) {
    source.sample(part, 0, at)
    let [x, y, dx, dy] = [at[0]!, at[1]!, at[2]!, at[3]!]
    for (let k = 0; k < least; k++) {
      source.sample(part, (k + 1) / least, at)
      const [nx, ny, ndx, ndy] = [at[0]!, at[1]!, at[2]!, at[3]!]
      divide(source, at, part, k / least, (k + 1) / least, x, y, dx, dy, nx, ny, ndx, ndy, grain, 0, marks)
      x = nx
      y = ny
      dx = ndx
      dy = ndy
    }
  }
  return marks
}

/** Pushes the starts of panels from t0 to t1 of a part, given position and derivative at both. */
function divide(
  source: CurveSource,
  at: Float64Array,
  part: number,
  t0: number,
  t1: number,
  ax: number,
  ay: number,
  adx: number,
  ady: number,
  cx: number,
  cy: number,
  cdx: number,
  cdy: number,
  grain: number,
  depth: number,
  marks: number[],
): void {
  const mid = (t0 + t1) / 2
  source.sample(part, mid, at)
  const bx = at[0]!
  const by = at[1]!
  const bdx = at[2]!
  const bdy = at[3]!
  const turn = turnBetween(adx, ady, bdx, bdy) + turnBetween(bdx, bdy, cdx, cdy)
  // A turn that is taken back before the next look still shows as a change of pace.
  const a = adx * adx + ady * ady
  const b = bdx * bdx + bdy * bdy
  const c = cdx * cdx + cdy * cdy
  const short = Math.max(a, b, c) * (t1 - t0) * (t1 - t0) < grain * grain
  const even = Math.max(a, b, c) < MOST_PACE * MOST_PACE * Math.min(a, b, c)
  if ((turn <= MOST_TURN && (even || depth >= PACE_HALVINGS)) || short || depth >= MOST_HALVINGS) {
    marks.push(part + t0)
    return
  }
  divide(source, at, part, t0, mid, ax, ay, adx, ady, bx, by, bdx, bdy, grain, depth + 1, marks)
  divide(source, at, part, mid, t1, bx, by, bdx, bdy, cx, cy, cdx, cdy, grain, depth + 1, marks)
}

/** Angle between two directions, radians; 0 where one has none. */
function turnBetween(ax: number, ay: number, bx: number, by: number): number {
  const cross = ax * by - ay * bx
  const dot = ax * bx + ay * by
  return cross === 0 && dot === 0 ? 0 : Math.abs(Math.atan2(cross, dot))
}
