import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Seat } from '#shared/seats'
import { takeSeat } from '~/network/belongings'
import { addSeat, changeSeat, listSeats, removeSeat } from '~/network/seat-api'
import { seatTaken } from '~/network/seat-taken'

/** Colours that tell seats apart, on paper and as a dot of a few pixels. */
const SEAT_COLOURS = [
  '#7a2b58',
  '#2f6f8f',
  '#b9690f',
  '#4a6a3a',
  '#a2352a',
  '#5a4fa3',
  '#137a6d',
  '#8a5a2b',
  '#c0527e',
  '#46505a',
]

/** Seats at this Desk, and whose it is here. With one seat there is nothing to be seen of it. */
export const useSeatsStore = defineStore('seats', () => {
  const all = shallowRef<readonly Seat[]>([])
  const taken = ref(seatTaken())
  const problem = ref('')

  const several = computed(() => all.value.length > 1)
  const mine = computed(() => all.value.find((s) => s.id === taken.value) ?? null)
  const of = computed(() => new Map(all.value.map((s) => [s.id, s])))

  /** A colour that no seat has, as long as there is one. */
  const freeColour = computed(
    () =>
      SEAT_COLOURS.find((c) => !all.value.some((s) => s.colour === c)) ??
      SEAT_COLOURS[all.value.length % SEAT_COLOURS.length]!,
  )

  async function load(): Promise<void> {
    all.value = await listSeats()
  }

  /** Does what changes seats; answers whether it was done. */
  async function change(work: () => Promise<unknown>): Promise<boolean> {
    problem.value = ''
    try {
      await work()
      await load()
      return true
    } catch (e) {
      problem.value = (e as Error).message
      return false
    }
  }

  return {
    all,
    taken,
    problem,
    several,
    mine,
    of,
    freeColour,
    load,
    add: (name: string, colour: string) => change(() => addSeat(name, colour)),
    alter: (id: string, to: { name?: string; colour?: string }) => change(() => changeSeat(id, to)),
    remove: (id: string) => change(() => removeSeat(id)),
    take: (id: string) => takeSeat(id),
  }
})
