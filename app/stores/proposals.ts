import { proxy, wrap } from 'comlink'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Crop } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { seenLines } from '#core/model/queries'
import { fromShares, toShares } from '#core/sketch/sketch-place'
import { boxOfPoints } from '#core/geometry/bounds'
import { mapPath } from '#core/geometry/path'
import { underLines } from '#core/sketch/under-lines'
import type { Offer } from '~/instruments/offer'
import { sourceOf } from '~/workers/read-picture'
import type { SketchWorker } from '~/workers/sketch.worker'
import { useDrawingStore } from './drawing'
import { useKeysStore } from './keys'
import { topSketch } from '#core/model/find'
import { useStudioStore } from './studio'
import { useViewStore } from './view'

/** Proposals within so many mm of lines that were drawn lie under these, at the final size. */
const UNDER = 0.6

/** Lines that were found in the sketch of the open drawing, until a line lies there or they are swept away. */
export const useProposalsStore = defineStore('proposals', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const found = shallowRef<{ drawing: string; offers: readonly Offer[] } | null>(null)

  const sketch = computed(() => store.drawing && topSketch(store.drawing))
  const looked = computed(() => found.value?.drawing === store.drawing?.id)
  const offers = computed(() => (looked.value ? found.value!.offers : []))
  /** Those where no line lies yet. */
  const all = computed(() => {
    if (!offers.value.length || view.instrument !== 'propose') return offers.value
    const under = underLines(
      offers.value,
      seenLines(store.drawing!, null).map((l) => l.path),
      UNDER * store.drawing!.page.pxPerMm,
    )
    return under.size ? offers.value.filter((o) => !under.has(o)) : offers.value
  })
  /** Those that are plain enough. */
  const shown = computed(() => all.value.filter((o) => o.confidence >= preferences.proposals.from))
  /** How thick the pencil of all of them is, px of the page: what is as thick gets the next size. */
  const usual = computed(() => {
    const means = offers.value.map((o) => o.thickness.mean).sort((a, b) => a - b)
    return means[means.length >> 1] || 1
  })

  function drop(gone: ReadonlySet<Offer>): void {
    if (found.value) found.value = { ...found.value, offers: found.value.offers.filter((o) => !gone.has(o)) }
  }

  /** Looks for lines in the topmost sketch, or within two corners of a box on it, in a worker; tells how far it is, and can be stopped. */
  async function find(box: readonly [Vec, Vec] | null = null): Promise<void> {
    const of = sketch.value
    const drawing = store.drawing?.id
    if (!of)
      store.notice = `There is no sketch in sight. Bring one in under ${useKeysStore().titled('Sketch', 'pass sketch')}, or show its layer.`
    if (!of || !drawing || view.work) return
    const part = box && partWithin(of, box)
    if (box && !part) {
      store.notice = 'That box lies beside the sketch. Draw it on the pencil.'
      return
    }
    const thread = new Worker(new URL('../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    let stop = (): void => undefined
    const stopped = new Promise<null>((resolve) => (stop = () => resolve(null)))
    const work = view.beginWork('Finding lines in the sketch', stop)
    work.tell(0)
    try {
      const { merge, mergeBy, faint } = preferences.proposals
      const answer = await Promise.race([
        wrap<SketchWorker>(thread).propose(
          sourceOf(of),
          { ...(mergeBy === 'hand' && { merge }), faint, ...(part && { part }) },
          proxy(work.tell),
        ),
        stopped,
      ])
      if (!answer || store.drawing?.id !== drawing) return
      if ('problem' in answer) {
        store.notice = answer.problem
        return
      }
      const grain = of.width / answer.width
      const onPage = (p: Vec): Vec => fromShares(of, { x: p.x / answer.width, y: p.y / answer.height })
      const fresh = answer.proposals.map(({ path, confidence, thickness }): Offer => ({
        path: mapPath(path, onPage),
        confidence,
        thickness: { ...thickness, mean: thickness.mean * grain },
      }))
      // What was found elsewhere before stays; in the box what is found now takes its place.
      const kept = box ? offers.value.filter((o) => !o.path.nodes.every((n) => isWithin(n.at, box))) : []
      const under = underLines(
        fresh,
        kept.map((o) => o.path),
        UNDER * store.drawing.page.pxPerMm,
      )
      found.value = { drawing, offers: [...kept, ...fresh.filter((o) => !under.has(o))] }
      if (!fresh.length)
        store.notice = box
          ? 'No lines were found in this box. Let fainter ones count, or draw over it by hand.'
          : 'No lines were found in this sketch. Let fainter ones count, or draw over it by hand.'
    } finally {
      thread.terminate()
      work.end()
    }
  }

  return { all, shown, looked, sketch, usual, find, drop }
})

/** What of a sketch lies in a box of the page, as shares of what is seen of it; null where nothing does. */
function partWithin(of: Parameters<typeof toShares>[0], [a, b]: readonly [Vec, Vec]): Crop | null {
  const { minX, minY, maxX, maxY } = boxOfPoints(
    [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }].map((p) => toShares(of, p)),
  )
  const [x, y] = [Math.max(0, minX), Math.max(0, minY)]
  const [width, height] = [Math.min(1, maxX) - x, Math.min(1, maxY) - y]
  return width > 0 && height > 0 ? { x, y, width, height } : null
}

const isWithin = (p: Vec, [a, b]: readonly [Vec, Vec]): boolean =>
  p.x >= Math.min(a.x, b.x) && p.x <= Math.max(a.x, b.x) && p.y >= Math.min(a.y, b.y) && p.y <= Math.max(a.y, b.y)
