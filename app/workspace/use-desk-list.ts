import type { Ref } from 'vue'
import { computed, ref, toRefs } from 'vue'
import type { DrawingCard, Shelf } from '#shared/desk'
import type { Seat } from '#shared/seats'
import { useRemembered } from '~/stores/remembered'

/** In what order drawings lie on the Desk. */
export const ORDERS = [
  { id: 'changed', title: 'Changed last' },
  { id: 'name', title: 'By name' },
  { id: 'lines', title: 'Most lines' },
] as const

type Order = (typeof ORDERS)[number]['id']

/** What is looked at: all drawings, those on no shelf, or those on one, by its id. */
export type OnShelf = 'all' | 'none' | (string & {})

/** Whose drawings are looked at: everybody's, or those of a seat, by its id. */
export type Whose = 'all' | (string & {})

const byName = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

const BEFORE: Record<Order, (a: DrawingCard, b: DrawingCard) => number> = {
  changed: (a, b) => (a.updatedAt < b.updatedAt ? 1 : a.updatedAt > b.updatedAt ? -1 : 0),
  name: (a, b) => byName.compare(a.name, b.name),
  lines: (a, b) => b.lineCount - a.lineCount,
}

/** Letters alike but for accents and case. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()

/**
 * The drawings that are looked for, by words of their names and shelves, in the order that was chosen last: of those that
 * lie here, or of all that are somebody's.
 */
export function useDeskList(
  cards: Readonly<Ref<readonly DrawingCard[] | null>>,
  laid: Readonly<Ref<readonly DrawingCard[]>>,
  shelves: Readonly<Ref<readonly Shelf[]>>,
  seats: Readonly<Ref<readonly Seat[]>>,
) {
  const sought = ref('')
  const choices = useRemembered('desk-list', {
    order: 'changed' as Order,
    shelf: 'all' as OnShelf,
    whose: 'all' as Whose,
  })
  const { order, shelf: chosenShelf, whose: chosenWhose } = toRefs(choices)
  /** A shelf that is gone is not looked at. */
  const shelf = computed<OnShelf>({
    get: () =>
      chosenShelf.value === 'none'
        ? shelves.value.length
          ? 'none'
          : 'all'
        : shelves.value.some((s) => s.id === chosenShelf.value)
          ? chosenShelf.value
          : 'all',
    set: (v) => (chosenShelf.value = v),
  })
  /** With one seat, everything is looked at. */
  const whose = computed<Whose>({
    get: () =>
      seats.value.length > 1 && seats.value.some((s) => s.id === chosenWhose.value) ? chosenWhose.value : 'all',
    set: (v) => (chosenWhose.value = v),
  })
  const nameOfSeat = computed(() => new Map(seats.value.length > 1 ? seats.value.map((s) => [s.id, s.name]) : []))
  const words = computed(() => plain(sought.value).split(/\s+/).filter(Boolean))
  const nameOfShelf = computed(() => new Map(shelves.value.map((s) => [s.id, s.name])))
  const lies = (c: DrawingCard): boolean =>
    shelf.value === 'all' || (shelf.value === 'none' ? c.shelf === null : c.shelf === shelf.value)
  const shown = computed(() => {
    const all = (whose.value === 'all' ? laid.value : (cards.value ?? [])).filter((c) => {
      const text = plain(
        [c.name, nameOfShelf.value.get(c.shelf ?? ''), nameOfSeat.value.get(c.seat ?? '')].filter(Boolean).join(' '),
      )
      return lies(c) && (whose.value === 'all' || c.seat === whose.value) && words.value.every((w) => text.includes(w))
    })
    return all.sort(BEFORE[order.value] ?? BEFORE.changed)
  })
  return { sought, order, shelf, whose, shown, nameOfShelf }
}
