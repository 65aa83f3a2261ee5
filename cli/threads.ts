import { Worker } from 'node:worker_threads'
import type { Answered, Asked, Jobs } from './jobs'

interface Waiting {
  asked: Asked
  done: (answer: Answered) => void
}

/** What lives shortly has so much room, MB: with the usual 48 a seventh of the time goes into clearing it away. */
const YOUNG = 192

/** Threads that do jobs, each the next that waits. */
export class Threads {
  private readonly waiting: Waiting[] = []
  private readonly idle: Worker[] = []
  private readonly all: Worker[] = []

  /** @param most how many threads there may be; they are started as they are needed */
  constructor(private readonly most: number) {}

  /** @throws Error with the sentence of whatever went wrong there */
  async run<K extends keyof Jobs>(what: K, of: Jobs[K]['of']): Promise<Jobs[K]['made']> {
    const answer = await new Promise<Answered>((done) => {
      this.waiting.push({ asked: { what, of } as Asked, done })
      this.next()
    })
    if ('why' in answer) throw new Error(answer.why)
    return answer.made
  }

  private next(): void {
    if (!this.waiting.length) return
    const worker = this.idle.pop() ?? (this.all.length < this.most ? this.start() : null)
    if (!worker) return
    const { asked, done } = this.waiting.shift()!
    const answered = (answer: Answered): void => {
      worker.off('error', broken)
      this.idle.push(worker)
      done(answer)
      this.next()
    }
    const broken = (e: Error): void => {
      worker.off('message', answered)
      this.all.splice(this.all.indexOf(worker), 1)
      done({ why: e.message })
      this.next()
    }
    worker.once('message', answered)
    worker.once('error', broken)
    worker.postMessage(asked)
  }

  private start(): Worker {
    const worker = new Worker(new URL('./thread.mjs', import.meta.url), {
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG },
    })
    this.all.push(worker)
    return worker
  }

  async end(): Promise<void> {
    await Promise.all(this.all.splice(0).map((w) => w.terminate()))
  }
}
