import { useEventListener } from '@vueuse/core'

/** What is gone through by key once it is open, and has the keyboard until it is closed. */
const OPEN = '[role="dialog"], [role="menu"], [role="listbox"], [id^="headlessui-popover-panel"]'
const FIELD = 'input:not([type="checkbox"], [type="radio"], [type="range"]), textarea, select'
const BUTTON = 'button, [role="button"], summary, a'

/**
 * Says who has the keyboard after a press of the pointer: Enter and Escape mean what the instrument says, so no button that
 * was pressed keeps it, nor does one whose menu or dialog was closed. Whoever goes from button to button by key keeps it there,
 * which the answer tells.
 */
export function useKeyboardOwner(): { cameByKey: () => boolean; takeByKey: (there: HTMLElement | null) => void } {
  /** The last way from one thing to another was by Tab, or by a key of its own. */
  let byKey = false

  const active = (): HTMLElement | null =>
    document.activeElement instanceof HTMLElement && document.activeElement !== document.body
      ? document.activeElement
      : null

  /** A button that stands there closed and has the keyboard lets it go. */
  function letGo(): void {
    const here = active()
    if (!byKey && here?.matches(BUTTON) && here.getAttribute('aria-expanded') !== 'true' && !here.closest(OPEN))
      here.blur()
  }

  /** Menus and dialogs give the keyboard back to their buttons a little after they are closed. */
  function soon(): void {
    requestAnimationFrame(() => {
      letGo()
      requestAnimationFrame(letGo)
    })
  }

  function pressed(e: MouseEvent): void {
    byKey = false
    const target = e.target instanceof Element ? e.target : null
    if (!target) return
    // Its own press does not bring the keyboard to a button; one that opens something needs it until that is closed.
    if (
      target.closest('button') &&
      !target.closest(`[aria-haspopup], [aria-expanded], [data-headlessui-state], ${OPEN}`)
    )
      e.preventDefault()
    const here = active()
    if (!here || here.contains(target)) return
    const isDone = here.matches(FIELD)
      ? !target.closest(FIELD) && !target.closest(OPEN) && !here.closest(OPEN)
      : here.matches(BUTTON) && here.getAttribute('aria-expanded') !== 'true'
    if (isDone) here.blur()
  }

  useEventListener(window, 'mousedown', pressed, { capture: true })
  useEventListener(window, 'click', soon, { capture: true })
  useEventListener(
    window,
    'keydown',
    (e: KeyboardEvent) => {
      if (e.key === 'Tab') byKey = true
      if (e.key === 'Escape' || e.key === 'Enter') soon()
    },
    { capture: true },
  )

  function takeByKey(there: HTMLElement | null): void {
    byKey = true
    there?.focus()
  }

  return { cameByKey: () => byKey, takeByKey }
}
