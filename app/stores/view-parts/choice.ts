import { computed, ref, shallowRef } from 'vue'
import type { NodeRef, StopRef, StretchRef } from '~/instruments/worktop'

/** What is chosen: each list is another when something in it changes. */
export function useChoice() {
  /** Ids of lines. */
  const selection = shallowRef<readonly string[]>([])
  /** Chosen shapes of layers. */
  const solids = shallowRef<readonly string[]>([])
  const nodes = shallowRef<readonly NodeRef[]>([])
  /** Chosen width stops, the last chosen last. */
  const stops = shallowRef<readonly StopRef[]>([])
  const stop = computed({
    get: () => stops.value.at(-1) ?? null,
    set: (one: StopRef | null) => (stops.value = one ? [one] : []),
  })
  /** The stretch of a line that is marked to be weighed. */
  const stretch = shallowRef<StretchRef | null>(null)
  /** Chosen islands of the shapes, by their keys. */
  const islands = shallowRef<readonly string[]>([])
  /** A place on a line (0..1) under the pointer, on the canvas or in the weight graph. */
  const place = shallowRef<{ line: string; at: number } | null>(null)

  /** The chosen line was just laid by hand: what is set is for the next one, until the last is asked for. */
  const laid = ref(false)

  function select(ids: readonly string[], justLaid = false): void {
    laid.value = justLaid
    selection.value = [...ids]
    if (stretch.value && !ids.includes(stretch.value.line)) stretch.value = null
    nodes.value = nodes.value.filter((n) => ids.includes(n.line))
    if (stops.value.some((s) => !ids.includes(s.line))) stops.value = stops.value.filter((s) => ids.includes(s.line))
  }

  function reset(): void {
    for (const list of [selection, solids, islands]) list.value = []
    nodes.value = []
    stops.value = []
    place.value = null
    laid.value = false
    stretch.value = null
  }

  return { selection, laid, solids, nodes, stops, stop, stretch, islands, place, select, reset }
}
