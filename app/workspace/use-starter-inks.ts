import type { ComputedRef } from 'vue'
import { computed } from 'vue'
import { addStarterInks, lacksInks } from '#core/editing/starter-inks'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'

/** Inks to begin with, offered as long as a drawing has but those of its lines. */
export function useStarterInks(): { offered: ComputedRef<boolean>; take: () => void } {
  const store = useDrawingStore()
  const hand = useInkInHand()

  function take(): void {
    let first = ''
    store.edit('Starter inks', (draft) => void (first = addStarterInks(draft)))
    if (first) hand.take(first)
  }

  return { offered: computed(() => !!store.drawing && lacksInks(store.drawing)), take }
}
