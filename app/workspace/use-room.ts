import { useWindowSize } from '@vueuse/core'
import { computed } from 'vue'

/** The smallest window in which everything of the workspace has its place, px. */
const LEAST = { width: 1024, height: 700 }

/** Whether the window has room for the workspace, and how large it is in words. */
export function useRoom() {
  const { width, height } = useWindowSize()
  return {
    isTooSmall: computed(() => width.value < LEAST.width || height.value < LEAST.height),
    size: computed(() => `${width.value} x ${height.value}`),
  }
}
