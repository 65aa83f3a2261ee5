import type { Box } from '#core/geometry/bounds'
import { uniteBoxes } from '#core/geometry/bounds'
import { boxOfPath } from '#core/geometry/known'
import { colourIn } from '#core/model/inks'
import { pathData } from '#core/geometry/path'
import type { PictureOrder } from '#core/formats/delivery/deliver'
import { PngWriter } from '#core/formats/png/png-writer'

/** Dots of a band that is drawn at once. */
const BAND = 8e6

/** Draws shapes as a PNG, band after band, so that a picture of 20,000 px a side takes no more memory than a band. */
export async function drawPicture(
  { shapes, drawing, width, height, scale, dpi, ground, tones }: PictureOrder,
  progress: (share: number) => void,
): Promise<Uint8Array> {
  const rows = Math.max(1, Math.min(height, Math.floor(BAND / width)))
  const canvas = new OffscreenCanvas(width, rows)
  const ctx = canvas.getContext('2d', { willReadFrequently: true })
  if (!ctx) throw new Error('This browser has no room for a picture as large as this. Choose a smaller one.')
  const paths = shapes
    .filter((s) => s.contours.length)
    .map((s) => ({
      path: new Path2D(s.contours.map((c) => pathData({ ...c, closed: true })).join('')),
      colour: colourIn(drawing.inks, s.ink),
      box: s.contours.map(boxOfPath).reduce(uniteBoxes),
    }))
  const writer = new PngWriter({ width, height, dpi, tones: tones === 'one-bit' ? 'one-bit' : ground ? 'rgb' : 'rgba' })
  for (let top = 0; top < height; top += rows) {
    const here = Math.min(rows, height - top)
    ctx.resetTransform()
    ctx.clearRect(0, 0, width, rows)
    if (ground) {
      ctx.fillStyle = ground
      ctx.fillRect(0, 0, width, rows)
    }
    ctx.setTransform(width / drawing.page.width, 0, 0, height / drawing.page.height, 0, -top)
    for (const { path, colour, box } of paths) {
      if (!meets(box, top / scale, (top + here) / scale)) continue
      ctx.fillStyle = colour
      ctx.fill(path)
    }
    writer.add(ctx.getImageData(0, 0, width, here).data)
    progress((top + here) / height)
    // Lets the message out.
    await new Promise((next) => setTimeout(next))
  }
  return new Uint8Array(await new Blob(writer.end() as Uint8Array<ArrayBuffer>[]).arrayBuffer())
}

const meets = (box: Box, top: number, bottom: number): boolean => box.maxY >= top - 1 && box.minY <= bottom + 1
