import { Resvg } from '@resvg/resvg-js'
import type { Drawing } from '#core/model/model'
import { shapeSettingsOf } from '#core/model/fineness'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'

const SIZE = 512

/** Red, green, blue and coverage, 0..255. */
export function pixelsOf(svg: string): { width: number; height: number; pixels: Uint8Array } {
  const { width, height, pixels } = new Resvg(svg, { fitTo: { mode: 'width', value: SIZE } }).render()
  return { width, height, pixels }
}

/** A drawing as it leaves: its lines expanded, nothing united or simplified. */
export function asItLeaves(drawing: Drawing): string {
  const tolerance = Math.max(drawing.page.width, drawing.page.height) / 20_000
  const { shapes } = shapesOf({
    ...drawing,
    settings: { ...drawing.settings, shapes: { ...shapeSettingsOf(drawing), unite: false, tolerance, simplify: 0 } },
  })
  return writeSvg(drawing, { content: 'outlines', shapes })
}

/** By how much pictures differ on the mean, all four channels, as a share; 1 where they are not of a size. */
export function differenceOf(a: ReturnType<typeof pixelsOf>, b: ReturnType<typeof pixelsOf>): number {
  if (a.width !== b.width || a.height !== b.height) return 1
  let sum = 0
  for (let i = 0; i < a.pixels.length; i++) sum += Math.abs(a.pixels[i]! - b.pixels[i]!)
  return sum / a.pixels.length / 255
}

/** How a file looks otherwise once it has come in and left again, as a share of all four channels; and what was told of it. */
export function beforeAndAfter(svg: string): { difference: number; warnings: string[] } {
  const { drawing, warnings } = parseSvg(svg)
  return { difference: differenceOf(pixelsOf(svg), pixelsOf(asItLeaves(drawing))), warnings }
}
