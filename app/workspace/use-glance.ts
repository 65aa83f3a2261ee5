import { useDrawingStore } from '~/stores/drawing'
import { useViewStore } from '~/stores/view'

/** Held for longer than this, a look at the whole page or the final size is but a glance, ms. */
const HOLD = 220

/** A look at the page from far or at its final size: for good, or for as long as its key or button is held. */
export function useGlance() {
  const store = useDrawingStore()
  const view = useViewStore()
  let held: { by: string; since: number; back: () => void } | null = null

  /** @param zoom none for the whole page */
  function begin(by: string, zoom?: number): void {
    if (held?.by === by) return
    held = { by, since: performance.now(), back: view.viewToReturnTo() }
    view.showPage(store.drawing!.page, zoom)
  }

  function end(by: string): void {
    if (held?.by !== by) return
    if (performance.now() - held.since > HOLD) held.back()
    held = null
  }

  /** The keyboard is elsewhere: whatever was held is over. */
  function away(): void {
    held?.back()
    held = null
  }

  return { begin, end, away }
}
