import { onBeforeUnmount, watch } from 'vue'
import type { Weight } from '#core/model/model'
import type { Sides } from '#core/weight/stops'
import { DRAG_START, screenDistance } from '~/instruments/instrument'
import { useDrawingStore } from '~/stores/drawing'
import { changeLines } from '#core/editing/change-items'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import type { Graph, GraphPoint } from './use-graph'

/** What a drag in the graph makes of the weights of lines, by id, as they were when it began. */
export interface GraphDrag {
  label: string
  lines: readonly string[]
  change: (weight: Weight, to: GraphPoint, e: PointerEvent, line: string) => Weight
  /** The press has become a drag. */
  began?: () => void
}

/** Drags in the weight graph: a press becomes one when it moves, and is a step of the history when the hand lets go. */
export function useGraphDrag(graph: Graph): {
  take: (e: PointerEvent, drag: GraphDrag) => void
  dragging: () => boolean
  sidesOf: (e: { altKey: boolean }, side: 'left' | 'right') => Sides
} {
  const store = useDrawingStore()
  const studio = useStudioStore()
  const keys = useScreenKeysStore()
  const view = useViewStore()
  let held: { drag: GraphDrag; pointer: number; screen: { x: number; y: number }; moved: boolean; on: Element } | null =
    null

  function take(e: PointerEvent, drag: GraphDrag): void {
    if (e.button !== 0 || held) return
    const on = e.currentTarget as Element
    held = { drag, pointer: e.pointerId, screen: { x: e.clientX, y: e.clientY }, moved: false, on }
    on.setPointerCapture(e.pointerId)
    on.addEventListener('pointermove', move as EventListener)
    on.addEventListener('pointerup', release as EventListener)
    on.addEventListener('pointercancel', taken)
    e.stopPropagation()
  }

  function move(e: PointerEvent): void {
    if (!held || e.pointerId !== held.pointer) return
    const { drag } = held
    if (!held.moved && screenDistance(held.screen, { x: e.clientX, y: e.clientY }) < DRAG_START) return
    if (!held.moved) {
      held.moved = true
      view.graphHeld = true
      drag.began?.()
    }
    const to = graph.pointAt(e)
    store.change((draft) => {
      for (const id of drag.lines)
        changeLines(draft, [id], (line) => void (line.weight = drag.change(line.weight, to, e, id)))
    })
  }

  function release(e: PointerEvent): void {
    if (!held || e.pointerId !== held.pointer) return
    if (held.moved) store.finish(held.drag.label)
    letGo()
  }

  function taken(): void {
    if (held?.moved) store.drop()
    letGo()
  }

  function letGo(): void {
    held?.on.removeEventListener('pointermove', move as EventListener)
    held?.on.removeEventListener('pointerup', release as EventListener)
    held?.on.removeEventListener('pointercancel', taken)
    held = null
    view.graphHeld = false
  }

  watch(() => store.overtaken, taken, { flush: 'sync' })
  onBeforeUnmount(taken)

  return {
    take,
    dragging: () => held !== null,
    sidesOf: (e, side) => (studio.preferences.sidesLinked !== (e.altKey || keys.held.alt) ? 'both' : side),
  }
}
