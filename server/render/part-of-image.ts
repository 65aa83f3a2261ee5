import sharp from 'sharp'
import type { Crop } from '#core/model/model'
import { LARGEST_PART } from '../../shared/api'
import type { StoredImage } from '../database/images'
import { oneByOne } from '../http/one-by-one'

const isWhole = ({ x, y, width, height }: Crop): boolean => x <= 0 && y <= 0 && width >= 1 && height >= 1

/** A part of a picture, turned as its file says, px by px where it is small enough, reduced to `LARGEST_PART` px where it is not. */
export async function partOfImage(
  { bytes, mediaType, width, height }: StoredImage,
  part: Crop,
): Promise<Pick<StoredImage, 'bytes' | 'mediaType'>> {
  const box = {
    left: Math.min(width - 1, Math.floor(part.x * width)),
    top: Math.min(height - 1, Math.floor(part.y * height)),
  }
  const size = {
    width: Math.max(1, Math.min(width - box.left, Math.round(part.width * width))),
    height: Math.max(1, Math.min(height - box.top, Math.round(part.height * height))),
  }
  if (isWhole(part) && Math.max(width, height) <= LARGEST_PART) return { bytes, mediaType }
  return oneByOne(async () => {
    const reduced = sharp(bytes)
      .rotate()
      .extract({ ...box, ...size })
      .resize(LARGEST_PART, LARGEST_PART, { fit: 'inside', withoutEnlargement: true })
    return mediaType === 'image/jpeg'
      ? { bytes: await reduced.jpeg({ quality: 92 }).toBuffer(), mediaType }
      : { bytes: await reduced.png({ compressionLevel: 4 }).toBuffer(), mediaType: 'image/png' }
  })
}
