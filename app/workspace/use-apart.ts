import { newId } from '#core/new-id'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { findLine } from '#core/model/find'

/** Lines that are kept apart unite with each other, and with nothing else. */
export function useApart(): {
  isApart: (ids: readonly string[]) => boolean
  keep: (ids: readonly string[]) => void
  unite: (ids: readonly string[]) => void
} {
  const store = useDrawingStore()
  return {
    isApart: (ids) => ids.length > 0 && ids.every((id) => !!findLine(store.drawing!, id)?.line.apart),
    keep: (ids) => {
      const apart = newId()
      store.edit('Keep apart', (draft) => void changeLines(draft, ids, (l) => void (l.apart = apart)))
    },
    unite: (ids) =>
      store.edit('Unite with the rest', (draft) => void changeLines(draft, ids, (l) => void delete l.apart)),
  }
}
