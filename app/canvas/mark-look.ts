import type Konva from 'konva'
import type { Vec } from '#core/geometry/point'

export const PLUM = '#7a2b58'
export const PAPER = '#fffdf8'
export const INK = '#211c1a'
export const MUTE = '#6f665d'

/** How far from its middle a mark takes the hand, screen px times 1.5. */
export const REACH = 12

/** The paper round a stroke that may lie on ink, both sides together, px. */
const BORDER = 2.3

/** Page to screen: of points, and of directions. */
export interface Place {
  (p: Vec): Vec
  step: (d: Vec) => Vec
}

export function lozenge(ctx: Konva.Context, r: number): void {
  ctx.moveTo(0, -r)
  ctx.lineTo(r, 0)
  ctx.lineTo(0, r)
  ctx.lineTo(-r, 0)
  ctx.closePath()
}

/** Strokes a shape with a border of paper round it, so that it shows on ink as well. */
export function strokedOnInk(ctx: Konva.Context, shape: () => void, width: number, colour = PLUM): void {
  ctx.beginPath()
  shape()
  for (const [stroke, lineWidth] of [[PAPER, width + BORDER], [colour, width]] as const) {
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
