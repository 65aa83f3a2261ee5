import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { NamedId } from '~/commands/commands'
import { CHANGEABLE, COMMANDS, written } from '~/commands/commands'
import { useRemembered } from './remembered'

const KNOWN = new Set(CHANGEABLE.map((c) => c.key))

/** Keys of one's own: which key stands for which at first. */
export const useKeysStore = defineStore('keys', () => {
  const kept = useRemembered<{ own: { was: string; is: string }[] }>('keys', { own: [] })
  const own = computed(() => new Map(kept.own.filter((k) => KNOWN.has(k.was)).map((k) => [k.was, k.is])))
  const meant = computed(() => new Map([...own.value].map(([was, is]) => [is, was])))

  /** The key that does now what this one did at first. */
  const keyOf = (was: string): string => own.value.get(was) ?? was

  /** The key at first that a pressed one stands for; null for one that was given away and stands for nothing. */
  function meaningOf(pressed: string): string | null {
    return meant.value.get(pressed) ?? (own.value.has(pressed) ? null : pressed)
  }

  /** Gives what `was` does to another key. What that key did goes to the one that is free now; answers what that is, or null. */
  function change(was: string, to: string): string | null {
    const before = keyOf(was)
    if (before === to) return null
    const other = CHANGEABLE.find((c) => c.key !== was && keyOf(c.key) === to)
    const next = new Map(own.value)
    next.set(was, to)
    if (other) next.set(other.key, before)
    kept.own = [...next].filter(([a, b]) => a !== b).map(([a, b]) => ({ was: a, is: b }))
    return other?.does ?? null
  }

  const reset = (): void => void (kept.own = [])

  /** Words with the key that does it now: "Flip ends (F)". */
  const titled = (title: string, id: NamedId): string => `${title} (${writtenKey(id)})`

  /** The key alone, as it is written. */
  const writtenKey = (id: NamedId): string =>
    written(
      COMMANDS.find((c) => c.id === id)!,
      keyOf,
    )

  return { own, keyOf, meaningOf, change, reset, titled, writtenKey }
})
