import { useLocalStorage } from '@vueuse/core'
import type { Ref } from 'vue'
import { computed, ref } from 'vue'
import type { DrawingCard } from '#shared/api'

/** In what order drawings lie on the Desk. */
export const ORDERS = [
  { id: 'changed', title: 'Changed last' },
  { id: 'name', title: 'By name' },
  { id: 'lines', title: 'Most lines' },
] as const

type Order = (typeof ORDERS)[number]['id']

const byName = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

const BEFORE: Record<Order, (a: DrawingCard, b: DrawingCard) => number> = {
  changed: (a, b) => (a.updatedAt < b.updatedAt ? 1 : a.updatedAt > b.updatedAt ? -1 : 0),
  name: (a, b) => byName.compare(a.name, b.name),
  lines: (a, b) => b.lineCount - a.lineCount,
}

/** Letters alike but for accents and case. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/** The drawings that are looked for, in the order that was chosen last. */
export function useDeskList(cards: Readonly<Ref<readonly DrawingCard[] | null>>) {
  const sought = ref('')
  const order = useLocalStorage<Order>('bellatrait:desk-order', 'changed')
  const words = computed(() => plain(sought.value).split(/\s+/).filter(Boolean))
  const shown = computed(() => {
    const all = (cards.value ?? []).filter((c) => words.value.every((w) => plain(c.name).includes(w)))
    return all.sort(BEFORE[order.value] ?? BEFORE.changed)
  })
  return { sought, order, shown }
}
