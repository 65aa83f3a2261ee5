import type { Amendment, Fill, Line, Shape } from '#core/model/model'
import { carriedFills } from '#core/editing/fills-along'
import { carriedAmendments, copiedLines } from '#core/editing/copies'
import { movedShape } from '#core/editing/move'
import { openLineLayers, openSolidLayers } from '#core/model/queries'
import { newId } from '#core/new-id'
import { useDrawingStore } from '~/stores/drawing'
import { findLine, findShape } from '#core/model/find'
import { useViewStore } from '~/stores/view'

const PASTE_OFFSET = 12

let copiedShapes: { shape: Shape; layer: string }[] = []
let copied: { line: Line; layer: string }[] = []
let amendments: readonly Amendment[] = []
let fills: readonly Fill[] = []

/** Copying what is chosen, in this drawing or another, and pasting it. */
export function useCopies() {
  const store = useDrawingStore()
  const view = useViewStore()

  function copy(): void {
    copied = view.selection.flatMap((id) => {
      const found = findLine(store.drawing!, id)
      return found ? [{ line: found.line, layer: found.layer.id }] : []
    })
    amendments = store.drawing!.amendments ?? []
    fills = store.drawing!.fills ?? []
    copiedShapes = view.solids.flatMap((id) => {
      const found = findShape(store.drawing!, id)
      return found ? [{ shape: found.shape, layer: found.layer.id }] : []
    })
  }

  function paste(label: string): void {
    if (!copied.length && !copiedShapes.length) return
    const solids = copiedShapes.map(({ shape, layer }) => ({
      layer,
      shape: { ...movedShape(shape, { x: PASTE_OFFSET, y: PASTE_OFFSET }), id: newId() },
    }))
    const lines = copiedLines(
      copied.map((c) => c.line),
      { x: PASTE_OFFSET, y: PASTE_OFFSET },
      store.lines,
    )
    const ids = new Map(copied.map((c, i) => [c.line.id, lines[i]!.id]))
    const carried = carriedAmendments(amendments, ids)
    // Inks are those of the drawing that they came from: another has none of them.
    const poured = carriedFills(fills, ids, { x: PASTE_OFFSET, y: PASTE_OFFSET }).filter((f) =>
      store.drawing!.inks.some((i) => i.id === f.ink),
    )
    const fresh = copied.map(({ layer }, i) => ({ layer, line: lines[i]! }))
    const placed: string[] = []
    const placedShapes: string[] = []
    store.edit(label, (draft) => {
      for (const { line, layer } of fresh) {
        const open = openLineLayers(draft)
        const target = open.find((l) => l.id === layer) ?? open.find((l) => l.id === view.activeLayer)
        if (!target) continue
        target.items.push(line)
        placed.push(line.id)
      }
      if (carried.length && placed.length) draft.amendments = [...(draft.amendments ?? []), ...carried]
      if (poured.length && placed.length) draft.fills = [...(draft.fills ?? []), ...poured]
      for (const { shape, layer } of solids) {
        const open = openSolidLayers(draft)
        const target = open.find((l) => l.id === layer) ?? open.at(-1)
        if (!target) continue
        target.items.push(shape)
        placedShapes.push(shape.id)
      }
    })
    view.solids = placedShapes
    if (!placed.length && !placedShapes.length)
      store.notice =
        'Nothing was pasted: the layer is locked or hidden. Unlock or show it, or choose another in Layers.'
    else view.select(placed)
  }

  return { copy, paste }
}
