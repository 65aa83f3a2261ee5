import { useStorage } from 'nitropack/runtime'
import type { ManyBody } from '../../shared/desk'
import { store } from '../database/store'
import { ManyDelivery } from './many'

const jobs = new Map<string, ManyDelivery>()

/** An archive goes after this time, ms. */
const KEPT = 60 * 60_000

/** At most so many deliveries at once, each a thread. */
const MOST = 2

/** Deliveries that are about to begin: they count from the moment they are asked for. */
let beginning = 0

/** Begins to deliver some drawings; null where too many deliveries are under way. */
export async function startMany({ ids, settings }: ManyBody): Promise<ManyDelivery | null> {
  if (beginning + [...jobs.values()].filter((j) => j.state.state === 'making').length >= MOST) return null
  beginning++
  try {
    const { journal, traces } = await store()
    const script = String(await useStorage('assets:workers').getItem('deliver.js'))
    const job = new ManyDelivery(
      script,
      { drawing: (id) => journal.head(id)?.drawing ?? null, samples: (hash) => traces.find(hash) },
      ids,
      settings,
    )
    jobs.set(job.state.id, job)
    setTimeout(() => endJob(job.state.id), KEPT).unref()
    return job
  } finally {
    beginning--
  }
}

export const jobOf = (id: string): ManyDelivery | undefined => jobs.get(id)

/** Ends a delivery and forgets it; answers whether it was there. */
export function endJob(id: string): boolean {
  jobs.get(id)?.stop()
  return jobs.delete(id)
}
