import type { StackMove } from '#core/editing/stack-order'
import { restacked } from '#core/editing/stack-order'
import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

export const STACK_MOVES: readonly { move: StackMove; title: string; label: string }[] = [
  { move: 'front', title: 'To front', label: 'To the front of the layer' },
  { move: 'up', title: 'One up', label: 'One up in the layer' },
  { move: 'down', title: 'One down', label: 'One down in the layer' },
  { move: 'back', title: 'To back', label: 'To the back of the layer' },
]

/** Moves what is chosen within the stack of its layer: which line lies over which, and what a line covers. */
export function useStackOrder(): (move: StackMove) => void {
  const store = useDrawingStore()
  const view = useViewStore()
  return (move) => {
    const ids = new Set([...view.selection, ...view.solids])
    if (!ids.size) {
      store.notice = 'Choose a line to move it in its layer.'
      return
    }
    const before = store.drawing
    store.edit(STACK_MOVES.find((m) => m.move === move)!.label, (draft) => {
      for (const layer of draft.layers) {
        if (layer.locked || layer.kind === 'sketch') continue
        const place = new Map(restacked<{ id: string }>(layer.items, ids, move).map((item, i) => [item.id, i]))
        ;(layer.items as { id: string }[]).sort((a, b) => place.get(a.id)! - place.get(b.id)!)
      }
    })
    if (store.drawing === before)
      store.notice = `It lies ${move === 'front' || move === 'up' ? 'in front' : 'at the back'} of its layer already. Layers have an order of their own: drag them in Layers.`
  }
}
