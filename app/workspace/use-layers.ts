import { computed } from 'vue'
import type { Drawing, Layer, Line } from '#core/model/model'
import { carriedAmendments } from '#core/editing/copies'
import { newLinesLayer } from '#core/model/create'
import { layerForLine } from '#core/model/queries'
import { alike, copiedLayer, freeLayerName } from '#core/editing/layers'
import { useDrawingStore } from '~/stores/drawing'
import { findOpenLine } from '#core/model/find'
import { useViewStore } from '~/stores/view'

/** What can be done to layers; each a step of the history, refused with a sentence where it cannot be done. */
export function useLayers() {
  const store = useDrawingStore()
  const view = useViewStore()

  /** Top of the stack first, as it lies on the page. */
  const layers = computed(() => [...(store.drawing?.layers ?? [])].reverse())

  const place = (id: string, drawing: Drawing = store.drawing!): number => drawing.layers.findIndex((l) => l.id === id)

  function change(id: string, label: string, recipe: (layer: Layer) => void): void {
    store.edit(label, (draft) => {
      const layer = draft.layers[place(id, draft)]
      if (layer) recipe(layer)
    })
  }

  /** A new layer for lines, above the one in use. */
  function add(): void {
    const layer = newLinesLayer(
      freeLayerName(store.drawing!, `Lines ${store.drawing!.layers.filter((l) => l.kind === 'lines').length + 1}`),
    )
    const above = view.activeLayer ? place(view.activeLayer) : -1
    store.edit('Add a layer', (draft) => {
      draft.layers.splice(above < 0 ? draft.layers.length : above + 1, 0, layer)
    })
    view.activeLayer = layer.id
  }

  /** Brings a layer to a place in the list, which is read from the top. */
  function moveTo(id: string, row: number): void {
    const from = place(id)
    const to = store.drawing!.layers.length - 1 - row
    if (from < 0 || to < 0 || to >= store.drawing!.layers.length || from === to) return
    store.edit(`Move ${store.drawing!.layers[from]!.name}`, (draft) => {
      const [layer] = draft.layers.splice(from, 1)
      draft.layers.splice(to, 0, layer!)
    })
  }

  const moveBy = (id: string, step: 1 | -1): void => moveTo(id, store.drawing!.layers.length - 1 - place(id) - step)

  function duplicate(id: string): void {
    const layer = store.drawing!.layers[place(id)]!
    const copy = { ...copiedLayer(layer, freeLayerName(store.drawing!, `${layer.name} copy`)), locked: false }
    const ids = new Map(layer.items.map((item, i) => [item.id, copy.items[i]!.id]))
    const carried = carriedAmendments(store.drawing!.amendments ?? [], ids)
    store.edit(`Duplicate ${layer.name}`, (draft) => {
      draft.layers.splice(place(id, draft) + 1, 0, copy)
      if (carried.length) draft.amendments = [...(draft.amendments ?? []), ...carried]
    })
    if (copy.kind !== 'sketch') view.activeLayer = copy.id
  }

  /** A copy to come back to: below, hidden and locked, so that nothing happens to it. */
  function keepCopy(id: string): void {
    const layer = store.drawing!.layers[place(id)]!
    const copy = {
      ...copiedLayer(layer, freeLayerName(store.drawing!, `${layer.name}, kept`)),
      visible: false,
      locked: true,
    }
    store.edit(`Keep a copy of ${layer.name}`, (draft) => void draft.layers.splice(place(id, draft), 0, copy))
    store.notice = `A copy of "${layer.name}" is kept below it, hidden and locked.`
  }

  /** The layer below, when the two can become one. */
  function partner(id: string): Layer | null {
    const [below, layer] = [store.drawing!.layers[place(id) - 1], store.drawing!.layers[place(id)]]
    return below && layer && alike(below, layer) && layer.kind !== 'sketch' ? below : null
  }

  function combine(id: string): void {
    const below = partner(id)
    const layer = store.drawing!.layers[place(id)]
    if (!below || !layer) return
    const locked = [layer, below].find((l) => l.locked)
    if (locked) {
      store.tell(
        `Layer "${locked.name}" is locked. Unlock it to combine it with "${locked === layer ? below.name : layer.name}".`,
        [{ title: 'Unlock it', run: () => change(locked.id, `Unlock ${locked.name}`, (l) => void (l.locked = false)) }],
      )
      return
    }
    store.edit(`Combine ${layer.name} with ${below.name}`, (draft) => {
      const [upper] = draft.layers.splice(place(id, draft), 1)
      const items = draft.layers[place(below.id, draft)]!.items as unknown[]
      items.push(...upper!.items)
    })
    if (view.activeLayer === id) view.activeLayer = below.id
  }

  /** Brings the chosen lines to a layer, on top of what lies there. */
  function takeChosen(id: string): void {
    const layer = store.drawing!.layers[place(id)]!
    const ids = view.selection
    if (layer.locked || !layer.visible) {
      store.notice = `Layer "${layer.name}" is ${layer.locked ? 'locked' : 'hidden'}. ${layer.locked ? 'Unlock' : 'Show'} it, then move the lines there.`
      return
    }
    store.edit(
      ids.length > 1 ? `Move ${ids.length} lines to ${layer.name}` : `Move a line to ${layer.name}`,
      (draft) => {
        const target = draft.layers[place(id, draft)]!.items as Line[]
        for (const line of ids) {
          const found = findOpenLine(draft, line)
          if (!found || found.layer.id === id) continue
          found.layer.items.splice(found.index, 1)
          target.push(found.line)
        }
      },
    )
  }

  function remove(id: string): void {
    const layer = store.drawing!.layers[place(id)]!
    store.edit(`Delete ${layer.name}`, (draft) => void draft.layers.splice(place(id, draft), 1))
    if (view.activeLayer === id) view.activeLayer = layerForLine(store.drawing!)?.id ?? null
    store.tell(`"${layer.name}" was deleted with what lay on it.`, [
      { title: 'Bring it back', run: () => void store.undo() },
    ])
  }

  /** Layers with nothing on them, other than the one in use: as long as there is anything at all, nobody needs them. */
  const empty = computed(() => {
    const all = store.drawing?.layers ?? []
    return all.some((l) => l.items.length)
      ? all.filter((l) => !l.items.length && l.id !== view.activeLayer && !l.locked)
      : []
  })

  function removeEmpty(): void {
    const gone = new Set(empty.value.map((l) => l.id))
    store.edit(
      `Delete ${gone.size} empty ${gone.size === 1 ? 'layer' : 'layers'}`,
      (draft) => void (draft.layers = draft.layers.filter((l) => !gone.has(l.id))),
    )
  }

  /** Shows an opacity while its slider moves; `keep` makes it a step. */
  function dim(id: string, opacity: number, keep: boolean): void {
    store.change((draft) => {
      const layer = draft.layers[place(id, draft)]
      if (layer) layer.opacity = opacity
    })
    if (keep) store.finish(`Dim to ${Math.round(opacity * 100)} %`)
  }

  return {
    layers,
    change,
    add,
    moveTo,
    moveBy,
    duplicate,
    keepCopy,
    partner,
    combine,
    takeChosen,
    remove,
    empty,
    removeEmpty,
    dim,
  }
}
