import type { Line, Taper, Weight, WidthStop } from '#core/model/model'

/** Stops nearer to each other than this are one place. */
const ONE = 1e-9

/** One side's profile, written from the definition: a monotone cubic Hermite (F. Fritsch and R. Carlson, 1980). */
class SideProfile {
  private readonly x: number[]
  private readonly y: number[]
  private readonly slopes: [arrive: number, leave: number][]

  constructor(stops: readonly WidthStop[], side: 'left' | 'right', closed: boolean) {
    const sorted = [...stops].sort((a, b) => a.at - b.at)
    // A closed line wraps: it is laid out three times, and the middle one is used.
    const turns = closed && sorted.length > 1 ? [-1, 0, 1] : [0]
    const all = turns.flatMap((t) => sorted.map((s) => ({ at: s.at + t, value: s[side], sharp: !!s.sharp })))
    this.x = all.map((s) => s.at)
    this.y = all.map((s) => s.value)
    const n = all.length
    const secant = (i: number): number =>
      i < 0 || i >= n - 1
        ? Number.NaN
        : this.x[i + 1]! - this.x[i]! > 1e-12
          ? (this.y[i + 1]! - this.y[i]!) / (this.x[i + 1]! - this.x[i]!)
          : 0
    this.slopes = all.map((s, i) => {
      const [before, after] = [secant(i - 1), secant(i)]
      const [b, a] = [Number.isNaN(before) ? after : before, Number.isNaN(after) ? before : after].map((v) =>
        Number.isNaN(v) ? 0 : v,
      ) as [number, number]
      if (s.sharp) return [b, a]
      const mean = b * a > 0 ? (b + a) / 2 : 0
      return [mean, mean]
    })
    for (let i = 0; i + 1 < n; i++) {
      const d = secant(i)
      if (d === 0) {
        this.slopes[i]![1] = this.slopes[i + 1]![0] = 0
        continue
      }
      const [alpha, beta] = [this.slopes[i]![1] / d, this.slopes[i + 1]![0] / d]
      const r = Math.hypot(alpha, beta)
      if (r <= 3) continue
      this.slopes[i]![1] = ((3 * alpha) / r) * d
      this.slopes[i + 1]![0] = ((3 * beta) / r) * d
      if (!all[i]!.sharp) this.slopes[i]![0] = this.slopes[i]![1]
      if (!all[i + 1]!.sharp) this.slopes[i + 1]![1] = this.slopes[i + 1]![0]
    }
  }

  at(s: number, fromBelow: boolean): number {
    const { x, y } = this
    const n = x.length
    if (s < x[0]! - ONE) return y[0]!
    let i = -1
    for (let k = 0; k < n; k++) if (fromBelow ? x[k]! < s - ONE : x[k]! <= s + ONE) i = k
    if (i < 0) return y[0]!
    if (i === n - 1) return y[n - 1]!
    const h = x[i + 1]! - x[i]!
    if (h <= 1e-12) return fromBelow ? y[i]! : y[i + 1]!
    const u = (s - x[i]!) / h
    const [p, q] = [(1 + 2 * u) * (1 - u) ** 2, u * u * (3 - 2 * u)]
    const [m, k] = [u * (1 - u) ** 2, u * u * (u - 1)]
    return Math.max(0, p * y[i]! + q * y[i + 1]! + h * (m * this.slopes[i]![1] + k * this.slopes[i + 1]![0]))
  }
}

/** Half-widths by the definition of a line's ink, sharing no code with the engine: size / 2 x profile x tapers, then alignment. */
export class TrueWidth {
  private readonly left: SideProfile
  private readonly right: SideProfile
  private readonly lengths: [start: number, end: number]

  constructor(
    private readonly weight: Weight,
    private readonly align: Line['finish']['align'],
    private readonly total: number,
    closed: boolean,
  ) {
    this.left = new SideProfile(weight.stops, 'left', closed)
    this.right = new SideProfile(weight.stops, 'right', closed)
    const px = (t: Taper | null): number => (!t || closed ? 0 : t.unit === '%' ? (t.length * total) / 100 : t.length)
    const [a, b] = [px(weight.start), px(weight.end)]
    const k = a + b > total ? total / (a + b) : 1
    this.lengths = [a * k, b * k]
  }

  /** Arc lengths, px, where the width has a corner. */
  get breaks(): number[] {
    const [a, b] = this.lengths
    return [...this.weight.stops.map((s) => s.at * this.total), ...(a ? [a] : []), ...(b ? [this.total - b] : [])]
  }

  at(s: number, fromBelow = false): { left: number; right: number } {
    const u = this.total > 0 ? Math.min(1, Math.max(0, s / this.total)) : 0
    const k =
      (this.weight.size / 2) *
      this.eased(this.weight.start, this.lengths[0], s) *
      this.eased(this.weight.end, this.lengths[1], this.total - s)
    const [left, right] = [this.left.at(u, fromBelow) * k, this.right.at(u, fromBelow) * k]
    if (this.align === 'centre') return { left, right }
    return this.align === 'left' ? { left: left + right, right: 0 } : { left: 0, right: left + right }
  }

  private eased(taper: Taper | null, length: number, d: number): number {
    if (!taper || !length) return 1
    const u = Math.min(1, Math.max(0, d / length))
    const e = taper.ease === 'straight' ? u : taper.ease === 'needle' ? u ** 2 : Math.sqrt(1 - (1 - u) ** 2)
    return taper.tip + (1 - taper.tip) * e
  }
}
