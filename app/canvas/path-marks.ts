import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import { lozenge, PAPER, PLUM, REACH, target } from './mark-look'
import type { Mark, MarkRef } from './marks'

/** Smooth node: ring. Corner node: lozenge. Chosen: filled plum. */
export function node(mark: Extract<Mark, { kind: 'node' }>, p: Vec): Konva.Shape {
  const smooth = mark.joint === 'smooth'
  const k = mark.small ? 0.5 : 1
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: mark.ref,
    listening: !!mark.ref,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      if (smooth) ctx.arc(0, 0, 4.2 * k, 0, Math.PI * 2)
      else lozenge(ctx, 5.4 * k)
      ctx.setAttr('fillStyle', mark.chosen ? PLUM : PAPER)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', mark.small ? 1.1 : 1.6)
      ctx.fill()
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
}

/** A thin stem with a crossbar at its end. */
export function handle(from: Vec, to: Vec, ref: MarkRef | null): Konva.Shape[] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x)
  const stem = new Konva.Line({
    points: [from.x, from.y, to.x, to.y],
    stroke: PLUM,
    strokeWidth: 1,
    opacity: 0.75,
    listening: false,
  })
  const bar = new Konva.Shape({
    x: to.x,
    y: to.y,
    mark: ref,
    listening: !!ref,
    sceneFunc: (ctx) => {
      ctx.rotate(angle)
      ctx.beginPath()
      ctx.moveTo(0, -5)
      ctx.lineTo(0, 5)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 2.6)
      ctx.setAttr('lineCap', 'round')
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
  return [stem, bar]
}

/** An open chevron at a free end, pointing outwards. */
export function openEnd(p: Vec, outward: Vec, ref: MarkRef | null, hot: boolean): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: ref,
    listening: !!ref,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      ctx.beginPath()
      ctx.moveTo(5, -5)
      ctx.lineTo(10, 0)
      ctx.lineTo(5, 5)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', ref ? 2.4 : 1.6)
      ctx.stroke()
      if (!hot) return
      ctx.beginPath()
      ctx.arc(9, 0, 10, 0, Math.PI * 2)
      ctx.stroke()
    },
    // The chevron takes the hand, not the end itself: there another line may begin.
    hitFunc: (ctx, shape) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      ctx.beginPath()
      ctx.arc(9, 0, 7, 0, Math.PI * 2)
      ctx.fillShape(shape)
    },
  })
}

/** A halo round an end of a path: pressing it closes the line, or goes on from there. */
export const closer = (p: Vec, ref: MarkRef): Konva.Shape =>
  new Konva.Circle({
    x: p.x,
    y: p.y,
    radius: 9,
    stroke: PLUM,
    strokeWidth: 1.4,
    dash: [3, 3],
    mark: ref,
    hitFunc: target(REACH),
  } as Konva.CircleConfig)

/** The middle of a bow: two short strokes along it, to be pulled. */
export function belly(mark: Extract<Mark, { kind: 'belly' }>, p: Vec, along: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: { kind: 'belly', index: mark.index } satisfies MarkRef,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(along.y, along.x))
      ctx.beginPath()
      for (const off of [-3.2, 3.2]) {
        ctx.moveTo(-5, off)
        ctx.lineTo(5, off)
      }
      ctx.setAttr('strokeStyle', PAPER)
      ctx.setAttr('lineWidth', 4.6)
      ctx.setAttr('lineCap', 'round')
      ctx.stroke()
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 2.2)
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
}
