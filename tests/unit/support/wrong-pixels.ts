import { Resvg } from '@resvg/resvg-js'
import type { Drawing } from '#core/model/model'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'

const SIZE = 512
/** Colours that differ by more in a channel are two inks. */
const APART = 40

/** Every px of a picture, its centre in an ink or not: without smoothing, edges that lie on each other count once. */
const pixelsOf = (svg: string): Uint8Array =>
  new Resvg(svg.replace('<svg ', '<svg shape-rendering="crispEdges" '), {
    fitTo: { mode: 'width', value: SIZE },
  }).render().pixels

/**
 * How many px of a square drawing show, with those beside them, another ink than a renderer of its strokes and fills shows:
 * single px along edges are a matter of a tolerance, theirs or ours.
 */
export function wrongPixels(drawing: Drawing): number {
  // As in SVG, a path of a single point is no stroke to others; here it is a dot.
  const layers = drawing.layers.map((l) =>
    l.kind === 'lines' ? { ...l, items: l.items.filter((i) => i.path.nodes.length > 1) } : l,
  ) as Drawing['layers']
  const { settings } = drawing
  const plain = {
    ...drawing,
    layers,
    settings: { ...settings, tuck: false, shapes: { ...settings.shapes, simplify: 0 } },
  }
  const { shapes } = shapesOf(plain)
  const [a, b] = [writeSvg(plain, { content: 'lines' }), writeSvg(plain, { content: 'outlines', shapes })].map(pixelsOf)
  return unlikePixels(a!, b!, SIZE, APART)
}

/** How many px of two square pictures differ in a channel by more than `apart`, and those beside them do as well. */
export function unlikePixels(a: Uint8Array, b: Uint8Array, side: number, apart: number): number {
  const isWrong = (at: number): boolean => [0, 1, 2, 3].some((k) => Math.abs(a[4 * at + k]! - b[4 * at + k]!) > apart)
  let wrong = 0
  for (let y = 1; y < side - 1; y++)
    for (let x = 1; x < side - 1; x++) {
      const at = y * side + x
      if (isWrong(at) && [at - 1, at + 1, at - side, at + side].every(isWrong)) wrong++
    }
  return wrong
}
