import { store } from '../database/store'
import { noDrawing } from '../http/refuse'
import { pictureOf } from './derive'

/**
 * The picture of a drawing on a card, as it is now; drawn, and kept, where it is not at hand.
 *
 * @throws 404 where there is no such drawing
 */
export async function cardPicture(id: string): Promise<string> {
  const { journal, thumbnails, images } = await store()
  const row = journal.drawings.find(id)
  if (!row) throw noDrawing()
  const known = thumbnails.find(id, row.revision)
  if (known !== undefined) return known
  const { drawing, revision } = journal.head(id)!
  return pictureOf(drawing, revision, images, (svg) => thumbnails.keep(id, revision, svg))
}

/** The picture of a drawing as it was lately, at once; one as it is now is made meanwhile. Waits only where there is none yet. */
export async function latePicture(id: string): Promise<string> {
  const now = cardPicture(id)
  const late = (await store()).thumbnails.latest(id)
  if (late === undefined) return now
  now.catch((e: unknown) => console.error('A picture could not be made:', (e as Error).message))
  return late
}
