import { availableParallelism } from 'node:os'
import { isMainThread } from 'node:worker_threads'
import { bandsOf, bandsWorth } from '#core/ink/session/bands'
import type { ShapesResult } from '../core/ink/open-ink'
import { openInk } from '../core/ink/open-ink'
import type { Drawing } from '#core/model/model'
import { Book } from '../core/recall/book'
import { atOnce } from '../core/turns'
import { Threads } from './threads'

/** A thread that has to read all code takes seconds until it is there: a band of fewer items is sooner done here. */
const LEAST = 1000

/** Pages go from thread to thread of one process: one engine. */
const ENGINE = 'side by side'

/**
 * The shapes of a drawing; those of a large one are worked out band by band in several threads first.
 *
 * @param most how many threads there may be; none from within one, where others have their files
 */
export async function shapesSideBySide(
  drawing: Drawing,
  most = isMainThread ? availableParallelism() : 0,
): Promise<ShapesResult> {
  const count = bandsWorth(drawing, most, LEAST)
  if (count < 2) return atOnce(openInk(drawing).shapes())
  const threads = new Threads(count)
  const book = new Book(ENGINE)
  try {
    const pages = bandsOf(drawing, count).map((band) => threads.run('band', { band, engine: ENGINE }))
    // What did not come is worked out by the whole.
    for (const page of await Promise.allSettled(pages)) if (page.status === 'fulfilled') book.read(page.value)
  } finally {
    await threads.end()
  }
  return atOnce(openInk(drawing, book).shapes())
}
