import type { Line } from '#core/model/model'
import type { Cubic } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { TrueWidth } from './true-width'

/** Cross-sections looked at for each segment, and how many share one enclosing circle. */
const PER_SEGMENT = 192
const CHUNK = 8
/** One in so many cross-sections gives points that may be on the boundary. */
const EVERY = 6

export interface Section {
  x: number
  y: number
  tx: number
  ty: number
  slope: Vec
  bend: Vec
  /** Arc length from the start of the line. */
  s: number
  left: number
  right: number
  /** Whether the width is far from linear up to the next section. */
  rough: boolean
}

/** A cubic by powers of t. */
class Poly {
  private readonly x: readonly [number, number, number, number]
  private readonly y: readonly [number, number, number, number]

  constructor({ p0, p1, p2, p3 }: Cubic) {
    this.x = [p0.x, 3 * (p1.x - p0.x), 3 * (p0.x - 2 * p1.x + p2.x), p3.x - p0.x + 3 * (p1.x - p2.x)]
    this.y = [p0.y, 3 * (p1.y - p0.y), 3 * (p0.y - 2 * p1.y + p2.y), p3.y - p0.y + 3 * (p1.y - p2.y)]
  }

  at(t: number): Vec {
    const { x, y } = this
    return { x: x[0] + t * (x[1] + t * (x[2] + t * x[3])), y: y[0] + t * (y[1] + t * (y[2] + t * y[3])) }
  }

  slope(t: number): Vec {
    const { x, y } = this
    return { x: x[1] + t * (2 * x[2] + 3 * t * x[3]), y: y[1] + t * (2 * y[2] + 3 * t * y[3]) }
  }

  bend(t: number): Vec {
    return { x: 2 * this.x[2] + 6 * t * this.x[3], y: 2 * this.y[2] + 6 * t * this.y[3] }
  }
}

/** Arc length by Simpson's rule, halved where the pace changes much. */
function lengthOf(p: Poly, a: number, b: number, depth = 0): number {
  const speed = (t: number): number => Math.hypot(p.slope(t).x, p.slope(t).y)
  const [u, v, w] = [speed(a), speed((a + b) / 2), speed(b)]
  const even = Math.max(u, v, w) < 1.3 * Math.min(u, v, w)
  if (even || depth > 12) return ((b - a) / 6) * (u + 4 * v + w)
  return lengthOf(p, a, (a + b) / 2, depth + 1) + lengthOf(p, (a + b) / 2, b, depth + 1)
}

/**
 * A line's ink straight from its definition, apart from the engine: a point is in it when a cross-section passes through
 * it, or when it lies in a join or a cap. Arc length by Simpson's rule.
 */
export class TrueInk {
  private readonly polys: Poly[]
  /** Cross-sections of each segment, in order. */
  readonly rows: Section[][] = []
  private readonly circles: { x: number; y: number; r: number }[][] = []
  private readonly width: TrueWidth
  /** Length of the whole line, px. */
  readonly total: number
  private lastHit: [number, number] = [0, 0]
  private readonly starts: number[] = []
  private readonly extras: ((p: Vec) => boolean)[] = []
  /** Points on what may be the boundary. */
  readonly candidates: Vec[] = []

  /** @param from, to the stretch of the line that is drawn, arc lengths in px: a dash, with the line's caps */
  constructor(
    readonly line: Line,
    private readonly from = 0,
    private readonly to = Infinity,
  ) {
    this.polys = cubicsOfPath(line.path).map((c) => new Poly(c))
    const lengths = this.polys.map((p) => {
      const out = [0]
      for (let i = 0; i < PER_SEGMENT; i++) out.push(out[i]! + lengthOf(p, i / PER_SEGMENT, (i + 1) / PER_SEGMENT))
      return out
    })
    let total = 0
    for (const l of lengths) {
      this.starts.push(total)
      total += l[PER_SEGMENT]!
    }
    this.total = total
    this.width = new TrueWidth(line.weight, line.finish.align, total, line.path.closed)
    this.polys.forEach((p, k) => {
      const row: Section[] = []
      for (let i = 0; i <= PER_SEGMENT; i++)
        row.push(this.section(k, i / PER_SEGMENT, this.starts[k]! + lengths[k]![i]!, i === PER_SEGMENT))
      row.slice(1).forEach((b, i) => {
        const a = row[i]!
        const reach = b.s - a.s
        a.rough =
          i < 3 ||
          i > PER_SEGMENT - 4 ||
          Math.abs(a.left - b.left) + Math.abs(a.right - b.right) > 0.1 ||
          this.width.breaks.some((s) => s > a.s - reach && s < b.s + reach)
      })
      this.rows.push(row)
      const circles = []
      for (let i = 0; i < PER_SEGMENT; i += CHUNK) {
        const part = row.slice(i, i + CHUNK + 1)
        const mid = part[CHUNK / 2]!
        circles.push({
          x: mid.x,
          y: mid.y,
          r: Math.max(...part.map((s) => Math.hypot(s.x - mid.x, s.y - mid.y) + Math.max(s.left, s.right))) + 0.01,
        })
      }
      this.circles.push(circles)
    })
    this.addCandidates()
    this.addJoins()
    this.addCaps()
  }

  private section(k: number, t: number, s: number, fromBelow: boolean): Section {
    const p = this.polys[k]!
    const at = p.at(t)
    const slope = p.slope(t)
    let d = slope
    if (Math.hypot(d.x, d.y) < 1e-9) {
      const b = p.bend(t)
      d = t < 1 ? b : { x: -b.x, y: -b.y }
      if (Math.hypot(d.x, d.y) < 1e-9) d = { x: p.at(1).x - p.at(0).x, y: p.at(1).y - p.at(0).y }
    }
    const l = Math.hypot(d.x, d.y) || 1
    const { left, right } = this.width.at(s, fromBelow)
    return { x: at.x, y: at.y, tx: d.x / l, ty: d.y / l, slope, bend: p.bend(t), s, left, right, rough: false }
  }

  /** Whether `p` lies in the ink. */
  has(p: Vec): boolean {
    // What held the last point often holds the next.
    const [k0, c0] = this.lastHit
    if (this.onSection(k0, c0, p)) return true
    for (let k = 0; k < this.rows.length; k++) {
      const circles = this.circles[k]!
      for (let c = 0; c < circles.length; c++) {
        const { x, y, r } = circles[c]!
        const [dx, dy] = [p.x - x, p.y - y]
        if (dx * dx + dy * dy > r * r || !this.onSection(k, c * CHUNK, p)) continue
        this.lastHit = [k, c * CHUNK]
        return true
      }
    }
    return this.extras.some((f) => f(p))
  }

  /** Whether the ink next to `p` is thinner than `width` px: too thin to be found by looking around. */
  isThinAt(p: Vec, width: number): boolean {
    return this.rows.some((row) =>
      row.some(
        (s, i) =>
          s.left + s.right < width &&
          Math.hypot(s.x - p.x, s.y - p.y) < 2 * width + 2 * Math.abs((row[i + 1] ?? s).s - s.s),
      ),
    )
  }

  private onSection(k: number, from: number, p: Vec): boolean {
    const row = this.rows[k]!
    for (let i = from; i < from + CHUNK; i++) {
      const a = row[i]!
      const b = row[i + 1]!
      const [wx, wy] = [p.x - a.x, p.y - a.y]
      const far = Math.max(a.left, a.right, b.left, b.right) + 2 * (b.s - a.s) + 0.01
      if (wx * wx + wy * wy > far * far) continue
      const ga = (p.x - a.x) * a.tx + (p.y - a.y) * a.ty
      const gb = (p.x - b.x) * b.tx + (p.y - b.y) * b.ty
      const straightOn = a.tx * b.tx + a.ty * b.ty > 0.9995
      if (ga > 0 === gb > 0 && ga !== 0 && gb !== 0) {
        if (this.turnsOver(k, i, p)) return true
        continue
      }
      if (straightOn) {
        const u = ga === gb ? 0 : ga / (ga - gb)
        const off = (p.x - a.x - (b.x - a.x) * u) * a.ty - (p.y - a.y - (b.y - a.y) * u) * a.tx
        const l = a.left + (b.left - a.left) * u
        const r = a.right + (b.right - a.right) * u
        // Near a stop the width is not linear between sections.
        const clear = 0.02 + 0.06 * Math.abs(off) + (a.rough ? 1e9 : 0)
        if (off < l - clear && off > -r + clear && this.isDrawn(a.s + (b.s - a.s) * u)) return true
        if (off > l + clear || off < -r - clear) continue
      }
      if (this.crossedBetween(k, i / PER_SEGMENT, (i + 1) / PER_SEGMENT, p)) return true
    }
    return false
  }

  /**
   * Sections may pass over a point and back between two that have it on the same side. The way ahead to the point,
   * (p - C) . C', then has an extreme between them, at which it is of the other sign.
   */
  private turnsOver(k: number, i: number, p: Vec): boolean {
    const row = this.rows[k]!
    const rise = (x: number, y: number, slope: Vec, bend: Vec): number =>
      (p.x - x) * bend.x + (p.y - y) * bend.y - slope.x * slope.x - slope.y * slope.y
    const sign = rise(row[i]!.x, row[i]!.y, row[i]!.slope, row[i]!.bend) > 0
    if (rise(row[i + 1]!.x, row[i + 1]!.y, row[i + 1]!.slope, row[i + 1]!.bend) > 0 === sign) return false
    let [low, high] = [i / PER_SEGMENT, (i + 1) / PER_SEGMENT]
    const poly = this.polys[k]!
    for (let n = 0; n < 40; n++) {
      const mid = (low + high) / 2
      const c = poly.at(mid)
      if (rise(c.x, c.y, poly.slope(mid), poly.bend(mid)) > 0 === sign) low = mid
      else high = mid
    }
    const [t0, t1] = [i / PER_SEGMENT, (i + 1) / PER_SEGMENT]
    if (this.ahead(k, low, p) > 0 === this.ahead(k, t0, p) > 0) return false
    return this.crossedBetween(k, t0, low, p) || this.crossedBetween(k, low, t1, p)
  }

  private ahead(k: number, t: number, p: Vec): number {
    const at = this.polys[k]!.at(t)
    const d = this.polys[k]!.slope(t)
    const l = Math.hypot(d.x, d.y) || 1
    return ((p.x - at.x) * d.x + (p.y - at.y) * d.y) / l
  }

  private crossedBetween(k: number, t0: number, t1: number, p: Vec): boolean {
    // At its very ends a segment may stand still, and says nothing.
    t0 = Math.max(t0, 1e-7)
    t1 = Math.min(t1, 1 - 1e-7)
    const sign = this.ahead(k, t0, p) > 0
    for (let i = 0; i < 44; i++) {
      const mid = (t0 + t1) / 2
      if (this.ahead(k, mid, p) > 0 === sign) t0 = mid
      else t1 = mid
    }
    const t = (t0 + t1) / 2
    // At a cusp the sign changes without a section through the point.
    if (Math.abs(this.ahead(k, t0, p)) + Math.abs(this.ahead(k, t1, p)) > 1e-6) return false
    const i = Math.min(PER_SEGMENT - 1, Math.floor(t * PER_SEGMENT))
    const s = this.rows[k]![i]!.s + lengthOf(this.polys[k]!, i / PER_SEGMENT, t)
    const c = this.section(k, t, s, false)
    const off = (p.x - c.x) * c.ty - (p.y - c.y) * c.tx
    return off <= c.left + 1e-8 && off >= -c.right - 1e-8 && this.isDrawn(c.s)
  }

  private isDrawn(s: number): boolean {
    return s >= this.from && s <= this.to
  }

  private addCandidates(): void {
    for (const row of this.rows) {
      row.forEach((s, i) => {
        if (i % EVERY || s.left + s.right === 0) return
        this.candidates.push(
          { x: s.x + s.left * s.ty, y: s.y - s.left * s.tx },
          { x: s.x - s.right * s.ty, y: s.y + s.right * s.tx },
        )
      })
    }
    // Where neighbouring sections cross each other, their envelope may be the boundary.
    this.rows.forEach((row, k) => {
      for (let i = 0; i <= PER_SEGMENT; i += EVERY / 2) {
        const d = this.polys[k]!.slope(i / PER_SEGMENT)
        const b = this.polys[k]!.bend(i / PER_SEGMENT)
        const speed = Math.hypot(d.x, d.y)
        const curvature = (d.x * b.y - d.y * b.x) / speed ** 3
        const off = -1 / curvature
        const s = row[i]!
        if (Number.isFinite(off) && off <= s.left && off >= -s.right)
          this.candidates.push({ x: s.x + off * s.ty, y: s.y - off * s.tx })
      }
    })
  }

  private addJoins(): void {
    const n = this.rows.length
    for (let k = 0; k < n; k++) {
      if ((k === 0 && !this.line.path.closed) || !this.isDrawn(this.starts[k]!)) continue
      const a = this.rows[(k + n - 1) % n]![PER_SEGMENT]!
      const b = this.rows[k]![0]!
      this.addJoin(a, b)
    }
  }

  private addJoin(a: Section, b: Section): void {
    const { join, miterLimit } = this.line.finish
    const turn = Math.atan2(a.tx * b.ty - a.ty * b.tx, a.tx * b.tx + a.ty * b.ty)
    const side = turn > 0 ? 1 : -1
    const h = side === 1 ? a.left : a.right
    const edge = (s: Section): Vec => ({ x: s.x + side * h * s.ty, y: s.y - side * h * s.tx })
    const [p, q] = [edge(a), edge(b)]
    if (join === 'round') {
      this.extras.push((v) => {
        const d = { x: v.x - a.x, y: v.y - a.y }
        return Math.hypot(d.x, d.y) <= h && d.x * a.tx + d.y * a.ty >= 0 && d.x * b.tx + d.y * b.ty <= 0
      })
      for (let i = 0; i <= 24; i++) {
        const [c, s] = [Math.cos((turn * i) / 24), Math.sin((turn * i) / 24)]
        const d = { x: p.x - a.x, y: p.y - a.y }
        this.candidates.push({ x: a.x + d.x * c - d.y * s, y: a.y + d.x * s + d.y * c })
      }
      return
    }
    const points = [{ x: a.x, y: a.y }, p]
    const ratio = 1 / Math.cos(turn / 2)
    if (join === 'miter' && ratio <= miterLimit && ratio > 0) {
      const reach = h * Math.tan(Math.abs(turn) / 2)
      points.push({ x: p.x + a.tx * reach, y: p.y + a.ty * reach })
    }
    points.push(q)
    this.addPolygon(points)
  }

  private addCaps(): void {
    if (this.line.path.closed || !this.rows.length) return
    this.addCap(this.sectionAt(this.from), -1, this.line.finish.startCap)
    this.addCap(this.sectionAt(this.to), 1, this.line.finish.endCap)
  }

  private sectionAt(s: number): Section {
    const all = this.rows.flat()
    const i = all.findIndex((c) => c.s >= s)
    if (i < 1) return i ? all.at(-1)! : all[0]!
    const k = Math.floor(i / (PER_SEGMENT + 1))
    const [a, b] = [all[i - 1]!, all[i]!]
    return this.section(k, (i - k * (PER_SEGMENT + 1) - (b.s - s) / (b.s - a.s || 1)) / PER_SEGMENT, s, false)
  }

  private addCap(s: Section, way: 1 | -1, cap: string): void {
    if (cap === 'butt') return
    const r = (s.left + s.right) / 2
    const shift = (s.left - s.right) / 2
    const c = { x: s.x + s.ty * shift, y: s.y - s.tx * shift }
    const [ox, oy] = [way * s.tx, way * s.ty]
    if (cap === 'round') {
      this.extras.push((v) => Math.hypot(v.x - c.x, v.y - c.y) <= r && (v.x - c.x) * ox + (v.y - c.y) * oy >= 0)
      for (let i = 0; i <= 24; i++) {
        const angle = Math.PI * (i / 24 - 0.5)
        this.candidates.push({
          x: c.x + r * (ox * Math.cos(angle) - oy * Math.sin(angle)),
          y: c.y + r * (oy * Math.cos(angle) + ox * Math.sin(angle)),
        })
      }
      return
    }
    const [nx, ny] = [s.ty, -s.tx]
    const corner = (n: number, o: number): Vec => ({
      x: c.x + n * r * nx + o * r * ox,
      y: c.y + n * r * ny + o * r * oy,
    })
    this.addPolygon([corner(1, 0), corner(1, 1), corner(-1, 1), corner(-1, 0)])
  }

  /** A convex polygon of ink. */
  private addPolygon(points: readonly Vec[]): void {
    this.extras.push((v) => {
      let [low, high] = [0, 0]
      points.forEach((a, i) => {
        const b = points[(i + 1) % points.length]!
        const side = (b.x - a.x) * (v.y - a.y) - (b.y - a.y) * (v.x - a.x)
        low = Math.min(low, side)
        high = Math.max(high, side)
      })
      return (low >= 0 || high <= 0) && low !== high
    })
    this.candidates.push(...points)
  }
}
