import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Rule } from '#core/repetition/images'
import { rulesOf } from '#core/repetition/images'
import { changeRule } from '#core/repetition/rules'
import { setFree } from '#core/repetition/set-free'
import { useDrawingStore } from './drawing'

/** What is mirrored or repeated in the open drawing, and which rule for it is in hand. */
export const useCopiesStore = defineStore('copies', () => {
  const store = useDrawingStore()
  const taken = ref<string | null>(null)

  const rules = computed(() => (store.drawing ? rulesOf(store.drawing) : []))
  const inHand = computed(() => rules.value.find((r) => r.id === taken.value) ?? rules.value.at(-1) ?? null)

  const change = (label: string, by: (rule: Rule) => void): void => {
    const { value: rule } = inHand
    if (rule) store.edit(label, (draft) => changeRule(draft, rule.id, by))
  }

  /** The rule in hand goes, with all that it made. */
  function takeAway(): void {
    const { value: rule } = inHand
    if (rule)
      store.edit(rule.kind === 'mirror' ? 'Mirror no more' : 'Repeat no more', (draft) =>
        changeRule(draft, rule.id, null),
      )
  }

  /** What a rule makes becomes lines of their own: all of it, or one standing. */
  function free(id: string, only?: number): void {
    const rule = rules.value.find((r) => r.id === id)
    if (!rule || !store.drawing) return
    const next = setFree(store.drawing, rule, only)
    store.edit(only === undefined ? 'Set all free' : 'Set one free', (draft) => {
      Object.assign(draft, next)
    })
  }

  return { taken, rules, inHand, change, takeAway, free }
})
