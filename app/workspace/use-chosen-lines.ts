import { storeToRefs } from 'pinia'
import type { ComputedRef } from 'vue'
import type { Line } from '#core/model/model'
import { useChosenStore } from '~/stores/chosen'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useViewStore } from '~/stores/view'

/** The chosen lines, and changes to all of them in one step. */
export function useChosenLines(): {
  lines: ComputedRef<Line[]>
  /** One step of the history. */
  change: (label: string, recipe: (line: Line) => void) => void
  /** Shown only; `finish` makes it a step. */
  preview: (recipe: (line: Line) => void) => void
  finish: (label: string) => void
} {
  const store = useDrawingStore()
  const view = useViewStore()
  const { lines } = storeToRefs(useChosenStore())
  return {
    lines,
    change: (label, recipe) => store.edit(label, (draft) => void changeLines(draft, view.selection, recipe)),
    preview: (recipe) => store.change((draft) => void changeLines(draft, view.selection, recipe)),
    finish: (label) => store.finish(label),
  }
}
