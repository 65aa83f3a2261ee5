import { parentPort } from 'node:worker_threads'
import type { Drawing } from '#core/model/model'
import { findingsOf } from '../../core/proof/findings-of'
import type { Asked, Derived } from '../render/deriving-thread'
import { drawThumbnail } from '../render/thumbnail'

const MAKE: { [K in keyof Derived]: (drawing: Drawing) => Derived[K] } = {
  thumbnail: drawThumbnail,
  findings: (drawing) => findingsOf(drawing).length,
}

/** A worker thread: a drawing in, its thumbnail or the number of its findings out. */
parentPort!.on('message', ({ job, what, drawing }: Asked) => {
  let made: string | number | null = null
  try {
    made = MAKE[what](JSON.parse(drawing) as Drawing)
  } catch (e) {
    // What cannot be derived is dealt with by whoever asked; why is for whoever keeps the server.
    console.error(`The ${what} of a drawing could not be worked out:`, e)
  }
  parentPort!.postMessage({ job, made })
})
