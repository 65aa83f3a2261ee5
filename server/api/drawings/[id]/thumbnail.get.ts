import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { useStorage } from 'nitropack/runtime'
import { store } from '../../../database/store'
import { noDrawing } from '../../../http/refuse'
import { onlySketch, sketchThumbnail } from '../../../render/sketch-thumbnail'
import { ThumbnailMaker } from '../../../render/thumbnail-maker'

let maker: Promise<ThumbnailMaker> | null = null
const theMaker = (): Promise<ThumbnailMaker> =>
  (maker ??= useStorage('assets:workers').getItem('thumbnail.js').then((script) => new ThumbnailMaker(String(script))))

/** Draws and keeps the thumbnail of the drawing as it is now. */
async function make(id: string): Promise<string> {
  const { journal, thumbnails, images } = await store()
  const head = journal.head(id)
  if (!head) throw noDrawing()
  const sketch = onlySketch(head.drawing)
  const svg = (sketch && (await sketchThumbnail(head.drawing, sketch, images))) ?? (await (await theMaker()).make(head.drawing, head.revision))
  thumbnails.keep(id, head.revision, svg)
  return svg
}

/** The drawing's ink, or the sketch of one that has none yet, as a small SVG. */
export default defineEventHandler(async (event) => {
  const { journal, thumbnails } = await store()
  const row = journal.drawings.find(getRouterParam(event, 'id')!)
  if (!row) throw noDrawing()
  const svg = thumbnails.find(row.id, row.revision) ?? (await make(row.id))
  setResponseHeaders(event, {
    'content-type': 'image/svg+xml',
    'cache-control': 'no-cache',
    'content-security-policy': "default-src 'none'; img-src data:; style-src 'unsafe-inline'",
  })
  return svg
})
