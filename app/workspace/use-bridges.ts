import { useDebounceFn } from '@vueuse/core'
import type { ShallowRef } from 'vue'
import { shallowRef, watch } from 'vue'
import type { Path } from '#core/geometry/path'
import { useDrawingStore } from '~/stores/drawing'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { Hang } from '~/workers/geometry-thread'
import type { Ink } from './use-ink'

/** Bridges are looked for once the hand has rested so long, ms. */
const REST = 60

/** What bridges the gaps of the drawing while it is filled. */
export function useBridges(ink: Ink): ShallowRef<readonly Path[]> {
  const store = useDrawingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const paths = shallowRef<readonly Path[]>([])

  const ask = useDebounceFn(async () => {
    const { drawing } = store
    if (!drawing || view.pass !== 'fill') {
      paths.value = []
      return
    }
    try {
      const came = await ink.session.ask(drawing, 'bridges', preferences.fill.gap * drawing.page.pxPerMm)
      if (store.drawing?.id === drawing.id && view.pass === 'fill') paths.value = came
    } catch (e) {
      if (!(e instanceof Hang)) throw e
    }
  }, REST)

  watch([() => store.drawing, () => view.pass, () => preferences.fill.gap], () => void ask(), { immediate: true })
  return paths
}
