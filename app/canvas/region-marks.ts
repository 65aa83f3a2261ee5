import Konva from 'konva'
import type { Place } from './mark-look'
import { AMBER, MUTE, PAPER, PLUM, tracePath } from './mark-look'
import type { Mark } from './marks'

/** A region as it would be poured: in its colour, with an edge; hollow where the ink would be taken out. */
export function region({ paths, colour }: Extract<Mark, { kind: 'region' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      const raw = ctx._context
      raw.beginPath()
      for (const path of paths) tracePath(ctx, { ...path, closed: true }, place)
      raw.fillStyle = colour ?? `${PAPER}b0`
      raw.globalAlpha = colour ? 0.82 : 1
      raw.fill('nonzero')
      raw.globalAlpha = 1
      raw.setLineDash(colour ? [] : [4, 4])
      raw.strokeStyle = colour ? PLUM : MUTE
      raw.lineWidth = 1.4
      raw.stroke()
      raw.setLineDash([])
    },
  })
}

/** Bridges, lightly: short dashes over the gaps that they close. */
export function bridges({ paths }: Extract<Mark, { kind: 'bridges' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      for (const path of paths) tracePath(ctx, path, place)
      ctx.setAttr('strokeStyle', AMBER)
      ctx.setAttr('lineWidth', 2)
      ctx.setLineDash([3, 2])
      ctx.stroke()
      ctx.setLineDash([])
    },
  })
}
