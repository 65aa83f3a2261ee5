import { defineEventHandler, getQuery, getRouterParam, setResponseHeaders } from 'h3'
import { cardPicture, latePicture } from '../../../render/card-picture'
import { PICTURE_HEADERS } from '../../../render/derive'

/** The drawing's ink, or the sketch of one that has none yet, as a small SVG; with `?late=1` as it was lately, without waiting. */
export default defineEventHandler(async (event) => {
  const id = getRouterParam(event, 'id')!
  const svg = await (getQuery(event).late === '1' ? latePicture(id) : cardPicture(id))
  setResponseHeaders(event, PICTURE_HEADERS)
  return svg
})
