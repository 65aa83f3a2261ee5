import type { ComputedRef } from 'vue'
import { computed } from 'vue'
import { differenceOf } from '#core/model/inks'
import { inksSideBySide } from '#core/ink/fills/inks-side-by-side'
import type { Ink } from '#core/model/model'
import { useDrawingStore } from '~/stores/drawing'

/** Inks that differ by less are hard to tell apart side by side, CIE 1976. */
const WEAK = 10
/** So many inks are compared with each other. */
const MOST = 60

interface InkWarnings {
  /** In a few words; empty where there is nothing to say. */
  short: ComputedRef<string>
  inWords: ComputedRef<string>
}

/** Inks of the drawing that can hardly be told apart: those that lie side by side before those that might. */
export function useInkWarnings(): InkWarnings {
  const store = useDrawingStore()
  const isWeak = (a: Ink, b: Ink): boolean => differenceOf(a.colour, b.colour) < WEAK
  const named = (pairs: readonly [Ink, Ink][]): string => pairs.map(([a, b]) => `${a.name} and ${b.name}`).join('; ')
  const beside = computed(() => {
    const inks = new Map(store.drawing!.inks.map((i) => [i.id, i]))
    return inksSideBySide(store.drawing!).flatMap(([a, b]): [Ink, Ink][] => {
      const [p, q] = [inks.get(a), inks.get(b)]
      return p && q && isWeak(p, q) ? [[p, q]] : []
    })
  })
  const alike = computed(() => {
    const inks = store.drawing!.inks.slice(0, MOST)
    return inks.flatMap((a, i) => inks.slice(i + 1).flatMap((b): [Ink, Ink][] => (isWeak(a, b) ? [[a, b]] : [])))
  })
  const count = (n: number): string => (n === 1 ? 'Two inks' : `${n} pairs of inks`)
  return {
    short: computed(() =>
      beside.value.length
        ? `${count(beside.value.length)} lie side by side and are hard to tell apart`
        : alike.value.length
          ? `${count(alike.value.length)} hard to tell apart`
          : '',
    ),
    inWords: computed(() => named(beside.value.length ? beside.value : alike.value)),
  }
}
