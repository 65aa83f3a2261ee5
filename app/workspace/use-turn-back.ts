import { proxy, wrap } from 'comlink'
import { computed, toRaw } from 'vue'
import { perUsualPx } from '#core/model/fineness'
import type { Shape } from '#core/model/model'
import { openSolids } from '#core/model/queries'
import { turnBack } from '#core/from-outlines/turn-back'
import { short } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import type { TurnBackWorker } from '~/workers/turn-back.worker'

/** How far the ink of a line may lie from the outline that it was turned back from, px of the usual page. */
const TOLERANCE = 0.3

/** Outlines of strokes become lines again, which can be bent and weighed. */
export function useTurnBack() {
  const store = useDrawingStore()
  const view = useViewStore()

  const solids = computed<Shape[]>(() => {
    const chosen = new Set(view.solids)
    return chosen.size && store.drawing ? openSolids(store.drawing, view.alone).filter((s) => chosen.has(s.id)) : []
  })

  async function turn(): Promise<void> {
    const drawing = store.drawing!
    const tolerance = TOLERANCE * perUsualPx(drawing.page)
    const thread = new Worker(new URL('../workers/turn-back.worker.ts', import.meta.url), { type: 'module' })
    let stop = (): void => undefined
    const stopped = new Promise<null>((resolve) => (stop = () => resolve(null)))
    const work = view.beginWork('Turning outlines into lines', stop)
    work.tell(0)
    try {
      const turned = await Promise.race([
        wrap<TurnBackWorker>(thread).turn(toRaw(solids.value), tolerance, proxy(work.tell)),
        stopped,
      ])
      if (!turned) return
      const done = turned.filter((t) => t.lines)
      const rest = turned.length - done.length
      if (done.length) {
        let made: string[] = []
        store.edit(
          done.length === 1 ? 'Outline into a line' : 'Outlines into lines',
          (draft) => (made = turnBack(draft, new Map(done.map((t) => [t.id, t.lines!])))),
        )
        view.solids = view.solids.filter((id) => !done.some((t) => t.id === id))
        view.select(made)
        view.activeLayer =
          store.drawing!.layers.find((l) => l.items.some((i) => i.id === made[0]))?.id ?? view.activeLayer
      }
      store.notice = inWords(done.length, rest, Math.max(0, ...done.map((t) => t.deviation)))
    } catch (e) {
      store.notice = `The outlines stayed as they are: ${(e as Error).message}`
    } finally {
      thread.terminate()
      work.end()
    }
  }

  return { solids, turn }
}

function inWords(done: number, rest: number, deviation: number): string {
  const kept = rest
    ? ` ${rest} ${rest === 1 ? 'is no stroke and stays as it is' : 'are no strokes and stay as they are'}.`
    : ''
  if (!done)
    return rest === 1
      ? 'This is no outline of a stroke: it stays as it is.'
      : 'These are no outlines of strokes: they stay as they are.'
  return `${done} ${done === 1 ? 'outline is a line' : 'outlines are lines'} again, at most ${short(deviation, 2)} px off.${kept}`
}
