import { defineEventHandler, getRouterParam, setResponseHeaders } from 'h3'
import { store } from '../../../../../database/store'
import { refuse } from '../../../../../http/refuse'
import { PICTURE_HEADERS, pictureOf } from '../../../../../render/derive'

/** The small picture of a checkpoint, made once. */
export default defineEventHandler(async (event) => {
  const { checkpoints, journal, images, thumbnails } = await store()
  const id = getRouterParam(event, 'id')!
  const checkpoint = checkpoints.find(id, getRouterParam(event, 'checkpoint')!)
  const drawing = checkpoint && journal.at(id, checkpoint.revision)
  if (!drawing) throw refuse(404, 'This checkpoint is not there any more.')
  const svg =
    checkpoints.picture(checkpoint.id) ??
    checkpoints.pictureAt(id, checkpoint.revision) ??
    thumbnails.find(id, checkpoint.revision) ??
    (await pictureOf(
      drawing,
      checkpoint.revision,
      images,
      (made) => checkpoints.keepPicture(checkpoint.id, made),
      `${id}#${checkpoint.id}`,
    ))
  setResponseHeaders(event, PICTURE_HEADERS)
  return svg
})
