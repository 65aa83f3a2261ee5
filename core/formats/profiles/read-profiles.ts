import { ValidationError } from 'yup'
import type { Taper, WidthStop } from '../../model/model'
import { courseSchema } from '../../document/line-schema'
import { InputError } from '../../errors'
import { parseJson } from '../json'
import type { ShelfProfile } from '../../weight/shelf'

/** A profile that is not on a shelf yet. */
export type LooseProfile = Omit<ShelfProfile, 'id'>

export const PROFILE_FORMAT = 'bellatrait profiles'

export const LONGEST_PROFILE_NAME = 60
export const MOST_PROFILES = 200
const MOST_STOPS = 1000

/**
 * The profiles of a file that was shared, stops in the order of their places.
 *
 * @throws InputError with a sentence for people that says what is wrong and where
 */
export function readProfiles(text: string): LooseProfile[] {
  const file = parseJson(
    text,
    'file',
    'This file cannot be read: it is no JSON. Choose one that was shared from a shelf of profiles.',
  )
  const list = (file as { profiles?: unknown } | null)?.profiles
  if ((file as { format?: unknown } | null)?.format !== PROFILE_FORMAT || !Array.isArray(list)) {
    throw new InputError('file', 'This is no file of profiles. Choose one that was shared from a shelf of profiles.')
  }
  if (!list.length) throw new InputError('file', 'This file holds no profile.')
  if (list.length > MOST_PROFILES)
    throw new InputError('file', `This file holds ${list.length} profiles, and a shelf takes ${MOST_PROFILES} at most.`)
  return list.map((p, i) => profileOf(p as Record<string, unknown> | null, i + 1))
}

function profileOf(value: Record<string, unknown> | null, number: number): LooseProfile {
  const name = plainName(value?.name)
  const called = name ? `Profile "${name}"` : `Profile ${number}`
  const { stops, start = null, end = null } = value ?? {}
  if (Array.isArray(stops) && stops.length > MOST_STOPS)
    throw new InputError('stops', `${called} has ${stops.length} width stops, and a line takes ${MOST_STOPS} at most.`)
  try {
    courseSchema.validateSync({ stops, start, end }, { abortEarly: true })
  } catch (e) {
    if (e instanceof ValidationError)
      throw new InputError(e.path ?? 'profiles', `${called} cannot be used: ${e.message}.`)
    throw e
  }
  const sorted = (stops as WidthStop[])
    .map(({ at, left, right, sharp }) => ({ at, left, right, ...(sharp && { sharp }) }))
    .sort((a, b) => a.at - b.at)
  return { name: name || `Profile ${number}`, stops: sorted, start: start as Taper | null, end: end as Taper | null }
}

/** A name of one line and sane length; '' for none. */
function plainName(value: unknown): string {
  if (typeof value !== 'string') return ''
  return value
    .replace(/[\p{Cc}\p{Cf}]+/gu, ' ')
    .trim()
    .slice(0, LONGEST_PROFILE_NAME)
}
