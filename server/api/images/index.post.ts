import { defineEventHandler, setResponseStatus } from 'h3'
import type { ImageInfo } from '../../../shared/api'
import { LIMITS } from '../../../shared/api'
import { store } from '../../database/store'
import { readBytes } from '../../http/body'
import { checkImage } from '../../http/check-image'

export default defineEventHandler(async (event): Promise<ImageInfo> => {
  const image = await checkImage(await readBytes(event, LIMITS.image))
  ;(await store()).images.insert(image)
  setResponseStatus(event, 201)
  const { sha256, width, height, mediaType } = image
  return { sha256, width, height, mediaType }
})
