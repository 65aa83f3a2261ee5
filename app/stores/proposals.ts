import { proxy, wrap } from 'comlink'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Path, Sketch, Vec } from '#core/drawing/model'
import { mapPath } from '#core/geometry/path'
import { rotate } from '#core/geometry/point'
import { sourceOf } from '~/workers/read-picture'
import type { SketchWorker } from '~/workers/sketch.worker'
import { useDrawingStore } from './drawing'
import { topSketch } from './find'
import { useStudioStore } from './studio'
import { useViewStore } from './view'

/** A line found in a sketch, px of the page. */
export interface Offer {
  path: Path
  /** 0..1 */
  confidence: number
}

/** Lines that were found in the sketch of the open drawing, until they are taken or swept away. */
export const useProposalsStore = defineStore('proposals', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const found = shallowRef<{ drawing: string; offers: readonly Offer[] } | null>(null)

  const sketch = computed(() => (store.drawing && topSketch(store.drawing)))
  const all = computed(() => (found.value?.drawing === store.drawing?.id ? (found.value?.offers ?? []) : []))
  /** Those that are plain enough. */
  const shown = computed(() => all.value.filter((o) => o.confidence >= preferences.proposals.from))
  const looked = computed(() => found.value?.drawing === store.drawing?.id)

  function drop(gone: ReadonlySet<Offer>): void {
    if (found.value) found.value = { ...found.value, offers: found.value.offers.filter((o) => !gone.has(o)) }
  }

  /** Looks for lines in the topmost sketch, in a worker; tells how far it is, and can be stopped. */
  async function find(): Promise<void> {
    const of = sketch.value
    const drawing = store.drawing?.id
    if (!of || !drawing || view.work) return
    const thread = new Worker(new URL('../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    let stop = (): void => undefined
    const stopped = new Promise<null>((resolve) => (stop = () => resolve(null)))
    const tell = (share: number): void => void (view.work = { what: 'Finding lines in the sketch', share, stop })
    tell(0)
    try {
      const { merge, faint } = preferences.proposals
      const answer = await Promise.race([wrap<SketchWorker>(thread).propose(sourceOf(of), { merge, faint }, proxy(tell)), stopped])
      if (!answer || store.drawing?.id !== drawing) return
      if ('problem' in answer) {
        store.notice = answer.problem
        return
      }
      const place = onPage(of, answer)
      found.value = { drawing, offers: answer.proposals.map(({ path, confidence }) => ({ path: mapPath(path, place), confidence })) }
      if (!answer.proposals.length) store.notice = 'No lines were found in this sketch. Let fainter ones count, or draw over it by hand.'
    } finally {
      thread.terminate()
      view.work = null
    }
  }

  return { all, shown, looked, sketch, find, drop }
})

/** From a picture to the page: as its sketch lies there, turned about its first corner. */
function onPage({ x, y, width, height, angle }: Sketch, picture: { width: number; height: number }): (p: Vec) => Vec {
  const a = (angle * Math.PI) / 180
  return (p) => {
    const q = rotate({ x: (p.x / picture.width) * width, y: (p.y / picture.height) * height }, a)
    return { x: x + q.x, y: y + q.y }
  }
}
