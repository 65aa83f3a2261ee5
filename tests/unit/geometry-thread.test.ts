import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { ALIVE } from '../../app/workers/alive'
import { GeometryThread, Hang } from '../../app/workers/geometry-thread'

/** A worker that does nothing, and says what a test has it say. */
class StillWorker extends EventTarget {
  static made: StillWorker[] = []
  isEnded = false
  constructor() {
    super()
    StillWorker.made.push(this)
  }
  postMessage(): void {}
  terminate(): void {
    this.isEnded = true
  }
  live(): void {
    this.dispatchEvent(new MessageEvent('message', { data: ALIVE }))
  }
}

beforeEach(() => {
  StillWorker.made = []
  vi.stubGlobal('Worker', StillWorker)
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('what takes long and says so is waited for; what is silent is ended, and all that waited is told', async () => {
  const thread = new GeometryThread()
  const [worker] = StillWorker.made
  let answer: (value: number) => void = () => undefined
  const long = thread.within(1000, () => new Promise<number>((resolve) => (answer = resolve)))
  for (let i = 0; i < 5; i++) {
    await vi.advanceTimersByTimeAsync(900)
    worker!.live()
  }
  expect([thread.hangs, worker!.isEnded]).toEqual([0, false])
  answer(7)
  expect(await long).toBe(7)

  const never = (): Promise<number> => new Promise(() => undefined)
  const silent = Promise.allSettled([thread.within(1000, never), thread.within(60_000, never)])
  await vi.advanceTimersByTimeAsync(900)
  worker!.live()
  await vi.advanceTimersByTimeAsync(1001)
  for (const { status, reason } of (await silent) as PromiseRejectedResult[])
    expect([status, reason instanceof Hang]).toEqual(['rejected', true])
  expect([thread.hangs, worker!.isEnded, StillWorker.made.length]).toEqual([1, true, 2])
  // One that was ended gives nobody more time.
  const next = Promise.allSettled([thread.within(1000, never)])
  await vi.advanceTimersByTimeAsync(900)
  worker!.live()
  await vi.advanceTimersByTimeAsync(200)
  expect((await next)[0]!.status).toBe('rejected')
})
