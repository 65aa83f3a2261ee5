import type Konva from 'konva'
import type { Path } from '#core/geometry/path'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'

export const PLUM = '#7a2b58'
export const PAPER = '#fffdf8'
export const INK = '#211c1a'
export const MUTE = '#6f665d'
export const AMBER = '#b9690f'

/** How far from its middle a mark takes the hand, screen px times 1.5. */
export const REACH = 12

/** The paper round a stroke that may lie on ink, both sides together, px. */
const BORDER = 2.3

/** Page to screen: of points, and of directions. */
export interface Place {
  (p: Vec): Vec
  step: (d: Vec) => Vec
}

export const lozenge = (ctx: Konva.Context, r: number): void => lozengeAt(ctx, { x: 0, y: 0 }, r)

export function lozengeAt(ctx: Konva.Context, { x, y }: Vec, r: number): void {
  ctx.moveTo(x, y - r)
  ctx.lineTo(x + r, y)
  ctx.lineTo(x, y + r)
  ctx.lineTo(x - r, y)
  ctx.closePath()
}

/** Strokes a shape with a border of paper round it, so that it shows on ink as well. */
export function strokedOnInk(ctx: Konva.Context, shape: () => void, width: number, colour = PLUM): void {
  ctx.beginPath()
  shape()
  for (const [stroke, lineWidth] of [
    [PAPER, width + BORDER],
    [colour, width],
  ] as const) {
    ctx.setAttr('strokeStyle', stroke)
    ctx.setAttr('lineWidth', lineWidth)
    ctx.stroke()
  }
}

/** The part of a mark that takes the hand. */
export const target =
  (reach: number) =>
  (ctx: Konva.Context, shape: Konva.Shape): void => {
    ctx.beginPath()
    ctx.arc(0, 0, reach / 1.5, 0, Math.PI * 2)
    ctx.fillShape(shape)
  }

/** Adds a path to the one under way. */
export function tracePath(ctx: Konva.Context, path: Path, place: Place): void {
  const start = place(path.nodes[0]!.at)
  ctx.moveTo(start.x, start.y)
  for (const c of cubicsOfPath(path)) {
    const [p, q, r] = [place(c.p1), place(c.p2), place(c.p3)]
    ctx.bezierCurveTo(p.x, p.y, q.x, q.y, r.x, r.y)
  }
}
