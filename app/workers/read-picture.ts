import type { Sketch } from '#core/drawing/model'
import type { GreyImage } from '#core/sketch/grey-image'
import type { Quad } from '#core/sketch/perspective'
import { setRight } from '#core/sketch/perspective'

/** Pictures are read in no larger size than this, px of the longer side: memory stays bounded, whatever the scan. */
const LARGEST = 2880

/** What is looked at: a picture at an address, and where the paper lies in it, if it was taken at a slant. */
export interface SketchSource {
  address: string
  corners?: Sketch['corners']
}

export const sourceOf = ({ image, corners }: Pick<Sketch, 'image' | 'corners'>): SketchSource => ({ address: `/api/images/${image}`, ...(corners && { corners: corners.map(({ x, y }) => ({ x, y })) as unknown as Quad as Sketch['corners'] }) })

/** A sketch without its colours, its paper seen from straight above; null where it cannot be read. */
export async function readSketch({ address, corners }: SketchSource): Promise<GreyImage | null> {
  const image = await readGrey(address)
  return image && corners ? setRight(image, corners.map(({ x, y }) => ({ x: x * image.width, y: y * image.height })) as unknown as Quad) : image
}

/** The picture at an address without its colours, as large as it is looked at; null where it cannot be read. */
export async function readGrey(address: string): Promise<GreyImage | null> {
  try {
    const answer = await fetch(address)
    if (!answer.ok) return null
    const full = await createImageBitmap(await answer.blob())
    const k = Math.min(1, LARGEST / Math.max(full.width, full.height))
    const [width, height] = [Math.max(1, Math.round(full.width * k)), Math.max(1, Math.round(full.height * k))]
    const context = new OffscreenCanvas(width, height).getContext('2d')!
    // What is transparent is paper.
    context.fillStyle = '#fff'
    context.fillRect(0, 0, width, height)
    context.drawImage(full, 0, 0, width, height)
    full.close()
    const { data } = context.getImageData(0, 0, width, height)
    const grey = new Uint8Array(width * height)
    for (let i = 0; i < grey.length; i++) grey[i] = (data[4 * i]! * 299 + data[4 * i + 1]! * 587 + data[4 * i + 2]! * 114) / 1000
    return { width, height, grey }
  } catch {
    return null
  }
}
