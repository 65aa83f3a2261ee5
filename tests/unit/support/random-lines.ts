import type { Align, Cap, Join, Line, WidthStop } from '#core/model/model'
import { evenWeight, newLine, roundFinish } from '#core/model/create'

/** Repeatable random numbers in [0, 1) (G. Marsaglia, Xorshift RNGs, 2003). */
export function seeded(seed: number): () => number {
  let x = seed * 2654435761 + 1
  return () => {
    x ^= x << 13
    x ^= x >>> 17
    x ^= x << 5
    return (x >>> 0) / 4294967296
  }
}

/** A random line of one to four segments within about 160 px, with random stops, tapers and bends. */
export function randomLine(seed: number): Line {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const count = 2 + Math.floor(r() * 3)
  const point = () => ({ x: 20 + r() * 120, y: 20 + r() * 120 })
  const closed = r() < 0.2 && count > 2
  const nodes = Array.from({ length: count }, () => {
    const at = point()
    const arm = { x: (r() - 0.5) * 100, y: (r() - 0.5) * 100 }
    const smooth = r() < 0.5
    return {
      at,
      in: r() < 0.15 ? null : { x: at.x - arm.x * (0.4 + r()), y: at.y - arm.y * (smooth ? 1 : r()) },
      out: r() < 0.15 ? null : { x: at.x + arm.x, y: at.y + arm.y },
      joint: 'corner' as const,
    }
  })
  const stops: WidthStop[] = Array.from({ length: 1 + Math.floor(r() * 4) }, () => ({
    at: r(),
    left: r() * 1.4,
    right: r() < 0.5 ? r() * 1.4 : 1,
  }))
  const taper = () =>
    r() < 0.4
      ? {
          length: r() * 60,
          unit: 'px' as const,
          tip: r() < 0.5 ? 0 : r(),
          ease: (['straight', 'round', 'needle'] as const)[Math.floor(r() * 3)]!,
        }
      : null
  return newLine(
    { nodes, closed },
    {
      weight: { ...evenWeight(2 + r() * 24), stops, start: taper(), end: taper() },
      finish: { ...roundFinish(), startCap: r() < 0.5 ? 'round' : 'butt', endCap: r() < 0.5 ? 'round' : 'butt' },
    },
  )
}

/** As `randomLine`, with every cap, join and alignment, sharp stops, and now and then no width inside. */
export function inkyLine(seed: number): Line {
  const line = randomLine(seed)
  const r = seeded(seed + 7_000_003)
  for (let i = 0; i < 8; i++) r()
  const pick = <T>(...of: T[]): T => of[Math.floor(r() * of.length)]!
  const cap = (): Cap => pick('butt', 'round', 'square')
  const stops = line.weight.stops.map((s) => ({
    ...s,
    ...(r() < 0.3 && { sharp: true }),
    ...(r() < 0.08 && { left: 0 }),
    ...(r() < 0.04 && { left: 0, right: 0 }),
  }))
  return {
    ...line,
    weight: { ...line.weight, stops },
    finish: {
      ...line.finish,
      startCap: cap(),
      endCap: cap(),
      join: pick<Join>('round', 'miter', 'bevel'),
      miterLimit: pick(2, 4, 10),
      align: pick<Align>('centre', 'centre', 'left', 'right'),
    },
  }
}
