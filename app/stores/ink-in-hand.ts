import { defineStore } from 'pinia'
import { computed, reactive } from 'vue'
import { useDrawingStore } from './drawing'

/** The inks in hand: the one that is poured, and the one that new lines and blots get; of each drawing its own. */
export const useInkInHand = defineStore('ink-in-hand', () => {
  const store = useDrawingStore()
  const wanted = reactive({ drawing: '', fill: '', line: '' })
  const inks = computed(() => store.drawing?.inks ?? [])
  const known = (id: string): string | null =>
    wanted.drawing === store.drawing?.id && inks.value.some((i) => i.id === id) ? id : null
  /** What is poured: where nothing was taken up, the first ink after that of the lines. */
  const id = computed(() => known(wanted.fill) ?? inks.value[1]?.id ?? inks.value[0]?.id ?? 'black')
  const lineInk = computed(() => known(wanted.line) ?? inks.value[0]?.id ?? 'black')

  function keep(change: Partial<typeof wanted>): void {
    if (!store.drawing) return
    if (wanted.drawing !== store.drawing.id) Object.assign(wanted, { drawing: store.drawing.id, fill: '', line: '' })
    Object.assign(wanted, change)
  }
  const take = (ink: string): void => keep({ fill: ink })
  const takeForLines = (ink: string): void => keep({ line: ink })

  /** The next ink of the palette, or the one before. */
  function step(by: 1 | -1): void {
    const n = inks.value.length
    const at = inks.value.findIndex((i) => i.id === id.value)
    if (n) take(inks.value[(at + by + n) % n]!.id)
  }

  return { id, lineInk, take, takeForLines, step }
})
