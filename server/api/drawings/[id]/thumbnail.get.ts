import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { writeSvg } from '../../../../core/formats/svg/write-svg'
import { inkShapes } from '../../../../core/shapes/ink-shapes'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'

const MOST_KEPT = 64
const kept = new Map<string, string>()

/** The drawing's ink as a small SVG: the real outlines, coarsely. */
export default defineEventHandler(async (event) => {
  const head = (await store()).journal.head(getRouterParam(event, 'id')!)
  if (!head) throw noDrawing()
  const key = `${head.drawing.id}@${head.revision}`
  let svg = kept.get(key)
  if (!svg) {
    svg = writeSvg(head.drawing, { content: 'outlines', shapes: inkShapes(head.drawing, 0.2) })
    kept.set(key, svg)
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  }
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
  })
  return svg
})
