import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { TraceSample } from '#core/model/model'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { useStudioStore } from './studio'

export interface PracticeTrace {
  id: string
  title: string
  samples: TraceSample[]
}

/** The traces that ship with the application. */
const SHIPPED = [
  { id: 'radish-leaf', title: 'Radish leaf' },
  { id: 'radish-root', title: 'Radish root' },
  { id: 'pod', title: 'Pod' },
  { id: 'tendril', title: 'Tendril' },
  { id: 'snail-shell', title: 'Snail shell' },
  { id: 'snail-back', title: 'Snail back' },
  { id: 'leaf-vein', title: 'Leaf vein' },
  { id: 'horn', title: 'Horn' },
]

/** Recorded pen traces that stand in for a tablet. */
export const usePracticeStore = defineStore('practice', () => {
  const traces = shallowRef<PracticeTrace[]>([])
  const failure = shallowRef('')
  const studio = useStudioStore()
  let loading: Promise<void> | null = null

  const chosen = computed(
    () => traces.value.find((t) => t.id === studio.preferences.practice.trace) ?? traces.value[0] ?? null,
  )

  async function fetchShipped(): Promise<void> {
    failure.value = ''
    try {
      const shipped = await Promise.all(
        SHIPPED.map(async ({ id, title }) => {
          const response = await fetch(`/practice/${id}.inkml`)
          if (!response.ok) throw new Error()
          return { id, title, samples: parseInkml(await response.text())[0]! }
        }),
      )
      traces.value = [...shipped, ...traces.value]
    } catch {
      loading = null
      failure.value =
        'The practice traces could not be fetched. Check that the server runs, then take up the practice pen again.'
    }
  }

  /** Fetches the shipped traces, once. */
  function load(): Promise<void> {
    return (loading ??= fetchShipped())
  }

  /** Adds the traces of a file to those that can be played, and chooses the first. */
  function add(name: string, all: readonly TraceSample[][]): void {
    const long = all.filter((samples) => samples.length > 1)
    const fresh = long.map((samples, i) => ({
      id: `${name} ${i + 1}`,
      title: long.length > 1 ? `${name} ${i + 1}` : name,
      samples,
    }))
    traces.value = [...traces.value.filter((t) => !fresh.some((f) => f.id === t.id)), ...fresh]
    if (fresh[0]) studio.preferences.practice.trace = fresh[0].id
  }

  return { traces, failure, chosen, load, add }
})
