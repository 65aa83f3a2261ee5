import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import type { Place } from './mark-look'
import { PAPER, PLUM, REACH, strokedOnInk, target } from './mark-look'
import type { Mark, MarkRef } from './marks'

/** A width stop: a pair of measuring jaws across the line. */
export function jaws(mark: Extract<Mark, { kind: 'jaws' }>, place: Place): Konva.Shape[] {
  const [left, right, centre] = [place(mark.left), place(mark.right), place(mark.centre)]
  const across = Math.atan2(left.y - right.y, left.x - right.x)
  const gap = 3
  // The jaws stand a little off the ink, so that they do not hide it.
  const off = (p: Vec, way: 1 | -1): Vec => ({
    x: p.x + Math.cos(across) * gap * way,
    y: p.y + Math.sin(across) * gap * way,
  })
  const [l, r] = [off(left, 1), off(right, -1)]
  const width = mark.chosen ? 2.4 : 1.6
  const bar = new Konva.Line({
    points: [l.x, l.y, r.x, r.y],
    stroke: PLUM,
    strokeWidth: 1,
    opacity: 0.8,
    listening: false,
  })
  const jaw = (p: Vec, side: 'left' | 'right'): Konva.Shape =>
    new Konva.Shape({
      x: p.x,
      y: p.y,
      mark: { kind: 'jaw', line: mark.line, index: mark.index, side } satisfies MarkRef,
      sceneFunc: (ctx) => {
        const way = side === 'left' ? 1 : -1
        ctx.rotate(across)
        ctx.beginPath()
        ctx.moveTo(way * 3, -6)
        ctx.lineTo(0, -6)
        ctx.lineTo(0, 6)
        ctx.lineTo(way * 3, 6)
        ctx.setAttr('strokeStyle', PLUM)
        ctx.setAttr('lineWidth', width)
        ctx.stroke()
      },
      hitFunc: target(REACH),
    })
  const pin = new Konva.Circle({
    x: centre.x,
    y: centre.y,
    radius: mark.chosen ? 3.6 : 2.8,
    fill: mark.chosen ? PLUM : PAPER,
    stroke: PLUM,
    strokeWidth: 1.4,
    mark: { kind: 'stop', line: mark.line, index: mark.index } satisfies MarkRef,
    hitFunc: target(REACH),
  } as Konva.CircleConfig)
  return [bar, jaw(l, 'left'), jaw(r, 'right'), pin]
}

/** The handle of an end: a short stem beyond it with a crossbar that is dragged inwards. */
export function tip(mark: Extract<Mark, { kind: 'tip' }>, p: Vec, outward: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: { kind: 'tip', line: mark.line, end: mark.end } satisfies MarkRef,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      const arrow = (): void => {
        ctx.moveTo(9, 0)
        ctx.lineTo(17, 0)
        ctx.moveTo(13, -4.5)
        ctx.lineTo(17.5, 0)
        ctx.lineTo(13, 4.5)
      }
      strokedOnInk(ctx, arrow, 1.7)
    },
    hitFunc: (ctx, shape) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      ctx.beginPath()
      ctx.arc(14, 0, 8, 0, Math.PI * 2)
      ctx.fillShape(shape)
    },
  })
}

/** The inner end of a taper: a wedge beside the line, off it, so that a stop there stays free. */
export function taper(mark: Extract<Mark, { kind: 'taper' }>, p: Vec, across: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: { kind: 'taper', line: mark.line, end: mark.end } satisfies MarkRef,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(across.y, across.x))
      ctx.beginPath()
      ctx.moveTo(-16, 0)
      ctx.lineTo(16, 0)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 1)
      ctx.setLineDash([2, 3])
      ctx.stroke()
      ctx.setLineDash([])
      ctx.beginPath()
      ctx.moveTo(16, 0)
      ctx.lineTo(25, -5)
      ctx.lineTo(25, 5)
      ctx.closePath()
      ctx.setAttr('fillStyle', PAPER)
      ctx.setAttr('lineWidth', 1.6)
      ctx.fill()
      ctx.stroke()
    },
    hitFunc: (ctx, shape) => {
      ctx.rotate(Math.atan2(across.y, across.x))
      ctx.beginPath()
      ctx.arc(21, 0, 9, 0, Math.PI * 2)
      ctx.fillShape(shape)
    },
  })
}

/** The place that the pointer is at in the weight graph: two short strokes on either side of the line. */
export function placeMark(p: Vec, across: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(across.y, across.x))
      const sides = (): void => {
        ctx.moveTo(-18, 0)
        ctx.lineTo(-8, 0)
        ctx.moveTo(8, 0)
        ctx.lineTo(18, 0)
      }
      strokedOnInk(ctx, sides, 2)
    },
  })
}
