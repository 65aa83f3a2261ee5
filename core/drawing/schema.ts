import * as yup from 'yup'
import type { Patch } from 'immer'
import type { Drawing } from './model'

const LARGEST = 1e7
const number = () => yup.number().strict().required()
const coordinate = () => number().min(-LARGEST).max(LARGEST)
const factor = () => number().min(0).max(1000)
const text = (most: number) => yup.string().strict().required().max(most)
const id = () => text(80)

const vec = yup.object({ x: coordinate(), y: coordinate() }).strict()
const handle = yup.object({ x: coordinate(), y: coordinate() }).strict().nullable().default(null)

const node = yup
  .object({ at: vec.required(), in: handle, out: handle, joint: yup.string().oneOf(['corner', 'smooth']).required() })
  .strict()

export const pathSchema = yup
  .object({ nodes: yup.array(node.required()).required().min(1).max(20_000), closed: yup.boolean().strict().required() })
  .strict()

const widthStop = yup
  .object({ at: number().min(0).max(1), left: factor(), right: factor(), sharp: yup.boolean().strict() })
  .strict()

const taper = yup
  .object({
    length: number().min(0).max(LARGEST),
    unit: yup.string().oneOf(['px', '%']).required(),
    tip: number().min(0).max(1),
    ease: yup.string().oneOf(['straight', 'round', 'needle']).required(),
  })
  .strict()
  .nullable()
  .default(null)

const nib = yup
  .object({ width: factor(), height: factor(), angle: number().min(-360).max(360) })
  .strict()
  .nullable()
  .default(null)

/** Schema of a line's weight; also the shape of the `bt:weight` attribute. */
export const weightSchema = yup
  .object({
    size: number().min(0).max(10_000),
    stops: yup.array(widthStop.required()).required().min(1).max(1000),
    start: taper,
    end: taper,
    nib,
    pinned: yup.boolean().strict().required(),
  })
  .strict()

const cap = () => yup.string().oneOf(['butt', 'round', 'square']).required()

/** Schema of a line's finish; also the shape of the `bt:finish` attribute. */
export const finishSchema = yup
  .object({
    startCap: cap(),
    endCap: cap(),
    join: yup.string().oneOf(['miter', 'round', 'bevel']).required(),
    miterLimit: number().min(1).max(1000),
    align: yup.string().oneOf(['centre', 'left', 'right']).required(),
    dash: yup.array(number().min(0).max(LARGEST)).required().max(64),
  })
  .strict()

const sample = yup
  .object({
    x: coordinate(),
    y: coordinate(),
    t: number(),
    pressure: number().min(0).max(1),
    tiltX: yup.number().strict(),
    tiltY: yup.number().strict(),
  })
  .strict()

const trace = yup
  .object({
    samples: yup.array(sample.required()).required().max(50_000),
    device: yup.string().oneOf(['pen', 'mouse', 'touch', 'practice']).required(),
    steadiness: number().min(0).max(1),
    response: number().min(0.05).max(20),
  })
  .strict()
  .nullable()
  .default(null)

const snip = yup.object({ from: number().min(0).max(1), to: number().min(0).max(1) }).strict()

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
  })
  .strict()

const shape = yup
  .object({
    id: id(),
    contours: yup.array(pathSchema.required()).required().max(20_000),
    ink: id(),
    from: yup.array(id()).required().max(20_000),
  })
  .strict()

const sketch = yup
  .object({
    id: id(),
    image: text(64).matches(/^[0-9a-f]{64}$/),
    x: coordinate(),
    y: coordinate(),
    width: number().min(0.01).max(LARGEST),
    height: number().min(0.01).max(LARGEST),
    angle: number(),
  })
  .strict()

const layer = yup
  .object({
    id: id(),
    name: text(120),
    kind: yup.string().oneOf(['sketch', 'lines', 'shapes', 'fills']).required(),
    visible: yup.boolean().strict().required(),
    locked: yup.boolean().strict().required(),
    opacity: number().min(0).max(1),
    items: yup
      .array()
      .required()
      .max(50_000)
      .when('kind', ([kind], schema) => {
        const item: yup.Schema = kind === 'sketch' ? sketch.required() : kind === 'lines' ? line.required() : shape.required()
        return schema.of(item)
      }),
  })
  .strict()

const ink = yup.object({ id: id(), name: text(80), colour: text(7).matches(/^#[0-9a-fA-F]{6}$/) }).strict()

/** Schema of a whole drawing: every number finite and in range, every text of sane length. */
export const drawingSchema = yup
  .object({
    id: id(),
    name: text(120).trim().min(1),
    page: yup
      .object({
        width: number().min(1).max(100_000),
        height: number().min(1).max(100_000),
        unit: yup.string().oneOf(['px', 'mm']).required(),
        pxPerMm: number().min(0.01).max(1000),
      })
      .required()
      .strict(),
    layers: yup.array(layer.required()).required().max(500),
    inks: yup.array(ink.required()).required().min(1).max(500),
    settings: yup
      .object({
        shapes: yup
          .object({
            unite: yup.boolean().strict().required(),
            tolerance: number().min(0.001).max(10),
            simplify: number().min(0).max(50),
          })
          .required()
          .strict(),
      })
      .required()
      .strict(),
  })
  .strict()

/**
 * The value as a drawing.
 *
 * @throws yup.ValidationError whose `path` and `message` name the first thing that is wrong
 */
export function checkDrawing(value: unknown): Drawing {
  return drawingSchema.validateSync(value, { abortEarly: true }) as Drawing
}

/**
 * Checks the parts of `drawing` that `patches` touched, so that a small edit of a large drawing is checked fast.
 *
 * @throws yup.ValidationError as `checkDrawing`
 */
export function checkTouched(drawing: Drawing, patches: readonly Patch[]): void {
  const items = new Map<string, unknown>()
  for (const { path } of patches) {
    const [root, layerIndex, list, itemIndex] = path
    const layerHere = root === 'layers' ? drawing.layers[Number(layerIndex)] : undefined
    const item = list === 'items' && typeof itemIndex === 'number' ? layerHere?.items[itemIndex] : undefined
    if (!layerHere || list !== 'items' || typeof itemIndex !== 'number') {
      checkDrawing(drawing)
      return
    }
    // An item that was removed from the end leaves nothing to check.
    if (item) items.set(`${layerIndex}/${itemIndex}/${layerHere.kind}`, item)
  }
  for (const [key, item] of items) {
    const kind = key.split('/')[2]
    if (kind === 'lines') line.validateSync(item)
    else if (kind === 'sketch') sketch.validateSync(item)
    else shape.validateSync(item)
  }
}
