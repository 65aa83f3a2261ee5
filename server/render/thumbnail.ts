import { setImmediate } from 'node:timers/promises'
import type { Drawing } from '../../core/drawing/model'
import { writeSvg } from '../../core/formats/svg/write-svg'
import { deriveShapes } from '../../core/shapes/derive'
import { inTurns } from '../../core/turns'

/** Longest time that a thumbnail keeps saves and other requests waiting, ms. */
const TURN = 15

/** A drawing as a small SVG: the real outlines, coarsely and one shape a line; made in short turns. */
export async function drawThumbnail(drawing: Drawing): Promise<string> {
  const work = deriveShapes({ ...drawing, settings: { shapes: { unite: false, tolerance: 0.2, simplify: 0 } } })
  const result = await inTurns(work, { turn: TURN, rest: setImmediate })
  return writeSvg(drawing, { content: 'outlines', shapes: result!.shapes })
}
