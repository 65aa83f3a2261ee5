import * as yup from 'yup'
import { amendmentSchema } from './amendment-schema'
import {
  coordinate,
  factor,
  id,
  isCoordinate,
  LARGEST,
  nodes,
  number,
  records,
  share,
  text,
  unknownField,
} from './schema-parts'
import type { Layer, TraceSample } from '../model/model'

export const MOST_LAYERS = 500
export const MOST_ITEMS = 50_000

const pathSchema = yup
  .object({ nodes: nodes.min(1), closed: yup.boolean().strict().required() })
  .noUnknown()
  .strict()

const widthStop = yup
  .object({ at: number().min(0).max(1), left: factor(), right: factor(), sharp: yup.boolean().strict() })
  .noUnknown()
  .strict()

const taper = yup
  .object({
    length: number().min(0).max(LARGEST),
    unit: yup.string().oneOf(['px', '%']).required(),
    tip: number().min(0).max(1),
    ease: yup.string().oneOf(['straight', 'round', 'needle']).required(),
  })
  .noUnknown()
  .strict()
  .nullable()
  .default(null)

/** Axes of a nib as multiples of the size. */
const axis = () => number().min(0).max(100)

const nib = yup
  .object({ width: axis(), height: axis(), angle: number().min(-360).max(360) })
  .noUnknown()
  .strict()
  .nullable()
  .default(null)

/** Schema of a line's weight; also the shape of the `bt:weight` attribute. */
const weightSchema = yup
  .object({
    size: number().min(0).max(10_000).label('the size'),
    stops: yup.array(widthStop.required()).required().min(1).max(1000),
    start: taper,
    end: taper,
    nib,
    pinned: yup.boolean().strict().required(),
    unlit: yup.array(widthStop.required()).min(1).max(1000).default(undefined),
  })
  .noUnknown()
  .strict()

const cap = () => yup.string().oneOf(['butt', 'round', 'square']).required()

/** Schema of a profile: the course of a weight without its size. */
export const courseSchema = yup
  .object({ stops: weightSchema.fields.stops as yup.Schema, start: taper, end: taper })
  .noUnknown()
  .strict()

/** Schema of a line's finish; also the shape of the `bt:finish` attribute. */
const finishSchema = yup
  .object({
    startCap: cap(),
    endCap: cap(),
    join: yup.string().oneOf(['miter', 'round', 'bevel']).required(),
    miterLimit: number().min(1).max(1000),
    align: yup.string().oneOf(['centre', 'left', 'right']).required(),
    dash: yup.array(number().min(0).max(LARGEST)).required().max(64),
    rough: yup
      .object({
        amount: number().min(0).max(1000),
        grain: number().min(0.1).max(10_000),
        seed: number().integer().min(0).max(1e9),
      })
      .noUnknown()
      .strict()
      .default(undefined),
  })
  .noUnknown()
  .strict()

const isNumber = (v: unknown): boolean => typeof v === 'number' && Number.isFinite(v)

/** Most samples of a trace. */
const MOST_SAMPLES = 50_000

const SAMPLE: ReadonlySet<string> = new Set(['x', 'y', 't', 'pressure', 'tiltX', 'tiltY'])

/** Schema of the samples of a trace. */
export const samplesSchema = records<TraceSample>(MOST_SAMPLES, (s) => {
  if (!isCoordinate(s.x)) return 'x'
  if (!isCoordinate(s.y)) return 'y'
  if (!isNumber(s.t)) return 't'
  if (!isNumber(s.pressure) || s.pressure! < 0 || s.pressure! > 1) return 'pressure'
  if (s.tiltX !== undefined && !isNumber(s.tiltX)) return 'tiltX'
  return s.tiltY !== undefined && !isNumber(s.tiltY) ? 'tiltY' : unknownField(s, SAMPLE)
})

const traceSettings = yup
  .object({
    device: yup.string().oneOf(['pen', 'mouse', 'touch', 'practice']).required(),
    steadiness: number().min(0).max(1),
    response: number().min(0.05).max(20),
    least: share(),
    most: share(),
    variation: share(),
    fromSpeed: yup.boolean().strict(),
    unevenness: share(),
    widthTolerance: share().min(0.005),
    squared: yup.boolean().strict(),
    zoom: yup.number().strict().min(1e-4).max(1e4),
  })
  .noUnknown()
  .strict()

const drawnTrace = traceSettings.shape({ samples: samplesSchema })

const keptTrace = traceSettings.shape({
  of: text(64).matches(/^[0-9a-f]{64}$/),
  count: number().integer().min(0).max(MOST_SAMPLES),
  at: yup.array(coordinate()).required().length(6),
  part: yup.array(share().required()).length(2).default(undefined),
  reversed: yup.boolean().strict().oneOf([true]),
})

const trace = yup.lazy((v: unknown) =>
  typeof v === 'object' && v !== null
    ? 'of' in v
      ? keptTrace
      : drawnTrace
    : yup.mixed().nullable().oneOf([null]).default(null),
)

const snip = yup
  .object({
    from: number().min(0).max(1),
    to: number().min(0).max(1),
    fromBy: yup.string().strict().max(80),
    toBy: yup.string().strict().max(80),
    idle: yup.boolean().strict(),
  })
  .noUnknown()
  .strict()

const tuckChoice = yup.string().strict().oneOf(['out', 'in', 'under'])

const line = yup
  .object({
    id: id(),
    path: pathSchema.required(),
    weight: weightSchema.required(),
    finish: finishSchema.required(),
    ink: id(),
    trace,
    snips: yup.array(snip.required()).required().max(1000),
    cover: yup.boolean().strict().required(),
    tuck: yup.object({ first: tuckChoice, last: tuckChoice }).noUnknown().strict().default(undefined),
    over: yup
      .object({ first: yup.array(id()).max(200), last: yup.array(id()).max(200) })
      .noUnknown()
      .strict()
      .default(undefined),
    apart: yup.string().strict().min(1).max(80),
    tint: yup.number().strict().min(-1).max(1),
    scrapes: yup.array(pathSchema.required()).max(20_000),
    outside: yup.string().strict().oneOf(['left', 'right']),
  })
  .noUnknown()
  .strict()

const shape = yup
  .object({
    id: id(),
    contours: yup.array(pathSchema.required()).required().max(20_000),
    ink: id(),
    from: yup.array(id()).required().max(20_000),
  })
  .noUnknown()
  .strict()

const sketch = yup
  .object({
    id: id(),
    image: text(64).matches(/^[0-9a-f]{64}$/),
    x: coordinate(),
    y: coordinate(),
    width: number().min(0.01).max(LARGEST),
    height: number().min(0.01).max(LARGEST),
    angle: number().min(-1e6).max(1e6),
    clean: yup
      .object({
        even: yup.boolean().strict().required(),
        white: number().min(0).max(1),
        black: number().min(0).max(1),
        pencil: number().min(0.05).max(20),
        specks: number().min(0).max(10_000),
        tint: yup
          .string()
          .strict()
          .matches(/^#[0-9a-f]{6}$/),
      })
      .noUnknown()
      .strict()
      .default(undefined),
    corners: yup
      .array(
        yup
          .object({ x: number().min(-1).max(2), y: number().min(-1).max(2) })
          .noUnknown()
          .required()
          .strict(),
      )
      .length(4)
      .default(undefined),
    crop: yup
      .object({
        x: share().required(),
        y: share().required(),
        width: number().min(1e-4).max(1),
        height: number().min(1e-4).max(1),
      })
      .noUnknown()
      .strict()
      .default(undefined),
    mirrored: yup.boolean().strict().oneOf([true]),
    plain: yup.boolean().strict().oneOf([true]),
  })
  .noUnknown()
  .strict()

/** Schema of an item of a layer, by the layer's kind. */
export const itemSchema = (kind: Layer['kind']): yup.Schema =>
  kind === 'sketch' ? sketch : kind === 'lines' ? line : shape

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

const hold = yup
  .object({
    line: text(80).min(1),
    side: yup.string().strict().oneOf(['left', 'right']).required(),
    from: number().min(0).max(1),
    to: number().min(0).max(1),
  })
  .noUnknown()
  .strict()

const shade = yup
  .object({
    id: id(),
    contours: yup.array(pathSchema.required()).required().min(1).max(1000),
    tone: number().min(-1).max(1),
    ink: yup.string().strict().min(1).max(80),
  })
  .noUnknown()
  .strict()

const fill = yup
  .object({
    id: id(),
    ink: id(),
    where: yup.string().strict().oneOf(['region', 'open', 'page']).required(),
    at: yup.object({ x: coordinate(), y: coordinate() }).noUnknown().required().strict(),
    hold: yup.array(hold.required()).required().max(2000),
    gap: number().min(0).max(1000),
    under: yup.number().strict().min(0).max(1000),
    shades: yup.array(shade.required()).max(500).default(undefined),
    lit: yup
      .object({
        depth: share().required(),
        softness: share().required(),
        shade: share().required(),
        light: share().required(),
      })
      .noUnknown()
      .strict()
      .default(undefined),
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
    fills: yup.array(fill.required()).max(20_000).default(undefined),
    settings: yup
      .object({
        light,
        tuck: yup.boolean().strict(),
        tint: share(),
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
