import type { Vec } from '#core/geometry/point'

/** Turns `p` about `from` to the nearest multiple of 15 degrees. */
export function constrained(from: Vec, p: Vec): Vec {
  const step = Math.PI / 12
  const angle = Math.round(Math.atan2(p.y - from.y, p.x - from.x) / step) * step
  const l = Math.hypot(p.x - from.x, p.y - from.y)
  return { x: from.x + Math.cos(angle) * l, y: from.y + Math.sin(angle) * l }
}
