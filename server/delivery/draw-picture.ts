import sharp from 'sharp'
import type { PictureOrder } from '../../core/formats/delivery/deliver'

/** A PNG of a picture's SVG, row by row. */
export async function drawPicture(
  svg: string,
  { ground, tones, dpi }: Pick<PictureOrder, 'ground' | 'tones' | 'dpi'>,
): Promise<Uint8Array> {
  const drawn = sharp(Buffer.from(svg), { limitInputPixels: false, unlimited: true, density: 72 })
  const toned =
    tones === 'one-bit'
      ? drawn.flatten({ background: '#ffffff' }).greyscale().threshold(128)
      : ground
        ? drawn.flatten({ background: ground })
        : drawn
  const bytes = await toned
    .withMetadata({ density: dpi })
    .png(tones === 'one-bit' ? { palette: true, colours: 2 } : {})
    .toBuffer()
  return new Uint8Array(bytes)
}
