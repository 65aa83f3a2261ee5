import * as yup from 'yup'
import { pathSchema } from './line-schema'
import { coordinate, id, number, share, text } from './schema-parts'

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

/** Schema of a fill with its shades. */
export const fillSchema = yup
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
