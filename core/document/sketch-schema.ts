import * as yup from 'yup'
import { coordinate, id, LARGEST, number, share, text } from './schema-parts'

/** Schema of a picture of a sketch, and how it lies on the page. */
export const sketchSchema = yup
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
