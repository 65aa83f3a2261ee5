import type { Line, Nib } from '../drawing/model'
import { fitCurve } from '../fit/fit-curve'
import type { CurveSample, CurveSource } from '../fit/source'
import type { ArcLength } from '../geometry/arc-length'
import type { Cubic } from '../geometry/cubic'
import { cubic, derivativeAt, flattenCount, moveEnds, pointAt, tangentAt } from '../geometry/cubic'
import type { Vec } from '../geometry/point'
import { add, along, dot, leftNormal, rotate, subtract } from '../geometry/point'
import { LineWidth } from '../weight/half-widths'
import type { Loop } from '../shapes/loop'
import { allBackwards, segment, whole } from '../shapes/loop'
import { arc as circleArc } from './arc'
import type { Stretch } from './visible'

const PROBES = 24

/**
 * Loops whose union is the sweep of an elliptical nib that does not turn with the path. Its envelope is the centreline
 * plus the support point of the ellipse for each side's normal; whole ellipses stand at the ends of every piece, and
 * closely set where the envelope runs backwards.
 */
export function nibLoops(line: Line, arc: ArcLength, stretch: Stretch, tolerance: number): Loop[] {
  const nib = line.weight.nib!
  const width = new LineWidth(line.weight, 'centre', arc.total, line.path.closed)
  const loops: Loop[] = []
  const marks = [...arc.starts, ...width.breaks, stretch.from, stretch.to]
    .filter((s) => s >= stretch.from && s <= stretch.to)
    .sort((a, b) => a - b)
  for (let i = 0; i + 1 < marks.length; i++) {
    const [from, to] = [marks[i]!, marks[i + 1]!]
    if (to - from < 1e-9 * arc.total) continue
    const { segment: index } = arc.locate((from + to) / 2)
    const t0 = arc.at(index, 0) >= from - 1e-9 ? 0 : arc.locate(from).t
    const t1 = arc.at(index, 1) <= to + 1e-9 ? 1 : arc.locate(to).t
    loops.push(...sweep(new NibSide(arc, index, width, nib, 1), new NibSide(arc, index, width, nib, -1), t0, t1, tolerance))
  }
  return loops
}

/** One side of the envelope over a segment, by the segment's parameter. */
class NibSide implements CurveSource {
  private readonly curve: Cubic

  constructor(
    private readonly arc: ArcLength,
    private readonly index: number,
    private readonly width: LineWidth,
    private readonly nib: Nib,
    private readonly side: 1 | -1,
  ) {
    this.curve = arc.cubics[index]!
  }

  centre(t: number): Vec {
    return pointAt(this.curve, t)
  }

  /** Mean width factor times size / 2, px: the nib's scale. */
  scale(t: number): number {
    const h = this.width.at(this.arc.at(this.index, t))
    return (h.left + h.right) / 2
  }

  at(t: number): Vec {
    const tangent = tangentAt(this.curve, t) ?? { x: 1, y: 0 }
    const normal = leftNormal(tangent)
    return add(this.centre(t), supportPoint(this.nib, this.scale(t), { x: normal.x * this.side, y: normal.y * this.side }))
  }

  sample(t: number): CurveSample {
    const e = 1e-5
    const [a, b] = [Math.max(0, t - e), Math.min(1, t + e)]
    const d = subtract(this.at(b), this.at(a))
    return { at: this.at(t), derivative: { x: d.x / (b - a), y: d.y / (b - a) } }
  }

  forward(t: number): boolean {
    return dot(this.sample(t).derivative, derivativeAt(this.curve, Math.min(1 - 1e-6, Math.max(1e-6, t)))) >= 0
  }

  ellipse(t: number, tolerance: number): Loop {
    return ellipse(this.centre(t), this.nib, this.scale(t), tolerance).map(whole)
  }

  steps(t0: number, t1: number, tolerance: number): number {
    return Math.max(8, 2 * Math.ceil(flattenCount(this.curve, tolerance) * (t1 - t0)))
  }
}

function sweep(left: NibSide, right: NibSide, t0: number, t1: number, tolerance: number): Loop[] {
  const loops: Loop[] = [left.ellipse(t0, tolerance), left.ellipse(t1, tolerance)]
  let from = t0
  let regular = left.forward(t0) && right.forward(t0)
  for (let i = 1; i <= PROBES; i++) {
    const t = t0 + ((t1 - t0) * i) / PROBES
    const now = left.forward(t) && right.forward(t)
    if (now === regular && i < PROBES) continue
    loops.push(...(regular ? [band(left, right, from, t, tolerance)] : dabs(left, from, t, tolerance)))
    // Ellipses cover what a band that ends a little past a turning point leaves open.
    loops.push(left.ellipse(t, tolerance), ...dabs(left, t - (t1 - t0) / PROBES, t, tolerance))
    from = t
    regular = now
  }
  return loops
}

function band(left: NibSide, right: NibSide, t0: number, t1: number, tolerance: number): Loop {
  const chain = (side: NibSide): Cubic[] => {
    const fits = fitCurve(side, t0, t1, tolerance)
    return fits.map((f, i) => (i === 0 ? f.cubic : moveEnds(f.cubic, fits[i - 1]!.cubic.p3, f.cubic.p3)))
  }
  const [l, r] = [chain(left), chain(right)]
  return [
    ...l.map(whole),
    segment(l[l.length - 1]!.p3, r[r.length - 1]!.p3),
    ...allBackwards(r),
    segment(r[0]!.p0, l[0]!.p0),
  ]
}

/** Ellipses set so closely that the notches between them stay within the tolerance. */
function dabs(side: NibSide, t0: number, t1: number, tolerance: number): Loop[] {
  const n = side.steps(t0, t1, tolerance)
  return Array.from({ length: n + 1 }, (_, i) => side.ellipse(t0 + ((t1 - t0) * i) / n, tolerance))
}

/** Point of the ellipse farthest along the unit vector `n`, from its centre. */
function supportPoint(nib: Nib, scale: number, n: Vec): Vec {
  const turned = rotate(n, (-nib.angle * Math.PI) / 180)
  const a = nib.width * scale
  const b = nib.height * scale
  const size = Math.hypot(a * turned.x, b * turned.y)
  if (size === 0) return { x: 0, y: 0 }
  return rotate({ x: (a * a * turned.x) / size, y: (b * b * turned.y) / size }, (nib.angle * Math.PI) / 180)
}

function ellipse(centre: Vec, nib: Nib, scale: number, tolerance: number): Cubic[] {
  const a = nib.width * scale
  const b = nib.height * scale
  const unit = circleArc({ x: 0, y: 0 }, { x: 1, y: 0 }, 2 * Math.PI, tolerance / Math.max(a, b, 1e-9))
  const place = (p: Vec): Vec => along(centre, rotate({ x: p.x * a, y: p.y * b }, (nib.angle * Math.PI) / 180), 1)
  return unit.map((c, i) =>
    cubic(place(i === 0 ? { x: 1, y: 0 } : c.p0), place(c.p1), place(c.p2), place(i + 1 === unit.length ? { x: 1, y: 0 } : c.p3)),
  )
}
