import Konva from 'konva'
import type { Place } from './mark-look'
import { AMBER } from './mark-look'
import type { Mark } from './marks'

/** How wide a halo is at least and at most, and in what steps it grows, screen px. */
const NARROW = 6
const WIDE = 18
const STEP = 4
const FAINT = 0.22

/** What lies off the pencil, in a quiet glow about it: the wider the farther. */
export function halo({ strays }: Extract<Mark, { kind: 'halo' }>, place: Place): Konva.Shape {
  const { x, y } = place.step({ x: 1, y: 0 })
  const zoom = Math.hypot(x, y)
  // All of a width are one path, so that the glow is no stronger where they cross.
  const byWidth = Map.groupBy(
    strays,
    ({ far }) => NARROW + STEP * Math.round((Math.min(WIDE, Math.max(NARROW, far * zoom)) - NARROW) / STEP),
  )
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      const raw = ctx._context
      raw.globalAlpha = FAINT
      raw.strokeStyle = AMBER
      raw.lineCap = raw.lineJoin = 'round'
      for (const [width, some] of byWidth) {
        raw.lineWidth = width
        raw.beginPath()
        for (const { points } of some) {
          points.forEach((p, i) => {
            const q = place(p)
            if (i) raw.lineTo(q.x, q.y)
            else raw.moveTo(q.x, q.y)
          })
        }
        raw.stroke()
      }
      raw.globalAlpha = 1
    },
  })
}
