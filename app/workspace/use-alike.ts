import type { Line } from '#core/model/model'
import { openLines } from '#core/model/queries'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

const KEYS = {
  ink: (l: Line) => l.ink,
  size: (l: Line) => String(l.weight.size),
  profile: ({ weight: { stops, start, end } }: Line) => JSON.stringify([stops, start, end]),
}

/** Chooses every line that can be edited and has the same ink, size or profile as one of those chosen. */
export function useAlike(): (by: keyof typeof KEYS) => void {
  const store = useDrawingStore()
  const view = useViewStore()
  return (by) => {
    const key = KEYS[by]
    const wanted = new Set(store.lines.filter((l) => view.selection.includes(l.id)).map(key))
    view.select(
      openLines(store.drawing!, view.alone)
        .filter((l) => wanted.has(key(l)))
        .map((l) => l.id),
    )
  }
}
