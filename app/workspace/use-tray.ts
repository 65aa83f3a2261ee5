import { computed } from 'vue'
import { TRAY_KEYS, trayOf } from '~/catalogue/instruments'
import { useKeysStore } from '~/stores/keys'
import { useViewStore } from '~/stores/view'

/** Held for longer than this, an instrument goes back when it is let go, ms. */
const HOLD = 400

/** The instruments of the pass with their keys, in rows of six: the second row's keys are those of the first with Shift. */
export function useTray() {
  const view = useViewStore()
  const keys = useKeysStore()

  function keyAt(i: number): { key: string; spoken: string } {
    const key = keys.keyOf(TRAY_KEYS[i % TRAY_KEYS.length]!).toUpperCase()
    return { key, spoken: i < TRAY_KEYS.length ? key : `Shift + ${key}` }
  }

  const tools = computed(() => trayOf(view.pass).map((tool, i) => ({ ...tool, ...keyAt(i) })))
  const rows = computed(() =>
    [tools.value.slice(0, TRAY_KEYS.length), tools.value.slice(TRAY_KEYS.length)].filter((r) => r.length),
  )
  /** An instrument that a finger or pen holds down for longer is in hand only as long, as with its key. */
  let heldSince = 0
  let before: string | null = null
  let wasHeld = false

  function hold(id: string, e: PointerEvent): void {
    if (e.pointerType === 'mouse') return
    before = view.chosen[view.pass]
    heldSince = e.timeStamp
    view.chosen[view.pass] = id
  }

  function letGo(e: PointerEvent): void {
    wasHeld = before !== null && e.timeStamp - heldSince > HOLD
    if (wasHeld) view.chosen[view.pass] = before!
    before = null
  }

  function take(id: string): void {
    if (!wasHeld) view.chosen[view.pass] = id
    wasHeld = false
  }

  return { tools, rows, hold, letGo, take }
}
