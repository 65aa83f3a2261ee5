import { shownItems } from '#core/model/queries'
import sharp from 'sharp'
import type { Drawing, Sketch } from '#core/model/model'
import { partSeen } from '#core/sketch/sketch-place'
import { short } from '../../core/geometry/path'
import type { ImageTable } from '../database/images'
import { partOfImage } from './part-of-image'

/** Pixels of a sketch on a card. */
const SIZE = 400

/** The lowest visible sketch of a drawing that has no ink yet, or null. */
export function onlySketch(drawing: Drawing): Sketch | null {
  if (drawing.layers.some((l) => shownItems(l).length)) return null
  return drawing.layers.flatMap((l) => (l.kind === 'sketch' && l.visible ? l.items : []))[0] ?? null
}

/** A small SVG of a drawing's sketch, in its place on the page; null where its picture cannot be read. */
export async function sketchThumbnail({ page }: Drawing, sketch: Sketch, images: ImageTable): Promise<string | null> {
  const image = images.find(sketch.image)
  if (!image) return null
  const seen = await partOfImage(image, partSeen(sketch)).catch(() => null)
  if (!seen) return null
  const small = await sharp(seen.bytes)
    .rotate()
    .flop(!!sketch.mirrored)
    .resize(SIZE, SIZE, { fit: 'inside' })
    .jpeg({ quality: 70 })
    .toBuffer()
    .catch(() => null)
  if (!small) return null
  const { x, y, width, height, angle } = sketch
  const n = (v: number): string => short(v, 2)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n(page.width)} ${n(page.height)}">` +
    `<image href="data:image/jpeg;base64,${small.toString('base64')}" x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" opacity="0.7"` +
    ` preserveAspectRatio="none" transform="rotate(${n(angle)} ${n(x)} ${n(y)})"/></svg>`
  )
}
