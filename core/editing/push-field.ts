import type { Box } from '../geometry/bounds'
import { emptyBox, include, overlap } from '../geometry/bounds'
import type { Vec } from '../geometry/point'

/** How a hand pushes: so wide, px, and so much of its own way, 0..1. */
export interface PushOptions {
  radius: number
  strength: number
}

/** A step is no longer than this share of the radius: so a push is the same in few steps as in many, and folds nothing. */
const LONGEST = 0.08

/** A place, and a way that leads through it. */
export interface Moved {
  at: Vec
  way: Vec
}

/**
 * Moves the plane as a soft round thing that is pushed over it: most at its middle, nothing at its rim, where it also ends smoothly.
 * Each step is a map without folds, and its derivative takes directions along.
 */
export class PushField {
  private readonly x: number[] = []
  private readonly y: number[] = []
  private readonly bx: number[] = []
  private readonly by: number[] = []
  private readonly box = emptyBox()

  /** @param way where the hand was, px, and by how much it moved from there */
  constructor(
    way: readonly { at: Vec; by: Vec }[],
    private readonly options: PushOptions,
  ) {
    const { radius, strength } = options
    for (const { at, by } of way) {
      const length = strength * Math.hypot(by.x, by.y)
      const parts = Math.max(1, Math.ceil(length / (LONGEST * radius)))
      for (let i = 0; i < parts && length > 0; i++) {
        this.x.push(at.x + (by.x * i) / parts)
        this.y.push(at.y + (by.y * i) / parts)
        this.bx.push((strength * by.x) / parts)
        this.by.push((strength * by.y) / parts)
      }
      for (const k of [0, 1]) {
        include(this.box, at.x + k * by.x - radius, at.y + k * by.y - radius)
        include(this.box, at.x + k * by.x + radius, at.y + k * by.y + radius)
      }
    }
  }

  /** Whether anything in a box may be moved. */
  reaches = (box: Box): boolean => this.x.length > 0 && overlap(box, this.box)

  /** Where a place comes to lie. */
  placed(at: Vec): Vec {
    const { radius } = this.options
    let [px, py] = [at.x, at.y]
    for (let i = 0; i < this.x.length; i++) {
      const [dx, dy] = [px - this.x[i]!, py - this.y[i]!]
      const q = 1 - (dx * dx + dy * dy) / (radius * radius)
      if (q <= 0) continue
      px += this.bx[i]! * q * q
      py += this.by[i]! * q * q
    }
    return { x: px, y: py }
  }

  /** Where a place comes to lie, and how a way through it leads on there. */
  moved(at: Vec, way: Vec): Moved {
    const { radius } = this.options
    let [px, py, vx, vy] = [at.x, at.y, way.x, way.y]
    for (let i = 0; i < this.x.length; i++) {
      const [dx, dy] = [px - this.x[i]!, py - this.y[i]!]
      const q = 1 - (dx * dx + dy * dy) / (radius * radius)
      if (q <= 0) continue
      // The weight is q squared; its slope along the way -4 q (d . v) / radius squared.
      const slope = (-4 * q * (dx * vx + dy * vy)) / (radius * radius)
      vx += this.bx[i]! * slope
      vy += this.by[i]! * slope
      px += this.bx[i]! * q * q
      py += this.by[i]! * q * q
    }
    return { at: { x: px, y: py }, way: { x: vx, y: vy } }
  }
}
