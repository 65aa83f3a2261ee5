import { proxy, wrap } from 'comlink'
import { bandsOf, bandsWorth } from '#core/ink/session/bands'
import type { Drawing } from '#core/model/model'
import type { Book } from '#core/recall/book'
import type { BandWorker } from './band.worker'

/** More threads than so many hold each other up. */
const MOST = 4
/** How often it is asked whether to go on, ms. */
const LOOK = 100

/** How many threads may work side by side where there are so many processors: one stays with the hand, one with this worker. */
export const threadsBeside = (processors: number): number => Math.min(MOST, processors - 1)

/**
 * Puts into a book what follows from a drawing, worked out in several threads, band by band, each as it comes in. What
 * goes wrong there is worked out by whoever needs it.
 *
 * @param threads how many there may be; fewer than two are none
 * @param go hears the share that is done, and says whether to go on
 */
export async function workedSideBySide(
  drawing: Drawing,
  book: Book,
  threads: number,
  go: (share: number) => boolean,
): Promise<void> {
  const count = bandsWorth(drawing, threads)
  if (count < 2) return
  const shares = new Array<number>(count).fill(0)
  const workers = bandsOf(drawing, count).map((band, i) => {
    const worker = new Worker(new URL('./band.worker.ts', import.meta.url), { type: 'module' })
    const failed = new Promise<never>((_, reject) => (worker.onerror = (e) => reject(new Error(e.message))))
    const told = proxy((share: number) => void (shares[i] = share))
    const page = Promise.race([wrap<BandWorker>(worker).page(band, told), failed])
    return { worker, done: page.then((bytes) => book.read(bytes, false)) }
  })
  const stop = new Promise<void>((resolve) => {
    const timer = setInterval(() => {
      if (go(shares.reduce((a, b) => a + b, 0) / count)) return
      clearInterval(timer)
      resolve()
    }, LOOK)
    void Promise.allSettled(workers.map((w) => w.done)).then((all) => {
      for (const one of all) if (one.status === 'rejected') console.warn('A band could not be worked out:', one.reason)
      clearInterval(timer)
      resolve()
    })
  })
  await stop
  for (const { worker } of workers) worker.terminate()
}
