import { defineEventHandler, getQuery, getRouterParam } from 'h3'
import { BadArchive } from '../../../../core/formats/archive/zip'
import { LIMITS } from '../../../../shared/api'
import type { StudioPreview } from '../../../../shared/studio-file'
import { store } from '../../../database/store'
import { readBytes } from '../../../http/body'
import { noSeat, refuse } from '../../../http/refuse'
import { comparedWith } from '../../../studio/compare-studio'
import { readStudio } from '../../../studio/read-studio'
import { takeStudio } from '../../../studio/take-studio'

/** Says what of a studio file would be new, otherwise, or clash; with `take`, a letter a thing, brings those in that have a 1. */
export default defineEventHandler(async (event): Promise<StudioPreview> => {
  const opened = await store()
  const id = getRouterParam(event, 'id')!
  if (!opened.seats.find(id)) throw noSeat()
  try {
    const content = await readStudio(await readBytes(event, LIMITS.backup))
    const things = comparedWith(opened, id, content)
    const { take } = getQuery(event)
    if (typeof take === 'string') {
      if (take.length !== things.length) throw refuse(409, 'This seat was changed meanwhile. Choose the file again.')
      takeStudio(
        opened,
        id,
        content,
        things.filter((_, i) => take[i] === '1'),
      )
    }
    return { from: content.from, things: things.map(({ kind, name, state }) => ({ kind, name, state })) }
  } catch (e) {
    if (e instanceof BadArchive) throw refuse(422, e.message)
    throw e
  }
})
