import * as yup from 'yup'

/** An id as it is sent. */
export const idSchema = () => yup.string().strict().max(80)

/** A name of what people name, with sentences for one that is none. */
export const nameOf = (what: string, longest: number) =>
  yup
    .string()
    .strict()
    .matches(/\S/, `A ${what} needs a name.`)
    .max(longest, `A name has ${longest} letters at most.`)
    .required(`A ${what} needs a name.`)
