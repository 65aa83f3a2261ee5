import type { ShapesResult } from '#core/ink/open-ink'
import type { Drawing } from '#core/model/model'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

/** What cannot be worked out is told once, by its place. */
export function tellsFailed(): (drawing: Drawing, failed: ShapesResult['failed']) => void {
  const store = useDrawingStore()
  const view = useViewStore()
  let failedBefore = new Set<string>()
  return (drawing, failed) => {
    const [first, ...more] = failed.filter((f) => !failedBefore.has(f.id))
    failedBefore = new Set(failed.map((f) => f.id))
    if (!first) return
    const layer = drawing.layers.find((l) => l.items.some((i) => 'id' in i && i.id === first.id))
    const place = layer ? layer.items.findIndex((i) => 'id' in i && i.id === first.id) + 1 : 0
    const others = more.length ? ` So it is with ${more.length} more.` : ''
    store.tell(`Number ${place} on "${layer?.name ?? ''}": ${first.message}${others}`, [
      {
        title: more.length ? 'Choose them' : 'Choose it',
        run: () => (view.selection = [first, ...more].map((f) => f.id)),
      },
    ])
  }
}
