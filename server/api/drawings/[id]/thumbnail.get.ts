import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'
import { PICTURE_HEADERS, pictureOf } from '../../../render/derive'

/** Draws and keeps the thumbnail of the drawing as it is now. */
async function make(id: string): Promise<string> {
  const { journal, thumbnails, images } = await store()
  const head = journal.head(id)
  if (!head) throw noDrawing()
  return pictureOf(head.drawing, head.revision, images, (svg) => thumbnails.keep(id, head.revision, svg))
}

/** The drawing's ink, or the sketch of one that has none yet, as a small SVG. */
export default defineEventHandler(async (event) => {
  const { journal, thumbnails } = await store()
  const row = journal.drawings.find(getRouterParam(event, 'id')!)
  if (!row) throw noDrawing()
  const svg = thumbnails.find(row.id, row.revision) ?? (await make(row.id))
  setResponseHeaders(event, PICTURE_HEADERS)
  return svg
})
