import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useDrawingStore } from './drawing'

/** The ink in hand: what is poured, and what new lines get; of each drawing its own. */
export const useInkInHand = defineStore('ink-in-hand', () => {
  const store = useDrawingStore()
  const wanted = ref<{ drawing: string; ink: string } | null>(null)
  const inks = computed(() => store.drawing?.inks ?? [])
  const id = computed(() => (wanted.value?.drawing === store.drawing?.id && inks.value.some((i) => i.id === wanted.value!.ink) ? wanted.value!.ink : (inks.value[0]?.id ?? 'black')))

  function take(ink: string): void {
    if (store.drawing) wanted.value = { drawing: store.drawing.id, ink }
  }

  /** The next ink of the palette, or the one before. */
  function step(by: 1 | -1): void {
    const n = inks.value.length
    const at = inks.value.findIndex((i) => i.id === id.value)
    if (n) take(inks.value[(at + by + n) % n]!.id)
  }

  return { id, take, step }
})
