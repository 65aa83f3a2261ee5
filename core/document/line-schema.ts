import * as yup from 'yup'
import { factor, id, LARGEST, nodes, number } from './schema-parts'
import { VERDICTS } from '../model/line'
import { traceSchema } from './trace-schema'

/** Schema of a path. */
export const pathSchema = yup
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

const verdict = yup.string().strict().oneOf(VERDICTS)

const tuckChoice = yup.string().strict().oneOf(['out', 'in', 'under'])

/** Schema of a line. */
export const lineSchema = yup
  .object({
    id: id(),
    path: pathSchema.required(),
    weight: weightSchema.required(),
    finish: finishSchema.required(),
    ink: id(),
    trace: traceSchema,
    snips: yup.array(snip.required()).required().max(1000),
    cover: yup.boolean().strict().required(),
    contact: yup.object({ first: verdict, last: verdict }).noUnknown().strict().default(undefined),
    tuck: yup.object({ first: tuckChoice, last: tuckChoice }).noUnknown().strict().default(undefined),
    over: yup
      .object({ first: yup.array(id()).max(200), last: yup.array(id()).max(200) })
      .noUnknown()
      .strict()
      .default(undefined),
    apart: yup.string().strict().min(1).max(80),
    tint: yup.number().strict().min(-1).max(1),
    name: yup.string().strict().min(1).max(120),
    hidden: yup.boolean().strict().oneOf([true]),
    locked: yup.boolean().strict().oneOf([true]),
    scrapes: yup.array(pathSchema.required()).max(20_000),
    outside: yup.string().strict().oneOf(['left', 'right']),
  })
  .noUnknown()
  .strict()
