import { Worker } from 'node:worker_threads'
import type { Drawing } from '#core/model/model'

/** Longest time for one job, ms. */
const LONGEST = 4000

/** What is derived of a drawing, and as what it comes. */
export interface Derived {
  thumbnail: string
  findings: number
}

/** A job as the worker gets it. */
export interface Asked {
  job: number
  what: keyof Derived
  drawing: string
  /** Where what was worked out of it is found and kept. */
  file: string
}

type Made = Derived[keyof Derived] | null

interface Job {
  what: keyof Derived
  key: string
  drawing: Drawing
  done: ((made: Made) => void)[]
}

/**
 * Derives small things of drawings in a worker thread, one at a time, so that a drawing that is slow to derive keeps nobody
 * waiting: when its time is over it is given up. Of what changed while it waited only the newest state is made. Thumbnails go first.
 */
export class DerivingThread {
  private readonly waiting = new Map<string, Job>()
  private current: Job | null = null
  private worker: Worker | null = null
  private jobs = 0
  private timer: NodeJS.Timeout | undefined

  /**
   * @param script the worker's code
   * @param fileOf where what is worked out of a drawing is kept
   */
  constructor(
    private readonly script: string,
    private readonly fileOf: (drawing: string, what: keyof Derived) => string,
  ) {}

  /**
   * What is asked for of a drawing; null where it cannot be made, or takes too long.
   *
   * @param slot what there is only one newest state of: the drawing, or a moment in its history
   */
  make<K extends keyof Derived>(
    what: K,
    drawing: Drawing,
    revision: number,
    slot = drawing.id,
  ): Promise<Derived[K] | null> {
    const key = `${what} ${slot}@${revision}`
    return new Promise((resolve) => {
      const done = (made: Made): void => resolve(made as Derived[K] | null)
      if (this.current?.key === key) return void this.current.done.push(done)
      const queued = this.waiting.get(`${what} ${slot}`)
      this.waiting.set(`${what} ${slot}`, { what, key, drawing, done: [...(queued?.done ?? []), done] })
      this.next()
    })
  }

  private next(): void {
    if (this.current || !this.waiting.size) return
    const [slot, job] = [...this.waiting].find(([, j]) => j.what === 'thumbnail') ?? [...this.waiting][0]!
    this.waiting.delete(slot)
    this.current = job
    const worker = (this.worker ??= this.start())
    worker.ref()
    const { what, drawing } = job
    const file = this.fileOf(drawing.id, what)
    worker.postMessage({ job: ++this.jobs, what, drawing: JSON.stringify(drawing), file } satisfies Asked)
    this.timer = setTimeout(() => this.restart(), LONGEST)
  }

  private start(): Worker {
    const worker = new Worker(this.script, { eval: true, resourceLimits: { maxOldGenerationSizeMb: 1024 } })
    worker.on('message', ({ job, made }: { job: number; made: Made }) => {
      if (job === this.jobs) this.finish(made)
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

  private finish(made: Made): void {
    clearTimeout(this.timer)
    const job = this.current
    this.current = null
    this.worker?.unref()
    for (const done of job?.done ?? []) done(made)
    if (job) this.next()
  }
}
