import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useDrawingStore } from './drawing'
import { findLine } from '#core/model/find'
import { useViewStore } from './view'

/** The chosen lines as they are now, found once for everybody who looks at them. */
export const useChosenStore = defineStore('chosen', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const lines = computed(() =>
    view.selection.flatMap((id) => (store.drawing && findLine(store.drawing, id)?.line) ?? []),
  )
  return { lines }
})
