import type { ComputedRef } from 'vue'
import { computed, onBeforeUnmount, shallowRef } from 'vue'
import type { Line } from '#core/model/model'
import { useDrawingStore } from '~/stores/drawing'
import { useChosenLines } from './use-chosen-lines'

/** A choice under the pointer is shown on the chosen lines until the pointer leaves it; `lines` are these as they hold meanwhile. */
export function usePeek(): {
  lines: ComputedRef<readonly Line[]>
  peek: (recipe: (line: Line) => void) => void
  lookAway: () => void
} {
  const store = useDrawingStore()
  const chosen = useChosenLines()
  const held = shallowRef<readonly Line[] | null>(null)

  function peek(recipe: (line: Line) => void): void {
    held.value ??= chosen.lines.value
    chosen.preview(recipe)
  }

  function lookAway(): void {
    if (held.value) store.drop()
    held.value = null
  }

  onBeforeUnmount(lookAway)
  return { lines: computed(() => held.value ?? chosen.lines.value), peek, lookAway }
}
