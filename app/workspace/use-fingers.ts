import type { Vec } from '#core/geometry/point'
import { turnBetween } from '~/canvas/viewport'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useViewStore } from '~/stores/view'

/** What fingers do to the page; each answers whether the fingers have it, so that the event means nothing else. */
export interface Fingers {
  down: (id: number, at: Vec) => boolean
  move: (id: number, to: Vec) => boolean
  up: (id: number) => boolean
  /** A pen was seen: from now on fingers move the page and draw nothing. */
  sawPen: () => void
}

/** Fingers on the canvas: two move, zoom and turn the page; where a pen draws, or one wishes, one moves it. */
export function useFingers(): Fingers {
  const view = useViewStore()
  const keys = useScreenKeysStore()
  const fingers = new Map<number, Vec>()
  let pinching = false
  let penSeen = false

  function down(id: number, at: Vec): boolean {
    fingers.set(id, at)
    const one = keys.settings.finger
    if (fingers.size < 2 && (one === 'draws' || (one === 'as the pen' && !penSeen))) return false
    pinching = true
    return true
  }

  function move(id: number, to: Vec): boolean {
    if (!pinching || !fingers.has(id)) return false
    const [a, b] = [...fingers.values()]
    fingers.set(id, to)
    const [p, q] = [...fingers.values()]
    if (!b || !q) {
      view.panBy(p!.x - a!.x, p!.y - a!.y)
      return true
    }
    const middle = { x: (p!.x + q.x) / 2, y: (p!.y + q.y) / 2 }
    view.panBy(middle.x - (a!.x + b.x) / 2, middle.y - (a!.y + b.y) / 2)
    const spread = Math.hypot(b.x - a!.x, b.y - a!.y)
    if (spread > 0) view.zoomAt(middle, Math.hypot(q.x - p!.x, q.y - p!.y) / spread)
    const turn = turnBetween({ x: b.x - a!.x, y: b.y - a!.y }, { x: q.x - p!.x, y: q.y - p!.y })
    if (turn) view.turnBy(turn, middle)
    return true
  }

  function up(id: number): boolean {
    if (!fingers.delete(id) || !pinching) return false
    pinching = fingers.size > 0
    return true
  }

  return { down, move, up, sawPen: () => void (penSeen = true) }
}
