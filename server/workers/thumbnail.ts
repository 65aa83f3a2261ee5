import { parentPort } from 'node:worker_threads'
import type { Drawing } from '../../core/drawing/model'
import { drawThumbnail } from '../render/thumbnail'

/** A worker thread: a drawing in, its thumbnail out. */
parentPort!.on('message', ({ job, drawing }: { job: number; drawing: string }) => {
  let svg: string | null = null
  try {
    svg = drawThumbnail(JSON.parse(drawing) as Drawing)
  } catch {
    // What cannot be derived is drawn plainly by whoever asked.
  }
  parentPort!.postMessage({ job, svg })
})
