import { NameTaken } from '../database/name-taken'
import { refuse } from './refuse'

/** Does what gives something a name; refuses one that is taken. */
export function refusedIfTaken<T>(work: () => T): T {
  try {
    return work()
  } catch (e) {
    if (e instanceof NameTaken) throw refuse(409, e.message)
    throw e
  }
}
