import { Resvg } from '@resvg/resvg-js'
import sharp from 'sharp'

/** A px that differs by more than this in grey from all around its place is another colour, not another way of smoothing an edge. */
const CLEARLY = 110

/** Share of px that differ clearly between an SVG rendered `width` px wide and a screenshot of a part of it. */
export async function comparePictures(
  svg: string,
  shot: Buffer,
  { width, left, top }: { width: number; left: number; top: number },
): Promise<{ share: number; width: number }> {
  const rendered = new Resvg(svg, {
    background: '#fffdf8',
    font: { loadSystemFonts: false },
    fitTo: { mode: 'width', value: width },
  }).render()
  // Asked for once: every look at `pixels` copies them all.
  const { pixels } = rendered
  const { data, info } = await sharp(shot).greyscale().raw().toBuffer({ resolveWithObject: true })
  let off = 0
  for (let y = 0; y < info.height; y++) {
    for (let x = 0; x < info.width; x++) {
      const around = [-1, 0, 1].flatMap((dy) =>
        [-1, 0, 1].map((dx) => pixels[((y + dy + top) * rendered.width + x + dx + left) * 4]!),
      )
      const shown = data[y * info.width + x]!
      if (around.every((grey) => Math.abs(grey - shown) > CLEARLY)) off++
    }
  }
  return { share: off / (info.width * info.height), width: rendered.width }
}

/** Size of a picture and the ink in it: the sum of its opacity, px. */
export async function measurePicture(
  file: string,
): Promise<{ width: number; height: number; hasAlpha: boolean; ink: number }> {
  const { width, height, hasAlpha } = await sharp(file).metadata()
  const alpha = await sharp(file).extractChannel(3).raw().toBuffer()
  let ink = 0
  for (const a of alpha) ink += a / 255
  return { width, height, hasAlpha, ink }
}

/** How many px of a screenshot are as dark as ink. */
export async function darkPixels(shot: Buffer): Promise<number> {
  const data = await sharp(shot).greyscale().raw().toBuffer()
  return data.reduce((n, v) => n + (v < 80 ? 1 : 0), 0)
}

/** The most by which a px of one screenshot differs from that of another of the same size, 0..255; edges may be smoothed otherwise. */
export async function mostDifference(a: Buffer, b: Buffer): Promise<number> {
  const [one, other] = await Promise.all([a, b].map((shot) => sharp(shot).greyscale().raw().toBuffer()))
  if (one!.length !== other!.length) return 255
  return one!.reduce((most, v, i) => Math.max(most, Math.abs(v - other![i]!)), 0)
}
