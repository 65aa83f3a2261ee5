import { Worker } from 'node:worker_threads'
import type { Drawing } from '../../core/drawing/model'
import { plainThumbnail } from './plain-thumbnail'

/** Longest time for one thumbnail before the drawing is drawn plainly, ms. */
const LONGEST = 4000

interface Job {
  key: string
  drawing: Drawing
  done: ((svg: string) => void)[]
}

/**
 * Makes thumbnails in a worker thread, one at a time, so that a drawing that is slow to derive keeps nobody waiting: it is
 * drawn plainly when its time is over. Of a drawing that changed while it waited only the newest state is made.
 */
export class ThumbnailMaker {
  private readonly waiting = new Map<string, Job>()
  private current: Job | null = null
  private worker: Worker | null = null
  private jobs = 0
  private timer: NodeJS.Timeout | undefined

  /** @param script the worker's code */
  constructor(private readonly script: string) {}

  /** The thumbnail of a drawing at a revision. */
  make(drawing: Drawing, revision: number): Promise<string> {
    const key = `${drawing.id}@${revision}`
    return new Promise((resolve) => {
      if (this.current?.key === key) return void this.current.done.push(resolve)
      const queued = this.waiting.get(drawing.id)
      this.waiting.set(drawing.id, { key, drawing, done: [...(queued?.done ?? []), resolve] })
      this.next()
    })
  }

  close(): void {
    clearTimeout(this.timer)
    void this.worker?.terminate()
  }

  private next(): void {
    const first = this.waiting.keys().next()
    if (this.current || first.done) return
    const job = this.waiting.get(first.value)!
    this.waiting.delete(first.value)
    this.current = job
    const worker = (this.worker ??= this.start())
    worker.ref()
    worker.postMessage({ job: ++this.jobs, drawing: JSON.stringify(job.drawing) })
    this.timer = setTimeout(() => this.restart(), LONGEST)
  }

  private start(): Worker {
    const worker = new Worker(this.script, { eval: true, resourceLimits: { maxOldGenerationSizeMb: 1024 } })
    worker.on('message', ({ job, svg }: { job: number; svg: string | null }) => {
      if (job === this.jobs) this.finish(svg)
    })
    // An idle worker does not keep the process; one that fails is replaced.
    worker.on('error', () => this.worker === worker && this.restart())
    return worker
  }

  /** Gives the job at hand up, with the thread that hangs in it. */
  private restart(): void {
    void this.worker?.terminate()
    this.worker = null
    this.finish(null)
  }

  private finish(svg: string | null): void {
    clearTimeout(this.timer)
    const job = this.current
    this.current = null
    this.worker?.unref()
    if (!job) return
    const result = svg ?? plainThumbnail(job.drawing)
    for (const done of job.done) done(result)
    this.next()
  }
}
