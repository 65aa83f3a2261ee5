import type { Path, PathNode } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'

export type Point = readonly [number, number]

/**
 * An open path through points, as a good hand would swing it: angles that keep the curvature even across each point, and
 * handle lengths to match (J. D. Hobby, Smooth, easy to compute interpolating splines, 1986), with free ends.
 */
export function through(...points: Point[]): Path {
  const n = points.length - 1
  const chords = points.slice(1).map((p, i) => ({ x: p[0] - points[i]![0], y: p[1] - points[i]![1] }))
  const lengths = chords.map((c) => Math.hypot(c.x, c.y))
  const angles = chords.map((c) => Math.atan2(c.y, c.x))
  if (n === 1) return { nodes: [corner(points[0]!), corner(points[1]!)], closed: false }
  const turns = angles.slice(1).map((a, i) => wrapped(a - angles[i]!))
  const theta = solve(n, lengths, turns)
  const phi = theta.map((t, i) => (i === 0 ? 0 : i === n ? -theta[n]! : -turns[i - 1]! - t))
  return assemble(points, lengths, angles, theta, phi)
}

/** A closed path through points: the open spline over two rounds, of which the middle is kept. */
export function around(...points: Point[]): Path {
  const n = points.length
  const { nodes } = through(...points, ...points, ...points)
  return { nodes: nodes.slice(n, 2 * n).map((node) => ({ ...node, joint: 'smooth' })), closed: true }
}

/** An ellipse about (x, y), turned by `angle` radians, from its left end clockwise as it is seen. */
export function ellipse(x: number, y: number, rx: number, ry: number, angle = 0): Path {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const k = (4 / 3) * Math.tan(Math.PI / 8)
  const on = (u: number, v: number): Vec => round({ x: x + c * u * rx - s * v * ry, y: y + s * u * rx + c * v * ry })
  const nodes = (
    [
      [-1, 0],
      [0, -1],
      [1, 0],
      [0, 1],
    ] as const
  ).map(([u, v]): PathNode => ({
    at: on(u, v),
    in: on(u + v * k, v - u * k),
    out: on(u - v * k, v + u * k),
    joint: 'smooth',
  }))
  return { nodes, closed: true }
}

/** Paths that begin where the last one ended, as one path with a corner at each joint. */
export function joined(...paths: readonly Path[]): Path {
  const nodes = paths[0]!.nodes.map((n) => ({ ...n }))
  for (const { nodes: next } of paths.slice(1)) {
    nodes[nodes.length - 1] = { ...nodes[nodes.length - 1]!, out: next[0]!.out, joint: 'corner' }
    nodes.push(...next.slice(1))
  }
  return { nodes, closed: false }
}

const corner = ([x, y]: Point): PathNode => ({ at: { x, y }, in: null, out: null, joint: 'corner' })

const wrapped = (a: number): number => Math.atan2(Math.sin(a), Math.cos(a))

/** Leaving angles from each chord: a tridiagonal system, with free (curl 1) ends. */
function solve(n: number, d: number[], psi: number[]): number[] {
  const a = new Array<number>(n + 1).fill(0)
  const b = new Array<number>(n + 1).fill(0)
  const c = new Array<number>(n + 1).fill(0)
  const r = new Array<number>(n + 1).fill(0)
  b[0] = 1
  c[0] = 1
  r[0] = -psi[0]!
  for (let i = 1; i < n; i++) {
    a[i] = 1 / d[i - 1]!
    b[i] = 2 / d[i - 1]! + 2 / d[i]!
    c[i] = 1 / d[i]!
    r[i] = -(2 * psi[i - 1]!) / d[i - 1]! - (i < n - 1 ? psi[i]! / d[i]! : 0)
  }
  a[n] = 1
  b[n] = 1
  for (let i = 1; i <= n; i++) {
    const m = a[i]! / b[i - 1]!
    b[i]! -= m * c[i - 1]!
    r[i]! -= m * r[i - 1]!
  }
  const theta = new Array<number>(n + 1).fill(0)
  theta[n] = r[n]! / (b[n]! || 1)
  for (let i = n - 1; i >= 0; i--) theta[i] = (r[i]! - c[i]! * theta[i + 1]!) / b[i]!
  return theta
}

/** Hobby's velocity function: the handle's length as a share of the chord. */
function velocity(theta: number, phi: number): number {
  const [st, ct, sp, cp] = [Math.sin(theta), Math.cos(theta), Math.sin(phi), Math.cos(phi)]
  const top = 2 + Math.SQRT2 * (st - sp / 16) * (sp - st / 16) * (ct - cp)
  return Math.max(0.12, top / (3 * (1 + 0.5 * (Math.sqrt(5) - 1) * ct + 0.5 * (3 - Math.sqrt(5)) * cp)))
}

function assemble(points: readonly Point[], d: number[], angles: number[], theta: number[], phi: number[]): Path {
  const n = points.length - 1
  const nodes = points.map((p, i): PathNode => ({ ...corner(p), joint: i > 0 && i < n ? 'smooth' : 'corner' }))
  for (let i = 0; i < n; i++) {
    const [t, f] = [theta[i]!, phi[i + 1]!]
    const out = velocity(t, f) * d[i]!
    const into = velocity(f, t) * d[i]!
    const leave = angles[i]! + t
    const arrive = angles[i]! - f
    const [p, q] = [nodes[i]!.at, nodes[i + 1]!.at]
    nodes[i]!.out = round({ x: p.x + out * Math.cos(leave), y: p.y + out * Math.sin(leave) })
    nodes[i + 1]!.in = round({ x: q.x - into * Math.cos(arrive), y: q.y - into * Math.sin(arrive) })
  }
  return { nodes, closed: false }
}

const round = (p: Vec): Vec => ({ x: Math.round(p.x * 100) / 100, y: Math.round(p.y * 100) / 100 })
