import type { Path, PathNode } from '../geometry/path'
import { fitCurve } from '../fit/fit-curve'
import type { CurveSource } from '../fit/source'
import { pathOfCubics } from '../geometry/path'
import type { Vec } from '../geometry/point'

export const FIGURES = ['ellipse', 'rectangle', 'polygon', 'star', 'spiral', 'arc'] as const
export type FigureKind = (typeof FIGURES)[number]

/** What makes a figure besides its box. */
export interface FigureShape {
  kind: FigureKind
  /** Corners of a polygon, points of a star: 3 or more. */
  sides: number
  /** Radius of a star's inner corners as a share of that of its points, above 0 and below 1. */
  depth: number
  /** Turns of a spiral, above 0. */
  turns: number
}

/** How far a spiral may lie from the true one, as a share of its size. */
const SPIRAL_TOLERANCE = 1e-4

/** Length of the handles of a quarter of a circle, as a share of its radius. */
const QUARTER = (4 / 3) * (Math.SQRT2 - 1)

/**
 * A figure that fills the box from `a` to `b` (any two opposite corners). Polygons and stars stand on their base; a spiral
 * winds out from the middle; an arc is the quarter of an ellipse from `a` to `b`.
 */
export function figurePath(shape: FigureShape, a: Vec, b: Vec): Path {
  const centre = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
  const rx = Math.abs(b.x - a.x) / 2
  const ry = Math.abs(b.y - a.y) / 2
  switch (shape.kind) {
    case 'ellipse':
      return { nodes: ellipseNodes(centre, rx, ry), closed: true }
    case 'rectangle':
      return corners([a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }])
    case 'polygon':
      return corners(around(Math.max(3, Math.round(shape.sides)), centre, rx, ry, 1))
    case 'star':
      return corners(around(2 * Math.max(3, Math.round(shape.sides)), centre, rx, ry, shape.depth))
    case 'spiral':
      return spiral(centre, rx, ry, shape.turns)
    case 'arc':
      return quarter(a, b)
  }
}

const corners = (points: readonly Vec[]): Path => ({
  nodes: points.map((at): PathNode => ({ at, in: null, out: null, joint: 'corner' })),
  closed: true,
})

/** Points at even angles on an ellipse, the first at its top; every second one drawn in to `depth`. */
const around = (n: number, centre: Vec, rx: number, ry: number, depth: number): Vec[] =>
  Array.from({ length: n }, (_, i) => {
    const angle = (2 * Math.PI * i) / n - Math.PI / 2
    const k = i % 2 ? depth : 1
    return { x: centre.x + k * rx * Math.cos(angle), y: centre.y + k * ry * Math.sin(angle) }
  })

function ellipseNodes({ x, y }: Vec, rx: number, ry: number): PathNode[] {
  const node = (cx: number, cy: number, ax: number, ay: number): PathNode => ({
    at: { x: x + cx * rx, y: y + cy * ry },
    in: { x: x + cx * rx - ax * QUARTER * rx, y: y + cy * ry - ay * QUARTER * ry },
    out: { x: x + cx * rx + ax * QUARTER * rx, y: y + cy * ry + ay * QUARTER * ry },
    joint: 'smooth',
  })
  return [node(0, -1, 1, 0), node(1, 0, 0, 1), node(0, 1, -1, 0), node(-1, 0, 0, -1)]
}

/** From a to b, leaving level and arriving upright. */
function quarter(a: Vec, b: Vec): Path {
  const out = { x: a.x + (b.x - a.x) * QUARTER, y: a.y }
  const arrive = { x: b.x, y: b.y - (b.y - a.y) * QUARTER }
  return {
    nodes: [
      { at: a, in: null, out, joint: 'corner' },
      { at: b, in: arrive, out: null, joint: 'corner' },
    ],
    closed: false,
  }
}

/** An even (Archimedes') spiral that ends at the right of its box. */
function spiral(centre: Vec, rx: number, ry: number, turns: number): Path {
  const whole = 2 * Math.PI * turns
  const source: CurveSource = {
    parts: 1,
    sample(_part, t, out) {
      const angle = whole * (t - 1)
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      out[0] = centre.x + rx * t * c
      out[1] = centre.y + ry * t * s
      out[2] = rx * (c - t * whole * s)
      out[3] = ry * (s + t * whole * c)
      out[4] = Infinity
    },
  }
  const tolerance = SPIRAL_TOLERANCE * Math.max(rx, ry)
  const cubics = tolerance > 0 ? fitCurve(source, tolerance).map((f) => f.cubic) : []
  return pathOfCubics(cubics, false, tolerance)
}
