import * as yup from 'yup'
import { InputError } from '../../errors'

/** Inks under a name, apart from any drawing. */
export interface KeptPalette {
  name: string
  inks: { name: string; colour: string }[]
}

/** What the file says it is. */
const FORM = 'bellatrait palette'
const MOST = 500

/** Schema of a palette that is kept. */
export const paletteSchema = yup.object({
  name: yup.string().strict().trim().min(1).max(120).required(),
  inks: yup
    .array(
      yup
        .object({
          name: yup.string().strict().min(1).max(80).required(),
          colour: yup
            .string()
            .strict()
            .matches(/^#[0-9a-fA-F]{6}$/)
            .required(),
        })
        .required(),
    )
    .min(1)
    .max(MOST)
    .required(),
})

const fileSchema = paletteSchema.shape({ form: yup.string().strict().oneOf([FORM]).required() })

/** A palette as the text of a file. */
export const writePalette = ({ name, inks }: KeptPalette): string =>
  `${JSON.stringify({ form: FORM, name, inks: inks.map((i) => ({ name: i.name, colour: i.colour })) }, null, 2)}\n`

/**
 * A palette from the text of a file.
 *
 * @throws InputError with a sentence for people when it is none
 */
export function readPalette(text: string): KeptPalette {
  try {
    const { name, inks } = fileSchema.validateSync(JSON.parse(text))
    return { name, inks: inks.map((i) => ({ name: i.name, colour: i.colour.toLowerCase() })) }
  } catch (e) {
    throw new InputError(
      'file',
      e instanceof yup.ValidationError
        ? `This palette holds something that cannot be used: ${e.message}.`
        : 'This is no palette: choose a file that was shared from Palettes.',
    )
  }
}
