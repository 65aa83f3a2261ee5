import { DAYS_IN_BIN } from '../../shared/desk'
import type { Store } from './store'

/** Throws away what was put into the bin longer ago than it is kept there; answers how many drawings went. */
export function emptyOldBin({ whole, connection }: Pick<Store, 'whole' | 'connection'>, now: Date): number {
  const ids = whole.inBinSince(new Date(now.getTime() - DAYS_IN_BIN * 24 * 60 * 60 * 1000).toISOString())
  connection.transaction(() => whole.erase(ids)).immediate()
  return ids.length
}
