import { setImmediate } from 'node:timers/promises'
import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import type { Drawing } from '../../../../core/drawing/model'
import { writeSvg } from '../../../../core/formats/svg/write-svg'
import { deriveShapes } from '../../../../core/shapes/derive'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

const MOST_KEPT = 64
const kept = new Map<string, Promise<string>>()

/** Longest time that a thumbnail keeps saves and other requests waiting, ms. */
const TURN = 15

/** The real outlines, coarsely and one shape a line; made in short turns. */
async function draw(drawing: Drawing): Promise<string> {
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

/** The drawing's ink as a small SVG. */
export default defineEventHandler(async (event) => {
  const head = (await store()).journal.head(getRouterParam(event, 'id')!)
  if (!head) throw noDrawing()
  const key = `${head.drawing.id}@${head.revision}`
  let svg = kept.get(key)
  if (!svg) {
    svg = draw(head.drawing)
    kept.set(key, svg)
    svg.catch(() => kept.delete(key))
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  }
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
  })
  return svg
})
