import { useLocalStorage } from '@vueuse/core'
import type { Ref } from 'vue'
import { reactive } from 'vue'

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

/** Choices that this browser remembers under a key; what it remembers in no sensible form is as in `defaults`. */
export function useRemembered<T extends object>(key: string, defaults: T): T {
  const kept: Ref<T> = useLocalStorage<T>(key, structuredClone(defaults), {
    mergeDefaults: (stored) => filledUp(defaults, stored),
    // Two windows keep their own choices while they are open.
    listenToStorageChanges: false,
    // Storage that is full or closed to us costs only the remembering.
    onError: () => undefined,
  })
  return reactive(kept.value) as T
}
