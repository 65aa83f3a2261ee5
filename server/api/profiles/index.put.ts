import { defineEventHandler } from 'h3'
import { MOST_PROFILES } from '../../../core/formats/profiles/read-profiles'
import type { ShelfProfile } from '../../../core/weight/shelf'
import { mergedShelf } from '../../../core/weight/shelf'
import { LIMITS, shelfSchema } from '../../../shared/api'
import { store } from '../../database/store'
import { readJson } from '../../http/body'
import { refuse } from '../../http/refuse'
import { seatAsked } from '../../http/seat-asked'

/** Keeps a shelf of own profiles; what another window changed since the shelf that it was made from is kept, too. Answers the shelf as it is now. */
export default defineEventHandler(async (event): Promise<ShelfProfile[]> => {
  const { profiles: mine, base } = await readJson<{ profiles: ShelfProfile[]; base: ShelfProfile[] | null }>(
    event,
    shelfSchema,
    LIMITS.document,
  )
  const { profiles, seats } = await store()
  const seat = seatAsked(event, seats)
  const merged = base ? mergedShelf(base, mine, profiles.list(seat)) : mine
  if (merged.length > MOST_PROFILES)
    throw refuse(
      409,
      `A shelf takes ${MOST_PROFILES} profiles at most, and another window has added some. Delete some to make room.`,
    )
  profiles.replace(seat, merged)
  return merged
})
