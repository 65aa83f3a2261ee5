import { setLocale } from 'yup'

/** Lets checks speak in words that fit into a sentence: what it is about comes first. To be called before schemas are made. */
export const useWords = (): void =>
  setLocale({
    mixed: {
      default: '${path} cannot be used',
      required: '${path} is missing',
      defined: '${path} is missing',
      notNull: '${path} is missing',
      oneOf: '${path} is none of ${values}',
      notType: '${path} cannot be used',
    },
    string: {
      min: '${path} has fewer than ${min} letters',
      max: '${path} has more than ${max} letters',
      matches: '${path} cannot be used',
    },
    number: {
      min: '${path} is less than ${min}',
      max: '${path} is more than ${max}',
      integer: '${path} is no whole number',
    },
    array: {
      min: '${path} has fewer than ${min} entries',
      max: '${path} has more than ${max} entries',
      length: '${path} has not ${length} entries',
    },
    object: { noUnknown: '${path} has a field that no drawing has: ${unknown}' },
  })
