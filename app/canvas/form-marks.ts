import Konva from 'konva'
import type { Path } from '#core/geometry/path'
import type { Place } from './mark-look'
import { PAPER, PLUM, tracePath } from './mark-look'
import type { Mark } from './marks'

/** Between two strokes of the hatching, screen px. */
const SPACING = 7

const traced = (ctx: Konva.Context, paths: readonly Path[], place: Place): void => {
  ctx.beginPath()
  for (const path of paths) tracePath(ctx, { ...path, closed: true }, place)
}

/** Two forms, each with a tint; all else fades. */
export function formsInLight({ forms }: Extract<Mark, { kind: 'forms' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx, shape) => {
      const raw = ctx._context
      const { width, height } = shape.getLayer()!.canvas
      raw.save()
      for (const { path } of forms) {
        // All but the form: what is left after each is what lies in none of them.
        raw.beginPath()
        raw.rect(0, 0, width, height)
        tracePath(ctx, { ...path, closed: true }, place)
        raw.clip('evenodd')
      }
      raw.fillStyle = `${PAPER}c8`
      raw.fillRect(0, 0, width, height)
      raw.restore()
      for (const { path, colour } of forms) {
        traced(ctx, [path], place)
        raw.globalAlpha = 0.3
        raw.fillStyle = colour
        raw.fill('nonzero')
        raw.globalAlpha = 1
        raw.strokeStyle = colour
        raw.lineWidth = 1.8
        raw.stroke()
      }
    },
  })
}

/** What of other forms would be hidden by one, hatched. */
export function hatched({ by, of }: Extract<Mark, { kind: 'hatched' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx, shape) => {
      const raw = ctx._context
      const { width, height } = shape.getLayer()!.canvas
      for (const colour of [PAPER, PLUM]) {
        raw.save()
        traced(ctx, [by], place)
        raw.clip('nonzero')
        traced(ctx, of, place)
        raw.clip('nonzero')
        raw.beginPath()
        for (let x = -height; x < width; x += SPACING) {
          raw.moveTo(x, height)
          raw.lineTo(x + height, 0)
        }
        raw.strokeStyle = colour
        raw.lineWidth = colour === PAPER ? 2.6 : 1.1
        raw.stroke()
        raw.restore()
      }
    },
  })
}
