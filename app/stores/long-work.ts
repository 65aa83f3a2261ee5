import { shallowRef } from 'vue'

/** Long work that is shown to the person while it goes on. */
export interface LongWork {
  what: string
  /** How much is done, 0..1. */
  share: number
  stop: () => void
}

/**
 * The long work that is shown, and a way to begin one. Only who began it tells of it, and only until its end:
 * a worker's last report can come in after its answer, and would stand there for ever.
 */
export function useLongWork() {
  const work = shallowRef<LongWork | null>(null)

  function beginWork(what: string, stop: () => void): { tell: (share: number) => void; end: () => void } {
    let mine: LongWork | null = null
    let over = false
    const tell = (share: number): void => {
      if (!over) work.value = mine = { what, share, stop }
    }
    const end = (): void => {
      over = true
      if (work.value === mine) work.value = null
    }
    return { tell, end }
  }

  return { work, beginWork }
}
