import { createSharedComposable, useWindowSize } from '@vueuse/core'
import { computed } from 'vue'

/** Below these the workspace is laid out for a small laptop, and for a tablet held upright, px. */
const LOW = 700
export const NARROW = 1024

/** How a window is laid out: with all its room, with little height, with little width, or with little of both. */
type Room = 'wide' | 'wide low' | 'narrow' | 'narrow low'

/** What room the window has. */
export const useRoom = createSharedComposable(() => {
  const { width, height } = useWindowSize()
  const isLow = computed(() => height.value < LOW)
  const isNarrow = computed(() => width.value < NARROW)
  const room = computed(() => `${isNarrow.value ? 'narrow' : 'wide'}${isLow.value ? ' low' : ''}` as Room)
  return { isLow, isNarrow, room }
})
