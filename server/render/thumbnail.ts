import { setImmediate } from 'node:timers/promises'
import type { Drawing } from '../../core/drawing/model'
import { writeSvg } from '../../core/formats/svg/write-svg'
import { deriveShapes } from '../../core/shapes/derive'

/** Longest time that a thumbnail keeps saves and other requests waiting, ms. */
const TURN = 15

/** A drawing as a small SVG: the real outlines, coarsely and one shape a line; made in short turns. */
export async function drawThumbnail(drawing: Drawing): Promise<string> {
  const steps = deriveShapes({ ...drawing, settings: { shapes: { unite: false, tolerance: 0.2, simplify: 0 } } })
  let since = performance.now()
  for (;;) {
    const step = steps.next()
    if (step.done) return writeSvg(drawing, { content: 'outlines', shapes: step.value.shapes })
    if (performance.now() - since < TURN) continue
    await setImmediate()
    since = performance.now()
  }
}
