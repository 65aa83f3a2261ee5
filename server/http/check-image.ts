import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { LIMITS } from '../../shared/api'
import type { StoredImage } from '../database/images'
import { refuse } from './refuse'

const TYPES: Record<string, string> = { png: 'image/png', jpeg: 'image/jpeg' }

/**
 * Checks a picture by its content, not its name: a PNG or JPEG of sane size that decodes to the end.
 *
 * @throws a refusal with a sentence that says what to do
 */
export async function checkImage(bytes: Buffer): Promise<StoredImage> {
  if (!bytes.length) throw refuse(400, 'This file is empty. Save the sketch again as PNG or JPEG.')
  const picture = sharp(bytes, { failOn: 'error', limitInputPixels: false })
  const meta = await picture.metadata().catch(() => null)
  const mediaType = meta?.format && TYPES[meta.format]
  if (!meta || !mediaType) throw refuse(415, 'This is not a PNG or JPEG picture, whatever its name says. Save the sketch as PNG or JPEG and try again.')
  const pixels = meta.width * meta.height
  if (pixels > LIMITS.pixels) {
    throw refuse(413, `This picture has ${meta.width} x ${meta.height} pixels, more than can be taken. Scale it below ${LIMITS.pixels / 1e6} million pixels and try again.`)
  }
  await picture.stats().catch(() => {
    throw refuse(415, 'This picture is damaged: it ends too soon or holds unreadable data. Save the sketch again and retry.')
  })
  const sideways = (meta.orientation ?? 1) >= 5
  return {
    sha256: createHash('sha256').update(bytes).digest('hex'),
    mediaType,
    width: sideways ? meta.height : meta.width,
    height: sideways ? meta.width : meta.height,
    bytes,
  }
}
