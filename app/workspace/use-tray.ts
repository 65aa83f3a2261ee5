import { computed } from 'vue'
import type { InstrumentDescription } from '~/catalogue/instruments'
import { instrumentOf, TRAY_KEYS, trayOf } from '~/catalogue/instruments'
import { useKeysStore } from '~/stores/keys'
import { useViewStore } from '~/stores/view'

/** An instrument with its key, and how that is said. */
export type TrayTool = InstrumentDescription & { key: string; spoken: string }

/** Held for longer than this, an instrument goes back when it is let go, ms. */
const HOLD = 400

/** The instruments of the pass with their keys, in rows of six, the second row's those of the first with Shift; and one that was called up besides. */
export function useTray() {
  const view = useViewStore()
  const keys = useKeysStore()

  function keyAt(i: number): { key: string; spoken: string } {
    const key = keys.keyOf(TRAY_KEYS[i % TRAY_KEYS.length]!).toUpperCase()
    return { key, spoken: i < TRAY_KEYS.length ? key : `Shift + ${key}` }
  }

  const tools = computed<TrayTool[]>(() => {
    const inTray = trayOf(view.pass).map((tool, i): TrayTool => ({ ...tool, ...keyAt(i) }))
    const called = instrumentOf(view.instrument)
    if (!called?.calledBy || inTray.some((t) => t.id === called.id)) return inTray
    const key = keys.writtenKey(called.calledBy)
    return [...inTray, { ...called, key, spoken: key }]
  })
  const rows = computed(() =>
    [0, 1, 2].map((i) => tools.value.slice(i * TRAY_KEYS.length, (i + 1) * TRAY_KEYS.length)).filter((r) => r.length),
  )
  return { tools, rows }
}

/** Takes an instrument: for good, or for as long as a finger or a pen holds its button down. */
export function useTrayHand() {
  const view = useViewStore()
  let since = 0
  let giveBack: ((back?: boolean) => void) | null = null
  let wasHeld = false

  function hold(id: string, e: PointerEvent): void {
    wasHeld = false
    if (e.pointerType === 'mouse') return
    since = e.timeStamp
    giveBack = view.borrow(id)
  }

  function letGo(e: PointerEvent): void {
    wasHeld = giveBack !== null && e.timeStamp - since > HOLD
    giveBack?.(wasHeld)
    giveBack = null
  }

  function take(id: string): void {
    if (!wasHeld) view.chosen[view.pass] = id
    wasHeld = false
  }

  return { hold, letGo, take }
}
