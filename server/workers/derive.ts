import { setPriority } from 'node:os'
import { parentPort } from 'node:worker_threads'
import type { Drawing } from '#core/model/model'
import { findingsIn, openFindings } from '../../core/proof/findings-of'
import type { Asked, Derived } from '../render/deriving-thread'
import { coarseForCard, thumbnailOf } from '../render/thumbnail'
import { inSession } from './in-session'

const MAKE: { [K in keyof Derived]: (drawing: Drawing, file: string) => Derived[K] } = {
  thumbnail: (drawing, file) => {
    const coarse = coarseForCard(drawing)
    return thumbnailOf(
      drawing,
      inSession(coarse, file, (session) => session.shapes()),
    )
  },
  findings: (drawing, file) => openFindings(drawing, inSession(drawing, file, findingsIn)).length,
}

/** Pictures give way to whoever saves; where priorities are by process, all of them are as they were. */
if (process.platform === 'linux') setPriority(5)

/** A worker thread: a drawing in, its thumbnail or the number of its findings out. */
parentPort!.on('message', ({ job, what, drawing, file }: Asked) => {
  let made: string | number | null = null
  try {
    made = MAKE[what](JSON.parse(drawing) as Drawing, file)
  } catch (e) {
    // What cannot be derived is dealt with by whoever asked; why is for whoever keeps the server.
    console.error(`The ${what} of a drawing could not be worked out:`, e)
  }
  parentPort!.postMessage({ job, made })
})
