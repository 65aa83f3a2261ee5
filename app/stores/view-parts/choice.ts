import { computed, shallowRef } from 'vue'
import type { NodeRef, StopRef } from '~/instruments/worktop'

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
  /** Chosen islands of the shapes, by their keys. */
  const islands = shallowRef<readonly string[]>([])
  /** A place on a line (0..1) under the pointer, on the canvas or in the weight graph. */
  const place = shallowRef<{ line: string; at: number } | null>(null)

  function select(ids: readonly string[]): void {
    selection.value = [...ids]
    nodes.value = nodes.value.filter((n) => ids.includes(n.line))
    if (stops.value.some((s) => !ids.includes(s.line))) stops.value = stops.value.filter((s) => ids.includes(s.line))
  }

  function reset(): void {
    for (const list of [selection, solids, islands]) list.value = []
    nodes.value = []
    stops.value = []
    place.value = null
  }

  return { selection, solids, nodes, stops, stop, islands, place, select, reset }
}
