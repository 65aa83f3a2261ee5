import type { Crop, Sketch } from '#core/model/model'
import { partSeen, WHOLE } from '#core/sketch/sketch-place'
import type { GreyImage } from '#core/sketch/grey-image'
import { partOf } from '#core/sketch/grey-image'
import { mapQuad, setRight } from '#core/sketch/perspective'

/** What is looked at: a picture, where the paper lies in it if it was taken at a slant, what is kept of it, and from which side. */
export type SketchSource = Pick<Sketch, 'image' | 'corners' | 'crop' | 'mirrored'>

/** The source of a sketch, as plain data that a worker takes. */
export const sourceOf = ({ image, corners, crop, mirrored }: SketchSource): SketchSource => ({
  image,
  ...(corners && { corners: corners.map(({ x, y }) => ({ x, y })) as unknown as Sketch['corners'] }),
  ...(crop && { crop: { ...crop } }),
  ...(mirrored && { mirrored }),
})

/** A picture by its colours, each by rows. */
export interface ColourPicture {
  width: number
  height: number
  red: Uint8Array
  green: Uint8Array
  blue: Uint8Array
}

/** The address of a picture, or of a part of it, no larger than it can be looked at. */
export function addressOf(image: string, part: Crop = WHOLE): string {
  const asked =
    part === WHOLE ? '' : `?${new URLSearchParams(Object.entries(part).map(([k, v]) => [k, String(v)])).toString()}`
  return `/api/images/${image}/part${asked}`
}

/** A sketch without its colours, as it is looked at; null where it cannot be read. */
export async function readSketch(source: SketchSource): Promise<GreyImage | null> {
  const read = await readColours(source)
  if (!read) return null
  const { width, height, red, green, blue } = read
  return { width, height, grey: red.map((r, i) => (r * 299 + green[i]! * 587 + blue[i]! * 114) / 1000) }
}

/** A sketch as it is looked at: its paper seen from straight above, what is kept of it, from the side it is seen from; null where it cannot be read. */
export async function readColours({ image, corners, crop, mirrored }: SketchSource): Promise<ColourPicture | null> {
  // Of a picture that is only cropped no more is asked for than is kept, and so it is read as sharp as it is.
  const part = partSeen({ corners, crop })
  const read = await readPart(addressOf(image, part), mirrored && !corners)
  if (!read || !corners) return read
  const quad = mapQuad(corners, ({ x, y }) => ({
    x: ((x - part.x) / part.width) * read.width,
    y: ((y - part.y) / part.height) * read.height,
  }))
  return colours(read, (grey) => {
    const right = setRight({ width: read.width, height: read.height, grey }, quad)
    return kept(right, crop ?? WHOLE, !!mirrored)
  })
}

function colours({ red, green, blue }: ColourPicture, map: (channel: Uint8Array) => GreyImage): ColourPicture {
  const [r, g, b] = [map(red), map(green), map(blue)]
  return { width: r.width, height: r.height, red: r.grey, green: g.grey, blue: b.grey }
}

function kept(whole: GreyImage, crop: Crop, mirrored: boolean): GreyImage {
  const { image } = partOf(whole, crop)
  if (mirrored)
    for (let y = 0; y < image.height; y++) image.grey.subarray(y * image.width, (y + 1) * image.width).reverse()
  return image
}

async function readPart(address: string, mirrored = false): Promise<ColourPicture | null> {
  try {
    const answer = await fetch(address)
    if (!answer.ok) return null
    const full = await createImageBitmap(await answer.blob())
    const { width, height } = full
    const context = new OffscreenCanvas(width, height).getContext('2d')!
    // What is transparent is paper.
    context.fillStyle = '#fff'
    context.fillRect(0, 0, width, height)
    if (mirrored) context.setTransform(-1, 0, 0, 1, width, 0)
    context.drawImage(full, 0, 0)
    full.close()
    const { data } = context.getImageData(0, 0, width, height)
    const of = (channel: number): Uint8Array => {
      const out = new Uint8Array(width * height)
      for (let i = 0, k = channel; i < out.length; i++, k += 4) out[i] = data[k]!
      return out
    }
    return { width, height, red: of(0), green: of(1), blue: of(2) }
  } catch {
    return null
  }
}
