import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { ImportNote } from '#core/formats/svg/drawing-builder'
import type { Box } from '#core/geometry/bounds'
import { useDrawingStore } from './drawing'
import { useViewStore } from './view'

/** What came otherwise than its file has it, until it was read. */
export const useImportNotesStore = defineStore('import-notes', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const told = shallowRef<{ drawing: string; notes: readonly ImportNote[] } | null>(null)
  const looked = shallowRef<{ note: ImportNote; index: number } | null>(null)

  const notes = computed(() => (told.value?.drawing === store.drawing?.id ? (told.value?.notes ?? []) : []))
  /** The place that is looked at. */
  const place = computed(
    (): Box | null => (notes.value.length && looked.value?.note.places[looked.value.index]) || null,
  )

  function tell(drawing: string, all: readonly ImportNote[]): void {
    told.value = all.length ? { drawing, notes: all } : null
    looked.value = null
  }

  /** Shows where a note is about; the next place each time. */
  function see(note: ImportNote): void {
    const index = looked.value?.note === note ? (looked.value.index + 1) % note.places.length : 0
    looked.value = { note, index }
    const { minX, minY, maxX, maxY } = note.places[index]!
    view.centreOn({ x: (minX + maxX) / 2, y: (minY + maxY) / 2 })
    view.fitting = false
  }

  const putAway = (): void => tell('', [])

  return { notes, place, looked, tell, see, putAway }
})
