import Konva from 'konva'
import type { Place } from './mark-look'
import { AMBER } from './mark-look'
import type { Mark } from './marks'

/** How wide a halo is at least and at most, screen px. */
const NARROW = 7
const WIDE = 26

/** What lies off the pencil, in a quiet glow about it: as wide as it is far. */
export function halo({ strays }: Extract<Mark, { kind: 'halo' }>, place: Place): Konva.Shape {
  const { x, y } = place.step({ x: 1, y: 0 })
  const zoom = Math.hypot(x, y)
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      const raw = ctx._context
      raw.globalAlpha = 0.3
      raw.strokeStyle = AMBER
      raw.lineCap = raw.lineJoin = 'round'
      for (const { points, far } of strays) {
        raw.lineWidth = Math.min(WIDE, Math.max(NARROW, 2 * far * zoom))
        raw.beginPath()
        points.forEach((p, i) => {
          const q = place(p)
          if (i) raw.lineTo(q.x, q.y)
          else raw.moveTo(q.x, q.y)
        })
        raw.stroke()
      }
      raw.globalAlpha = 1
    },
  })
}
