import { defineEventHandler, getQuery, getRouterParam, setResponseHeaders } from 'h3'
import type { ValidationError } from 'yup'
import { partQuery } from '../../../../shared/api'
import { store } from '../../../database/store'
import { refuse } from '../../../http/refuse'
import { partOfImage } from '../../../render/part-of-image'

/** A part of a picture, no larger than it can be looked at: a scan of 60 megapixels never travels whole. */
export default defineEventHandler(async (event) => {
  const part = await partQuery.validate(getQuery(event)).catch((e: ValidationError) => {
    throw refuse(400, `This part of a picture cannot be shown: ${e.message}.`)
  })
  const image = (await store()).images.find(getRouterParam(event, 'sha')!)
  if (!image) throw refuse(404, 'This picture is not here any more. Bring the sketch in again.')
  const { mediaType, bytes } = await partOfImage(image, part)
  setResponseHeaders(event, { 'content-type': mediaType, 'cache-control': 'public, max-age=31536000, immutable' })
  return bytes
})
