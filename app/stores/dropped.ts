import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { PassName } from '~/catalogue/passes'
import { useDrawingStore } from './drawing'

/** What was under way when it was dropped, and with what. */
export interface Dropped {
  pass: PassName
  instrument: string
  laid: unknown
  /** Taken up it is a step at once: not where steps that were undone would be lost by it. */
  isStep: boolean
}

/** So many are kept, those dropped last. */
const MOST = 20

/** Lines that were dropped while they were under way: to undo, dropping one is a step like any other. */
export const useDroppedStore = defineStore('dropped', () => {
  const drawing = useDrawingStore()
  /** Each with the step of the history that was the last one then. */
  const all = shallowRef<readonly (Dropped & { of: string; after: string | null })[]>([])
  const last = (): string | null => drawing.history.undo.at(-1)?.id ?? null
  const next = computed(() => {
    const [of, after] = [drawing.drawing?.id, last()]
    const isOver = drawing.history.redo.length > 0
    return all.value.findLast((d) => d.of === of && d.after === after && !(d.isStep && isOver)) ?? null
  })

  /** What undo brought back last, and the step after which that was. */
  const back = shallowRef<(Dropped & { of: string; after: string | null }) | null>(null)

  function drop(dropped: Dropped): void {
    const of = drawing.drawing!.id
    back.value = null
    all.value = [...all.value.filter((d) => d.of === of), { ...dropped, of, after: last() }].slice(-MOST)
  }

  /** What undo brings back now: what was dropped since the last step. */
  function take(): Dropped | null {
    const taken = next.value
    if (taken) all.value = all.value.filter((d) => d !== taken)
    if (taken) back.value = taken
    return taken
  }

  /** What redo drops again now: what undo has just brought back. */
  const again = computed(() => {
    const was = back.value
    return was && was.of === drawing.drawing?.id && was.after === last() ? was : null
  })

  return { drop, take, again, isNext: computed(() => next.value !== null) }
})
