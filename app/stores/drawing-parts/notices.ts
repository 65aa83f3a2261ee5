import { ref, shallowRef, watch } from 'vue'

/** A way out of what a notice tells of. */
export interface Way {
  title: string
  run: () => void
}

/** Words for the person at the desk; shown for a while. */
export function useNotices() {
  const notice = ref('')
  /** Ways out of what the notice tells of. */
  const ways = shallowRef<readonly Way[]>([])

  /** Tells the person something, with ways out of it to choose from. */
  function tell(text: string, out: readonly Way[]): void {
    notice.value = text
    ways.value = out
  }

  // A notice without ways out has none of the one before.
  watch(notice, () => (ways.value = []), { flush: 'sync' })

  return { notice, ways, tell }
}

export type Notices = ReturnType<typeof useNotices>
