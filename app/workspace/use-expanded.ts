import type { ShallowRef } from 'vue'
import { shallowRef, watch } from 'vue'
import type { Path } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'
import { Hang } from '~/workers/geometry-thread'
import { chosenAmong } from './islands'
import type { Ink } from './use-ink'

/** The outlines of shapes as they were before they were simplified, of the chosen islands or of all, while they are to be seen. */
export function useExpanded(ink: Ink): ShallowRef<readonly Path[]> {
  const store = useDrawingStore()
  const view = useViewStore()
  const paths = shallowRef<readonly Path[]>([])

  async function ask(): Promise<void> {
    const { drawing } = store
    const result = ink.shapes.value
    if (!drawing || !result || !view.compared || !view.showsShapes || !ink.upToDate.value) {
      paths.value = []
      return
    }
    const chosen = view.islands.length ? chosenAmong(ink.islands(), view.islands) : []
    const all = result.shapes.map((s): [string, readonly number[]] => [s.id, [...s.contours.keys()]])
    try {
      const came = await ink.session.ask(
        drawing,
        'originals',
        chosen.length ? chosen.map((i): [string, readonly number[]] => [i.shape.id, i.places]) : all,
      )
      if (ink.shapes.value === result && view.compared) paths.value = came
    } catch (e) {
      if (!(e instanceof Hang)) throw e
    }
  }

  watch([() => view.compared, () => view.islands, ink.shapes, () => view.showsShapes, ink.upToDate], () => void ask())
  return paths
}
