import type { ShelfProfile } from '../../weight/shelf'
import { PROFILE_FORMAT } from './read-profiles'

/** Profiles as JSON text that `readProfiles` reads. */
export const writeProfiles = (profiles: readonly ShelfProfile[]): string =>
  `${JSON.stringify({ format: PROFILE_FORMAT, profiles: profiles.map(({ name, stops, start, end }) => ({ name, stops, start, end })) }, null, 2)}\n`
