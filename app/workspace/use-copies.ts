import type { Amendment, Fill, Line, Shape } from '#core/model/model'
import { carriedFills } from '#core/editing/fills-along'
import { carriedAmendments, copiedLines } from '#core/editing/copies'
import { movedShape } from '#core/editing/move'
import { openLineLayers, openSolidLayers } from '#core/model/queries'
import { newId } from '#core/new-id'
import { boxOfPoints } from '#core/geometry/bounds'
import type { Vec } from '#core/geometry/point'
import { add, distance, subtract } from '#core/geometry/point'
import { useDrawingStore } from '~/stores/drawing'
import { findLine, findShape } from '#core/model/find'
import { useViewStore } from '~/stores/view'

/** Copies lie so far from what they are of, and from each other, px. */
const STEP = 12

interface Copied {
  lines: readonly Line[]
  shapes: readonly Shape[]
}

/** The last paste of what is held: where the pointer was, whether the copy went there, and how often in a row. */
let pasted: { pointer: Vec | null; goes: boolean; times: number } | null = null
/** What the last duplicate came to, and where what it is of lay. */
let duplicated: { ids: readonly string[]; from: Vec } | null = null

/** The middle of the box about lines and shapes. */
function middleOf({ lines, shapes }: Copied): Vec {
  const box = boxOfPoints(
    [...lines.map((l) => l.path), ...shapes.flatMap((s) => s.contours)].flatMap((p) => p.nodes.map((n) => n.at)),
  )
  return { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 }
}

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

  const held = (): Copied => ({ lines: copied.map((c) => c.line), shapes: copiedShapes.map((c) => c.shape) })

  /** At the pointer where it is over the drawing, else beside what was copied; several in a row step on. */
  function paste(): void {
    if (!copied.length && !copiedShapes.length) return
    const { pointer } = view
    const from = middleOf(held())
    const again = pasted?.pointer === pointer ? pasted : null
    // Exactly on top of what was copied it would not be seen.
    const goes = again ? again.goes : pointer !== null && distance(pointer, from) > STEP
    const times = again ? again.times + 1 : goes ? 0 : 1
    const step = { x: STEP * times, y: STEP * times }
    put('Paste', add(goes && pointer ? subtract(pointer, from) : { x: 0, y: 0 }, step))
    pasted = { pointer, goes, times }
  }

  /** Where it was, on the layer in use. */
  const pasteInPlace = (): void => put('Paste in place', { x: 0, y: 0 }, view.activeLayer)

  /** Beside what is chosen; what was duplicated and then moved goes on by as much again. */
  function duplicate(): void {
    copy()
    if (!copied.length && !copiedShapes.length) return
    const from = middleOf(held())
    const ids = new Set(chosen())
    const before = duplicated?.ids.length === ids.size && duplicated.ids.every((id) => ids.has(id)) ? duplicated : null
    put('Duplicate', before ? subtract(from, before.from) : { x: STEP, y: STEP })
    duplicated = { ids: chosen(), from }
  }

  const chosen = (): string[] => [...view.selection, ...view.solids]

  /** @param onto the id of the layer on which all lines come to lie; else each is on its own */
  function put(label: string, by: Vec, onto?: string | null): void {
    if (!copied.length && !copiedShapes.length) return
    const solids = copiedShapes.map(({ shape, layer }) => ({
      layer,
      shape: { ...movedShape(shape, by), id: newId() },
    }))
    const lines = copiedLines(
      copied.map((c) => c.line),
      by,
      store.lines,
    )
    const ids = new Map(copied.map((c, i) => [c.line.id, lines[i]!.id]))
    const carried = carriedAmendments(amendments, ids)
    // Inks are those of the drawing that they came from: another has none of them.
    const poured = carriedFills(fills, ids, by).filter((f) => store.drawing!.inks.some((i) => i.id === f.ink))
    const fresh = copied.map(({ layer }, i) => ({ layer, line: lines[i]! }))
    const placed: string[] = []
    const placedShapes: string[] = []
    store.edit(label, (draft) => {
      for (const { line, layer } of fresh) {
        const open = openLineLayers(draft)
        const target = [onto, layer, view.activeLayer].flatMap((id) => open.find((l) => l.id === id) ?? [])[0]
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

  /** Something else is held: pasting it begins anew. */
  function copyAnew(): void {
    copy()
    pasted = null
  }

  return { copy: copyAnew, paste, pasteInPlace, duplicate }
}
