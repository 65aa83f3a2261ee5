import { Refusal } from '~/network/api'

/** Longer side of a picture that is made of an SVG, px. */
const SIZE = 2880

/**
 * A picture of an SVG, to be drawn over: as an image it runs no script and fetches nothing.
 *
 * @throws Refusal with a sentence that says what to do
 */
export async function drawnSvg(file: File): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([await file.arrayBuffer()], { type: 'image/svg+xml' }))
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const [w, h] = [image.naturalWidth || SIZE, image.naturalHeight || SIZE]
    const k = SIZE / Math.max(w, h)
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k)))
    const ctx = canvas.getContext('2d')!
    ctx.fillStyle = '#fff'
    ctx.fillRect(0, 0, canvas.width, canvas.height)
    ctx.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await canvas.convertToBlob({ type: 'image/png' })
  } catch {
    throw new Refusal(415, `"${file.name}" could not be drawn as a picture. Save it again as SVG, or as PNG.`)
  } finally {
    URL.revokeObjectURL(url)
  }
}
