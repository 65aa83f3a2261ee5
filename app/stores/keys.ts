import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useRemembered } from './remembered'

/** Keys that can be changed, by what they are at first, and what they do. */
export const CHANGEABLE: readonly { key: string; does: string }[] = [
  { key: '1', does: 'Sketch' },
  { key: '2', does: 'Lines' },
  { key: '3', does: 'Weight' },
  { key: '4', does: 'Shapes' },
  { key: '5', does: 'Fill' },
  { key: '6', does: 'Deliver' },
  { key: 'q', does: 'First instrument' },
  { key: 'w', does: 'Second instrument' },
  { key: 'e', does: 'Third instrument' },
  { key: 'r', does: 'Fourth instrument' },
  { key: 't', does: 'Fifth instrument' },
  { key: 'y', does: 'Sixth instrument' },
  { key: '0', does: 'Whole page' },
  { key: '9', does: 'Final size' },
  { key: 'x', does: 'Ink or bare centrelines' },
  { key: 'g', does: 'Next thing to look at' },
  { key: 'm', does: 'See mirrored' },
  { key: 'h', does: 'Hide the sketch' },
  { key: 'b', does: 'Before this visit' },
  { key: 'n', does: 'Next profile' },
  { key: 'f', does: 'Flip' },
  { key: '[', does: 'Lighter' },
  { key: ']', does: 'Heavier' },
  { key: ',', does: 'Turn the page left' },
  { key: '.', does: 'Turn the page right' },
  { key: '/', does: 'Upright' },
  { key: 'j', does: 'Next line' },
  { key: 'k', does: 'Previous line' },
  { key: 'p', does: 'Hand that keys move' },
  { key: 'o', does: 'Hand to the next mark' },
  { key: 's', does: 'To the settings' },
  { key: 'u', does: 'One up' },
  { key: 'd', does: 'One down' },
]

const KNOWN = new Set(CHANGEABLE.map((c) => c.key))

/** Keys of one's own: which key stands for which at first. */
export const useKeysStore = defineStore('keys', () => {
  const kept = useRemembered<{ own: { was: string; is: string }[] }>('bellatrait:keys', { own: [] })
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

  return { own, keyOf, meaningOf, change, reset }
})
