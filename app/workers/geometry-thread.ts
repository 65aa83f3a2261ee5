import type { Remote } from 'comlink'
import { wrap } from 'comlink'
import { ALIVE } from './alive'
import type { GeometryWorker } from './geometry.worker'

/** Work in the geometry worker took longer than anything sensible; the worker was ended and another started. */
export class Hang extends Error {
  constructor() {
    super('This took too long and was given up.')
    this.name = 'Hang'
  }
}

/** The geometry worker, ended and started anew when it hangs, so that it never hangs the workspace. */
export class GeometryThread {
  private thread = this.startWorker()
  remote: Remote<GeometryWorker> = wrap<GeometryWorker>(this.thread)
  /** How often it hung. */
  hangs = 0
  /** Rejects what is waiting for the worker at hand. */
  private giveUp = new Set<() => void>()
  /** Each gives what waits its time again. */
  private waiting = new Set<() => void>()

  /**
   * What the worker answers to `call`. `alive`, which `call` is given, says that the work goes on and has its time again, as
   * the worker itself does between two turns of long work.
   *
   * @param longest ms without an answer or a sign of life
   * @throws Hang when that time is over
   */
  async within<T>(
    longest: number,
    call: (worker: Remote<GeometryWorker>, alive: () => void) => Promise<T>,
  ): Promise<T> {
    let timer: ReturnType<typeof setTimeout> | undefined
    let stop = (): void => undefined
    const hung = new Promise<never>((_, reject) => (stop = () => reject(new Hang())))
    let over = false
    const alive = (): void => {
      clearTimeout(timer)
      // A sign of life may come in after the answer.
      if (over) return
      timer = setTimeout(() => {
        this.hangs++
        this.restart()
      }, longest)
    }
    this.giveUp.add(stop)
    this.waiting.add(alive)
    alive()
    try {
      return await Promise.race([call(this.remote, alive), hung])
    } finally {
      over = true
      clearTimeout(timer)
      this.giveUp.delete(stop)
      this.waiting.delete(alive)
    }
  }

  /** Ends the worker with all that it has under way. */
  restart(): void {
    this.thread.terminate()
    this.thread = this.startWorker()
    this.remote = wrap<GeometryWorker>(this.thread)
    for (const stop of [...this.giveUp]) stop()
  }

  end(): void {
    this.thread.terminate()
  }

  /** A worker whose signs of life are those of everything that waits for it. */
  private startWorker(): Worker {
    const worker = new Worker(new URL('./geometry.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }) => {
      if (data === ALIVE && worker === this.thread) for (const alive of this.waiting) alive()
    })
    return worker
  }
}
