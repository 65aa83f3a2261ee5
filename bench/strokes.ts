import type { Line, WidthStop } from '#core/model/model'
import type { PathNode } from '#core/geometry/path'
import { evenWeight, newLine, roundFinish } from '#core/model/create'

/** Repeatable random numbers in [0, 1) (G. Marsaglia, Xorshift RNGs, 2003). */
export function seeded(seed: number): () => number {
  let x = Math.imul(seed, 2654435761) + 1
  return () => {
    x ^= x << 13
    x ^= x >>> 17
    x ^= x << 5
    return (x >>> 0) / 4294967296
  }
}

/**
 * Strokes as an inker lays them: a few smooth bends each, swelling and tapering, as dense on the page at any count (about
 * 14 px of page to each along both sides for a thousand).
 */
export function strokes(count: number, seed = 1): Line[] {
  const r = seeded(seed)
  const side = Math.sqrt(count) * 45
  return Array.from({ length: count }, () => stroke(r, side))
}

function stroke(r: () => number, side: number): Line {
  const nodes: PathNode[] = []
  let at = { x: r() * side, y: r() * side }
  let angle = r() * 2 * Math.PI
  const count = 3 + Math.floor(r() * 3)
  for (let i = 0; i < count; i++) {
    const arm = 12 + r() * 18
    const d = { x: Math.cos(angle) * arm, y: Math.sin(angle) * arm }
    nodes.push({
      at,
      in: i > 0 ? { x: at.x - d.x, y: at.y - d.y } : null,
      out: i + 1 < count ? { x: at.x + d.x, y: at.y + d.y } : null,
      joint: 'smooth',
    })
    const turn = (r() - 0.5) * 1.6
    const step = 50 + r() * 40
    at = { x: at.x + Math.cos(angle + turn / 2) * step, y: at.y + Math.sin(angle + turn / 2) * step }
    angle += turn
  }
  const stops: WidthStop[] = [0, 0.35 + r() * 0.3, 1].map((place) => ({
    at: place,
    left: 0.3 + r() * 0.7,
    right: 0.3 + r() * 0.7,
  }))
  const taper = { length: 25 + r() * 30, unit: 'px' as const, tip: 0, ease: 'round' as const }
  return newLine(
    { nodes, closed: false },
    {
      weight: { ...evenWeight(5 + r() * 9), stops, start: r() < 0.5 ? taper : null, end: taper },
      finish: roundFinish(),
    },
  )
}
