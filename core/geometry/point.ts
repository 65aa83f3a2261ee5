/** A point or vector in CSS pixels, y down. */
export interface Vec {
  x: number
  y: number
}

/** A point or vector by its coordinates, px. */
export const vec = (x: number, y: number): Vec => ({ x, y })
/** `a + b`. */
export const add = (a: Vec, b: Vec): Vec => ({ x: a.x + b.x, y: a.y + b.y })
/** `a - b`. */
export const subtract = (a: Vec, b: Vec): Vec => ({ x: a.x - b.x, y: a.y - b.y })
/** `a * k`. */
export const scale = (a: Vec, k: number): Vec => ({ x: a.x * k, y: a.y * k })
/** The scalar product of two vectors. */
export const dot = (a: Vec, b: Vec): number => a.x * b.x + a.y * b.y
/** The z of the vector product: positive where `b` lies from `a` towards y. */
export const cross = (a: Vec, b: Vec): number => a.x * b.y - a.y * b.x
/** The length of a vector, px. */
export const length = (a: Vec): number => Math.hypot(a.x, a.y)
/** The distance of two points, px. */
export const distance = (a: Vec, b: Vec): number => Math.hypot(a.x - b.x, a.y - b.y)
/** The point at the share `t` of the way from `a` to `b`. */
export const lerp = (a: Vec, b: Vec, t: number): Vec => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })
/** `a + b * k`. */
export const along = (a: Vec, b: Vec, k: number): Vec => ({ x: a.x + b.x * k, y: a.y + b.y * k })

/** The unit vector along `a`, or null where `a` has no length. */
export function direction(a: Vec): Vec | null {
  const l = Math.hypot(a.x, a.y)
  return l > 0 && Number.isFinite(l) ? { x: a.x / l, y: a.y / l } : null
}

/** The normal to the left of a travel direction `t` (y down): (ty, -tx). */
export const leftNormal = (t: Vec): Vec => ({ x: t.y, y: -t.x })

/** `a` turned by `angle` radians, from x towards y. */
export function rotate(a: Vec, angle: number): Vec {
  const c = Math.cos(angle)
  const s = Math.sin(angle)
  return { x: a.x * c - a.y * s, y: a.x * s + a.y * c }
}
