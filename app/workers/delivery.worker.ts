import { expose } from 'comlink'
import type { Drawing } from '#core/drawing/model'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'

/** Makes files of drawings away from the hand. */
const maker = {
  /** A drawing on its page as it would leave, as an SVG. */
  picture: (drawing: Drawing): string => writeSvg(drawing, { content: 'outlines', shapes: shapesOf(drawing).shapes }),
}

export type DeliveryWorker = typeof maker

expose(maker)
