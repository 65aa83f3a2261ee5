import { Readable } from 'node:stream'
import { defineEventHandler, getQuery, getRouterParam, sendStream, setResponseHeaders } from 'h3'
import { fileNameOf } from '../../../../core/formats/file-name'
import type { StudioKind } from '../../../../shared/studio-file'
import { STUDIO_KINDS } from '../../../../shared/studio-file'
import { store } from '../../../database/store'
import { noSeat, refuse } from '../../../http/refuse'
import { studioFileOf } from '../../../studio/write-studio'

/** What belongs to a seat as one file: of the kinds that are named, or all. */
export default defineEventHandler(async (event) => {
  const opened = await store()
  const seat = opened.seats.find(getRouterParam(event, 'id')!)
  if (!seat) throw noSeat()
  const { kind } = getQuery(event)
  const kinds = kind === undefined ? STUDIO_KINDS : ([kind].flat() as StudioKind[])
  if (!kinds.every((k) => STUDIO_KINDS.includes(k)))
    throw refuse(400, 'There is no such kind of thing in a studio file.')
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'cache-control': 'no-store',
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${fileNameOf(seat.name)}-studio.zip`)}`,
  })
  return sendStream(event, Readable.from(studioFileOf(opened, seat, new Set(kinds), new Date().toISOString())))
})
