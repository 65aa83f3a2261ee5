import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { store } from '../../database/store'
import { refuse } from '../../http/refuse'

export default defineEventHandler(async (event) => {
  const image = (await store()).images.find(getRouterParam(event, 'sha')!)
  if (!image) throw refuse(404, 'This picture is not here any more. Bring the sketch in again.')
  setResponseHeaders(event, { 'content-type': image.mediaType, 'cache-control': 'public, max-age=31536000, immutable' })
  return image.bytes
})
