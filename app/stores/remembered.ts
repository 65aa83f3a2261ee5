import { useLocalStorage } from '@vueuse/core'
import type { Ref } from 'vue'
import { reactive, toRaw, watch } from 'vue'
import { changed, keyOf, remember } from '~/network/belongings'

/** What was remembered, with what it lacks, or holds of another kind, from the defaults. */
function filledUp<T>(defaults: T, kept: unknown): T {
  if (defaults === null) return (kept === undefined ? null : kept) as T
  if (typeof defaults !== 'object' || Array.isArray(defaults))
    return typeof kept === typeof defaults && Array.isArray(kept) === Array.isArray(defaults)
      ? (kept as T)
      : structuredClone(defaults)
  const known = (typeof kept === 'object' && kept !== null ? kept : {}) as Record<string, unknown>
  return Object.fromEntries(Object.entries(defaults).map(([k, v]) => [k, filledUp(v, known[k])])) as T
}

/**
 * Choices about a thing that belong to the seat that is taken, or to this device; what is remembered in no sensible form is
 * as in `defaults`. This browser has them at once; for a seat they are kept on the server as well.
 */
export function useRemembered<T extends object>(thing: string, defaults: T, of: 'seat' | 'device' = 'seat'): T {
  const kept: Ref<T> = useLocalStorage<T>(
    of === 'seat' ? keyOf(thing) : `bellatrait:${thing}`,
    structuredClone(defaults),
    {
      mergeDefaults: (stored) => filledUp(defaults, stored),
      // Two windows keep their own choices while they are open.
      listenToStorageChanges: false,
      // Storage that is full or closed to us costs only the remembering.
      onError: () => undefined,
    },
  )
  const choices = reactive(kept.value) as T
  if (of === 'device') return choices
  remember(thing, () => toRaw(choices) as Record<string, unknown>)
  watch(choices, () => changed(thing), { deep: true })
  return choices
}
