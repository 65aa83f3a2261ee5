import { InputError } from '../errors'

/** Deepest nesting of data that is read: ours is nested about ten levels deep. */
const DEEPEST = 64

/**
 * The value of a JSON text from elsewhere.
 *
 * @param field what the text is, for the error
 * @param problem a sentence for people for when it cannot be read
 * @throws InputError where it is no JSON, or nested so deeply that reading it further would fail
 */
export function parseJson(text: string, field: string, problem: string): unknown {
  if (isTooDeep(text)) throw new InputError(field, problem)
  try {
    return JSON.parse(text) as unknown
  } catch {
    throw new InputError(field, problem)
  }
}

/** As `parseJson`, for a text that must hold a record. */
export function parseRecord(text: string, field: string, problem: string): Record<string, unknown> {
  const value = parseJson(text, field, problem)
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new InputError(field, problem)
  return value as Record<string, unknown>
}

/** Whether brackets are nested too deeply; those in strings do not count. */
export function isTooDeep(text: string): boolean {
  let depth = 0
  let quoted = false
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    if (quoted) {
      if (c === 92) i++
      else if (c === 34) quoted = false
    } else if (c === 34) quoted = true
    else if (c === 123 || c === 91) {
      if (++depth > DEEPEST) return true
    } else if (c === 125 || c === 93) depth--
  }
  return false
}

/** Keys that every object has by birth: as data they mislead whatever looks fields up by name. */
const INBORN: ReadonlySet<string> = new Set(['__proto__', ...Object.getOwnPropertyNames(Object.prototype)])

/**
 * Whether a value that came as JSON names fields that every object has by birth ("__proto__", "toString"): none of ours
 * does. It is looked at as it was read, since a text can spell a name in many ways.
 */
export function hasInbornKeys(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false
  if (Array.isArray(value)) return value.some(hasInbornKeys)
  return Object.keys(value).some((key) => INBORN.has(key) || hasInbornKeys((value as Record<string, unknown>)[key]))
}
