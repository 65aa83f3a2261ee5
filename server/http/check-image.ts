import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { LIMITS } from '../../shared/api'
import type { StoredImage } from '../database/images'
import { oneByOne } from './one-by-one'
import { refuse } from './refuse'

// Pictures are decoded once to see that they are whole: nothing of that is worth keeping in memory.
sharp.cache(false)
sharp.concurrency(1)

/** First bytes of the kinds of pictures that are taken; null is any. */
const SIGNATURES: readonly { format: string; mediaType: string; bytes: readonly (number | null)[] }[] = [
  { format: 'png', mediaType: 'image/png', bytes: [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] },
  { format: 'jpeg', mediaType: 'image/jpeg', bytes: [0xff, 0xd8, 0xff] },
  {
    format: 'webp',
    mediaType: 'image/webp',
    bytes: [0x52, 0x49, 0x46, 0x46, null, null, null, null, 0x57, 0x45, 0x42, 0x50],
  },
]

/** Longest time for decoding one picture, seconds. */
const LONGEST = 30

/**
 * Checks a picture by its content, not its name: a PNG, JPEG or WebP of sane size that decodes to the end.
 *
 * @throws a refusal with a sentence that says what to do
 */
export const checkImage = (bytes: Buffer): Promise<StoredImage> => oneByOne(() => decoded(bytes))

async function decoded(bytes: Buffer): Promise<StoredImage> {
  if (!bytes.length) throw refuse(400, 'This file is empty. Save the sketch again as PNG, JPEG or WebP.')
  const none = () =>
    refuse(
      415,
      'This is not a PNG, JPEG or WebP picture, whatever its name says. Save the sketch as one of these and try again.',
    )
  const kind = SIGNATURES.find((s) => s.bytes.every((b, i) => b === null || bytes[i] === b))
  if (!kind) throw none()
  const meta = await sharp(bytes, { failOn: 'error', limitInputPixels: false })
    .metadata()
    .catch(() => null)
  if (meta?.format !== kind.format) throw none()
  if (meta.width * meta.height > LIMITS.pixels) {
    throw refuse(
      413,
      `This picture has ${meta.width} x ${meta.height} pixels, more than can be taken. Scale it below ${LIMITS.pixels / 1e6} million pixels and try again.`,
    )
  }
  // Row by row to a single pixel: decodes everything and keeps next to nothing.
  await sharp(bytes, { failOn: 'error', limitInputPixels: LIMITS.pixels, sequentialRead: true })
    .resize(1, 1, { fit: 'fill', fastShrinkOnLoad: false })
    .timeout({ seconds: LONGEST })
    .raw()
    .toBuffer()
    .catch(() => {
      throw refuse(
        415,
        'This picture is damaged: it ends too soon or holds unreadable data. Save the sketch again and retry.',
      )
    })
  const sideways = (meta.orientation ?? 1) >= 5
  return {
    sha256: createHash('sha256').update(bytes).digest('hex'),
    mediaType: kind.mediaType,
    width: sideways ? meta.height : meta.width,
    height: sideways ? meta.width : meta.height,
    bytes,
  }
}
