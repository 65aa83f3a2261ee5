import Konva from 'konva'
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
