import { onScopeDispose, ReactiveEffect } from 'vue'

/** Draws anew, once a frame, whenever something that the drawing looked at has changed. */
export interface Frames {
  /** Draws in the next frame. */
  schedule: () => void
  /** Draws at once what waits for the next frame, if anything does. */
  now: () => void
}

export function useFrames(draw: () => void): Frames {
  let frame = 0
  const effect = new ReactiveEffect(draw)

  function run(): void {
    cancelAnimationFrame(frame)
    frame = 0
    effect.run()
  }

  function schedule(): void {
    cancelAnimationFrame(frame)
    frame = requestAnimationFrame(run)
  }

  effect.scheduler = schedule
  onScopeDispose(() => {
    effect.stop()
    cancelAnimationFrame(frame)
  })

  return { schedule, now: () => void (frame && run()) }
}
