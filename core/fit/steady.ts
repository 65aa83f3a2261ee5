import type { Vec } from '../geometry/point'
import { distance } from '../geometry/point'

/** Points about `spacing` px apart along the samples, ends kept. */
export function evenlySpaced(samples: readonly Vec[], spacing: number): Vec[] {
  const out: Vec[] = [{ x: samples[0]!.x, y: samples[0]!.y }]
  let last = out[0]!
  let carried = 0
  for (const s of samples.slice(1)) {
    const step = distance(last, s)
    let at = spacing - carried
    while (at <= step) {
      out.push({ x: last.x + ((s.x - last.x) * at) / step, y: last.y + ((s.y - last.y) * at) / step })
      at += spacing
    }
    carried = step - (at - spacing)
    last = { x: s.x, y: s.y }
  }
  if (carried > 1e-6) {
    const end = { x: last.x, y: last.y }
    if (out.length > 1 && carried < spacing / 2) out[out.length - 1] = end
    else out.push(end)
  }
  return out
}

/** Gaussian smoothing with both ends held: beyond an end the trace is mirrored through it. */
export function steadied(points: readonly Vec[], sigma: number): Vec[] {
  const n = points.length
  const held = Math.min(sigma, n / 6)
  if (held < 0.3) return [...points]
  const reach = Math.ceil(held * 3)
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-(((k - reach) / held) ** 2) / 2))
  const sum = weights.reduce((a, b) => a + b, 0)
  const at = (i: number): Vec => {
    if (i < 0) return mirrored(points[0]!, points[Math.min(n - 1, -i)]!)
    if (i >= n) return mirrored(points[n - 1]!, points[Math.max(0, 2 * (n - 1) - i)]!)
    return points[i]!
  }
  return points.map((p, i) => {
    if (i === 0 || i === n - 1) return p
    let x = 0
    let y = 0
    for (let k = 0; k < weights.length; k++) {
      const q = at(i + k - reach)
      x += weights[k]! * q.x
      y += weights[k]! * q.y
    }
    return { x: x / sum, y: y / sum }
  })
}

/** Every `step`-th point and the last. */
export function thinned(points: readonly Vec[], step: number): Vec[] {
  const last = points.length - 1
  return points.filter((_, i) => i === last || (i % step === 0 && last - i >= step / 2) || i === 0)
}

const mirrored = (about: Vec, p: Vec): Vec => ({ x: 2 * about.x - p.x, y: 2 * about.y - p.y })
