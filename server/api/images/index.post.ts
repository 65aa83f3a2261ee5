import { defineEventHandler, setResponseStatus } from 'h3'
import type { ImageInfo } from '../../../shared/api'
import { LIMITS } from '../../../shared/api'
import { store } from '../../database/store'
import { readBytes } from '../../http/body'
import { checkImage } from '../../http/check-image'
import { refuse } from '../../http/refuse'

export default defineEventHandler(async (event): Promise<ImageInfo> => {
  const bytes = await readBytes(event, LIMITS.image)
  const { images } = await store()
  if (images.totalBytes() + bytes.length > LIMITS.allImages) {
    throw refuse(
      507,
      `The sketches kept here already take ${Math.round(LIMITS.allImages / 1024 ** 3)} GB, which is all the room they have. Scale this one down, or start the server with a fresh database.`,
    )
  }
  const image = await checkImage(bytes)
  images.insert(image)
  setResponseStatus(event, 201)
  const { sha256, width, height, mediaType } = image
  return { sha256, width, height, mediaType }
})
