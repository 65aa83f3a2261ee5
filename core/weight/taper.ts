import type { Taper } from '../model/model'

/** A taper with its length resolved to px. */
export interface SizedTaper {
  length: number
  taper: Taper
}

/**
 * Both tapers of an open line with their lengths in px. Where they sum past `total` (the line's length, px) they are
 * scaled down together.
 */
export function sizeTapers(
  start: Taper | null,
  end: Taper | null,
  total: number,
): { start: SizedTaper | null; end: SizedTaper | null } {
  const a = start ? taperLength(start, total) : 0
  const b = end ? taperLength(end, total) : 0
  const k = a + b > total ? total / (a + b) : 1
  return {
    start: start && a > 0 ? { length: a * k, taper: start } : null,
    end: end && b > 0 ? { length: b * k, taper: end } : null,
  }
}

const taperLength = (t: Taper, total: number): number => (t.unit === '%' ? (t.length / 100) * total : t.length)

/** Factor and its slope (1/px) at `d` px from the tapered end, growing away from it. */
export function taperAt({ length, taper }: SizedTaper, d: number): { value: number; slope: number } {
  const u = Math.min(1, Math.max(0, d / length))
  if (u >= 1) return { value: 1, slope: 0 }
  const rise = 1 - taper.tip
  switch (taper.ease) {
    case 'straight':
      return { value: taper.tip + rise * u, slope: rise / length }
    case 'needle':
      return { value: taper.tip + rise * u * u, slope: (rise * 2 * u) / length }
    case 'round': {
      const e = Math.sqrt(u * (2 - u))
      // The slope is infinite at the very tip; the curve is entered just inside it.
      return { value: taper.tip + rise * e, slope: (rise * (1 - u)) / (Math.max(e, 1e-6) * length) }
    }
  }
}
