import type { ComputedRef } from 'vue'
import { computed } from 'vue'
import { differenceOf } from '#core/drawing/inks'
import type { Ink } from '#core/drawing/model'
import { useDrawingStore } from '~/stores/drawing'

/** Inks that differ by less are hard to tell apart side by side, CIE 1976. */
const WEAK = 10
/** So many inks are compared with each other. */
const MOST = 60

/** Pairs of inks of the drawing that can hardly be told apart. */
export function useInkWarnings(): { pairs: ComputedRef<[Ink, Ink][]>; inWords: ComputedRef<string> } {
  const store = useDrawingStore()
  const pairs = computed(() => {
    const inks = store.drawing!.inks.slice(0, MOST)
    return inks.flatMap((a, i) => inks.slice(i + 1).flatMap((b): [Ink, Ink][] => (differenceOf(a.colour, b.colour) < WEAK ? [[a, b]] : [])))
  })
  return { pairs, inWords: computed(() => pairs.value.map(([a, b]) => `${a.name} and ${b.name}`).join('; ')) }
}
