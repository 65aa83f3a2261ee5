import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'
import { drawThumbnail } from '../../../render/thumbnail'

/** Thumbnails in the making, by drawing and revision: two requests for one wait for the same work. */
const making = new Map<string, Promise<string>>()

/** Draws and keeps the thumbnail of the drawing as it is now. */
async function make(id: string): Promise<string> {
  const { journal, thumbnails } = await store()
  const head = journal.head(id)
  if (!head) throw noDrawing()
  const key = `${id}@${head.revision}`
  let work = making.get(key)
  if (!work) {
    work = drawThumbnail(head.drawing).then((svg) => {
      thumbnails.keep(id, head.revision, svg)
      return svg
    })
    making.set(key, work)
    void work.catch(() => undefined).finally(() => making.delete(key))
  }
  return work
}

/** The drawing's ink as a small SVG. */
export default defineEventHandler(async (event) => {
  const { journal, thumbnails } = await store()
  const row = journal.drawings.find(getRouterParam(event, 'id')!)
  if (!row) throw noDrawing()
  const svg = thumbnails.find(row.id, row.revision) ?? (await make(row.id))
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
  })
  return svg
})
