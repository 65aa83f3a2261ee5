import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import type { Place } from './mark-look'
import { AMBER, MUTE, PAPER, PLUM, tracePath } from './mark-look'
import type { Mark } from './marks'

/** Hatching: screen px from line to line. */
const SPACING = 6

/** Pieces of ink that would go, that would come back, or that are gone: hatched, so that they show on ink and on paper. */
export function pieces({ paths, look }: Extract<Mark, { kind: 'pieces' }>, place: Place): Konva.Shape {
  const colour = { take: AMBER, back: PLUM, gone: MUTE }[look]
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      if (!paths.length) return
      const raw = ctx._context
      const outline = (): void => {
        raw.beginPath()
        for (const path of paths) tracePath(ctx, { ...path, closed: true }, place)
      }
      const points = paths.flatMap((p) => p.nodes.map((n) => place(n.at)))
      const [left, top] = [Math.min(...points.map((p) => p.x)) - 40, Math.min(...points.map((p) => p.y)) - 40]
      const [right, bottom] = [Math.max(...points.map((p) => p.x)) + 40, Math.max(...points.map((p) => p.y)) + 40]
      raw.save()
      outline()
      raw.clip('nonzero')
      raw.fillStyle = look === 'gone' ? `${PAPER}00` : `${PAPER}c0`
      raw.fillRect(left, top, right - left, bottom - top)
      raw.beginPath()
      const height = bottom - top
      for (let x = Math.floor((left - height) / SPACING) * SPACING; x < right; x += SPACING) {
        raw.moveTo(x, bottom)
        raw.lineTo(x + height, top)
      }
      raw.strokeStyle = colour
      raw.lineWidth = look === 'gone' ? 1 : 1.8
      raw.stroke()
      raw.restore()
      outline()
      raw.strokeStyle = colour
      raw.lineWidth = look === 'gone' ? 0.8 : 1.5
      raw.stroke()
    },
  })
}

/** A corner: two strokes that meet. An end that meets a line: a dot. Filled plum where the person decided about it. */
export function joint({ of, decided, hot }: Extract<Mark, { kind: 'joint' }>, p: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      if (of === 'corner') {
        ctx.moveTo(-5, 3.5)
        ctx.lineTo(0, -4.5)
        ctx.lineTo(5, 3.5)
        ctx.closePath()
      } else ctx.arc(0, 0, 3.4, 0, Math.PI * 2)
      ctx.setAttr('fillStyle', decided ? PLUM : PAPER)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 1.6)
      ctx.fill()
      ctx.stroke()
      if (!hot) return
      ctx.beginPath()
      ctx.arc(0, 0, 10, 0, Math.PI * 2)
      ctx.stroke()
    },
  })
}
