import * as yup from 'yup'
import type { Layer } from '../model/model'
import { amendmentSchema } from './amendment-schema'
import { fillSchema } from './fill-schema'
import { lineSchema, pathSchema } from './line-schema'
import { coordinate, id, number, share, text } from './schema-parts'
import { sketchSchema } from './sketch-schema'

export const MOST_LAYERS = 500
export const MOST_ITEMS = 50_000

const shape = yup
  .object({
    id: id(),
    contours: yup.array(pathSchema.required()).required().max(20_000),
    ink: id(),
    from: yup.array(id()).required().max(20_000),
  })
  .noUnknown()
  .strict()

/** Schema of an item of a layer, by the layer's kind. */
export const itemSchema = (kind: Layer['kind']): yup.Schema =>
  kind === 'sketch' ? sketchSchema : kind === 'lines' ? lineSchema : shape

export const layerSchema = yup
  .object({
    id: id(),
    name: text(120).label('the name of the layer'),
    kind: yup.string().oneOf(['sketch', 'lines', 'shapes', 'fills']).required(),
    visible: yup.boolean().strict().required(),
    locked: yup.boolean().strict().required(),
    opacity: number().min(0).max(1),
    items: yup
      .array()
      .required()
      .max(MOST_ITEMS)
      .when('kind', ([kind], schema) => schema.of(itemSchema(kind as Layer['kind']).required())),
  })
  .noUnknown()
  .strict()

const light = yup
  .object({
    at: yup.object({ x: coordinate(), y: coordinate() }).noUnknown().required().strict(),
    strength: number().min(0).max(1),
    softness: number().min(0).max(1),
    live: yup.boolean().strict().required(),
  })
  .noUnknown()
  .strict()
  .default(undefined)

const percent = () => number().min(0).max(100)

const ink = yup
  .object({
    id: id(),
    name: text(80).label('the name of the ink'),
    colour: text(7).matches(/^#[0-9a-fA-F]{6}$/),
    print: yup
      .object({ c: percent(), m: percent(), y: percent(), k: percent() })
      .noUnknown()
      .strict()
      .default(undefined),
  })
  .noUnknown()
  .strict()

/** Schema of a whole drawing: every number finite and in range, every text of sane length. */
export const drawingSchema = yup
  .object({
    id: id(),
    name: text(120).trim().min(1, 'the drawing has no name').label('the name of the drawing'),
    page: yup
      .object({
        width: number().min(1).max(100_000).label('the width of the page'),
        height: number().min(1).max(100_000).label('the height of the page'),
        unit: yup.string().oneOf(['px', 'mm']).required(),
        pxPerMm: number().min(0.01).max(1000).label('the fineness of the page'),
      })
      .noUnknown()
      .required()
      .strict(),
    layers: yup.array(layerSchema.required()).required().max(MOST_LAYERS),
    inks: yup.array(ink.required()).required().min(1).max(500),
    amendments: yup.array(amendmentSchema).max(20_000).default(undefined),
    fills: yup.array(fillSchema.required()).max(20_000).default(undefined),
    settings: yup
      .object({
        light,
        tuck: yup.boolean().strict(),
        tint: share(),
        frontsByOrder: yup.boolean().strict(),
        proof: yup
          .object({
            thin: yup.number().strict().min(0).max(100),
            gap: yup.number().strict().min(0).max(100),
            contrast: yup.number().strict().min(1).max(1000),
            speck: yup.number().strict().min(0).max(1000),
            sliver: yup.number().strict().min(0).max(100),
            open: yup.number().strict().min(0).max(100),
          })
          .noUnknown()
          .strict()
          .default(undefined),
        corner: yup.string().strict().oneOf(['caps', 'pointed', 'rounded']),
        shapes: yup
          .object({
            unite: yup.boolean().strict().required(),
            tolerance: number().min(1e-6).max(1e4),
            simplify: number().min(0).max(1e5),
            corner: yup.number().strict().min(1).max(180),
          })
          .noUnknown()
          .required()
          .strict(),
      })
      .noUnknown()
      .required()
      .strict(),
  })
  .noUnknown()
  .strict()
