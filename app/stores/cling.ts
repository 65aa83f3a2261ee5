import { wrap } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Crests } from '#core/sketch/crests'
import { PencilMap } from '#core/sketch/pencil-map'
import { sourceOf } from '~/workers/read-picture'
import type { SketchWorker } from '~/workers/sketch.worker'
import { useDrawingStore } from './drawing'
import { topSketch } from '#core/model/find'
import { useStudioStore } from './studio'
import { useViewStore } from './view'

/** The pencil that lines cling to, and are judged by: that of the topmost sketch in sight, read in a worker once it is asked for. */
export const useClingStore = defineStore('cling', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const sketch = computed(() => store.drawing && topSketch(store.drawing))
  const isWanted = computed(
    () => view.halo || ((preferences.cling.strength > 0 || view.instrument === 'settle') && view.pass === 'lines'),
  )
  const wanted = computed(() =>
    isWanted.value && sketch.value ? `${preferences.cling.to} ${JSON.stringify(sourceOf(sketch.value))}` : null,
  )
  const read = shallowRef<{ key: string; crests: Crests } | null>(null)
  /** What is being read. */
  const asked = ref<string | null>(null)

  /** The pencil where it lies on the page; null while there is none, or it is being read. */
  const pencil = computed(() =>
    sketch.value && read.value?.key === wanted.value ? new PencilMap(read.value!.crests, sketch.value) : null,
  )
  const busy = computed(() => !!wanted.value && asked.value === wanted.value && read.value?.key !== wanted.value)

  watch(
    wanted,
    (key) => {
      if (key && key !== read.value?.key && key !== asked.value) void look(key)
    },
    { immediate: true },
  )

  async function look(key: string): Promise<void> {
    asked.value = key
    const thread = new Worker(new URL('../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    try {
      const answer = await wrap<SketchWorker>(thread).crests(sourceOf(sketch.value!), preferences.cling.to)
      if (asked.value !== key) return
      if ('problem' in answer) {
        store.notice = `Lines find no pencil in this sketch. ${answer.problem}`
        return
      }
      read.value = { key, crests: answer }
    } finally {
      thread.terminate()
      if (asked.value === key) asked.value = null
    }
  }

  return { pencil, busy, sketch }
})
