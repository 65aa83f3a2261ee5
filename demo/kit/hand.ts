import type { Line, TraceSample } from '#core/model/model'
import { arcOfPath } from '../../core/geometry/known'
import { leftNormal } from '../../core/geometry/point'
import { LineWidth } from '../../core/weight/half-widths'
import { random, wobble } from './random'

/** Milliseconds between the samples of a common tablet. */
const STEP = 8
/** Speed where a line is straight, and where it bends by a radius of a px, px a ms. */
const FASTEST = 0.62
const SPEED_GAIN = 0.11
/** Time in which the pen comes up to speed and in which it is put down and lifted, ms. */
const LAUNCH = 140
const TOUCH = 70
/** How far the hand strays slowly, and trembles, px; the tremor of hands swings about ten times a second. */
const STRAY = 0.9
const TREMOR = 0.22
const TREMOR_HZ = 9.5

/**
 * A pen trace as a hand would make it along a line: fast where it is straight and slow where it bends, by the two-thirds
 * power law (F. Lacquaniti, C. Terzuolo, P. Viviani, 1983); a little astray and trembling; pressed as the line is wide.
 */
export function handOver(line: Line, seed: number): TraceSample[] {
  const next = random(seed)
  const [astray, leaning] = [wobble(next), wobble(next)]
  const arc = arcOfPath(line.path)
  const width = new LineWidth(line.weight, line.finish.align, arc.total, line.path.closed)
  const phase = next() * 6
  const samples: TraceSample[] = []
  let s = 0
  for (let t = 0; ; t += STEP) {
    const at = Math.min(s, arc.total)
    const p = arc.point(at)
    const n = leftNormal(arc.tangent(at) ?? { x: 1, y: 0 })
    const off =
      STRAY * astray(at) + TREMOR * Math.sin((2 * Math.PI * TREMOR_HZ * t) / 1000 + phase) + 0.12 * (next() - 0.5)
    const h = width.at(at)
    const left = (arc.total - at) / FASTEST
    const pressed =
      (0.12 + (0.8 * (h.left + h.right)) / line.weight.size) * Math.min(1, (t + 15) / TOUCH, (left + 15) / TOUCH)
    samples.push({
      x: rounded(p.x + n.x * off, 2),
      y: rounded(p.y + n.y * off, 2),
      t,
      pressure: rounded(Math.min(1, Math.max(0.02, pressed + 0.035 * leaning(at * 0.7))), 3),
      tiltX: Math.round(28 + 6 * leaning(at)),
      tiltY: Math.round(-12 + 5 * astray(at * 0.5)),
    })
    if (s >= arc.total) return samples
    const pace = Math.min(FASTEST, SPEED_GAIN * bendRadius(arc, at) ** (1 / 3)) * (0.9 + 0.2 * next())
    s += STEP * pace * Math.min(1, (t + 30) / LAUNCH, Math.max(0.25, left / LAUNCH))
  }
}

const rounded = (v: number, digits: number): number => Number(v.toFixed(digits))

/** Radius of the bend at a place, px, from the turn over a few px; large where it is straight. */
function bendRadius(arc: ReturnType<typeof arcOfPath>, s: number): number {
  const reach = 3
  const [a, b] = [arc.tangent(Math.max(0, s - reach)), arc.tangent(Math.min(arc.total, s + reach))]
  if (!a || !b) return 1e4
  const turn = Math.abs(Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y))
  return (2 * reach) / Math.max(turn, 1e-3)
}
