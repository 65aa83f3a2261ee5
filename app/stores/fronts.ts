import { defineStore } from 'pinia'
import { computed, shallowRef, ref } from 'vue'
import type { FrontChoice } from '#core/editing/fronts'
import { castOf, decideFronts, throwFrom } from '#core/editing/fronts'
import type { Cast } from '#core/model/model'
import type { FrontsFound } from '~/workers/questions'
import { useDrawingStore } from './drawing'

/** A guess as sure as this is taken with all that are sure. */
const SURE = 0.5

const NOTHING: FrontsFound = { forms: [], pairs: [], overlaps: [] }

/** The walk through overlaps about which nothing was decided yet. */
export const useFrontsStore = defineStore('fronts', () => {
  const store = useDrawingStore()
  const found = shallowRef<FrontsFound>(NOTHING)
  const key = ref<string | null>(null)
  /** Where the walk was: what is decided about goes from the list. */
  const place = ref(0)

  /** The lines of the form that the hand took last. */
  const form = shallowRef<readonly string[] | null>(null)
  const cast = computed(() => (form.value && castOf(store.drawing?.amendments, form.value)) ?? null)

  /** What the form in hand throws; null for nothing. */
  function throws(to: Pick<Cast, 'gap' | 'width' | 'taper'> | null): void {
    const { value: lines } = form
    if (lines) store.edit(to ? 'What a form throws' : 'Throws nothing', (draft) => throwFrom(draft, lines, to))
  }

  const overlaps = computed(() => found.value.overlaps)
  const asked = computed(() => overlaps.value.find((o) => o.key === key.value) ?? null)
  const sure = computed(() => overlaps.value.filter((o) => o.guess !== null && o.sure >= SURE))
  const decided = computed(() => store.drawing?.amendments?.filter((a) => a.kind === 'front').length ?? 0)

  function note(next: FrontsFound): void {
    const was = asked.value
    found.value = next
    // What was asked about is decided: the next one there is asked about.
    if (was && !asked.value) key.value = next.overlaps[Math.min(place.value, next.overlaps.length - 1)]?.key ?? null
  }

  function step(by: 1 | -1): void {
    const all = overlaps.value
    if (!all.length) return
    const now = all.findIndex((o) => o.key === key.value)
    place.value = now < 0 ? (by > 0 ? 0 : all.length - 1) : (now + by + all.length) % all.length
    key.value = all[place.value]!.key
  }

  /** Asks about an overlap of the list. */
  function go(to: string): void {
    key.value = to
    place.value = overlaps.value.findIndex((o) => o.key === to)
  }

  /**
   * Decides about the overlap that is asked about: its first or its second form in front, or both show; false where none is
   * asked about.
   */
  function decide(which: 0 | 1 | 'both'): boolean {
    const now = asked.value
    if (!now) return false
    place.value = overlaps.value.indexOf(now)
    const [form, to] = now.forms.map((f) => found.value.forms[f]!.lines) as [string[], string[]]
    const choice: FrontChoice = which === 'both' ? 'both' : which === 0 ? 'before' : 'behind'
    store.edit(which === 'both' ? 'Both forms show' : 'In front', (draft) =>
      decideFronts(draft, [{ form, to, choice }]),
    )
    return true
  }

  /** Takes all guesses that are sure, as one step. */
  function takeSure(): void {
    const all = sure.value
    if (!all.length) return
    const linesOf = (f: number): string[] => found.value.forms[f]!.lines
    store.edit(`What lies in front, ${all.length} ${all.length === 1 ? 'time' : 'times'}`, (draft) =>
      decideFronts(
        draft,
        all.map(({ forms, guess }) => ({
          form: linesOf(forms[0]),
          to: linesOf(forms[1]),
          choice: guess === 0 ? 'before' : 'behind',
        })),
      ),
    )
  }

  function end(): void {
    key.value = null
    form.value = null
  }

  return { form, cast, throws, overlaps, asked, sure, decided, note, step, go, decide, takeSure, end }
})
