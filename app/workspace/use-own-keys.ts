import { useEventListener } from '@vueuse/core'
import { useKeysStore } from '~/stores/keys'

/** Events that were made here. */
const made = new WeakSet<Event>()

const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  !!target.closest(
    'input:not([type="checkbox"], [type="range"]), textarea, select, [role="dialog"], [role="menu"], [role="listbox"]',
  )

/** A key of one's own is heard as the one that it stands for, by everything in the workspace. */
export function useOwnKeys(): void {
  const keys = useKeysStore()

  function hear(e: KeyboardEvent): void {
    if (made.has(e) || !keys.own.size || e.key.length !== 1 || e.ctrlKey || e.metaKey || e.altKey || inField(e.target))
      return
    const pressed = e.key.toLowerCase()
    const meant = keys.meaningOf(pressed)
    if (meant === pressed) return
    e.stopImmediatePropagation()
    e.preventDefault()
    if (meant === null) return
    const { bubbles, cancelable, shiftKey, repeat } = e
    const told = new KeyboardEvent(e.type, {
      key: shiftKey ? meant.toUpperCase() : meant,
      code: e.code,
      bubbles,
      cancelable,
      shiftKey,
      repeat,
    })
    made.add(told)
    e.target?.dispatchEvent(told)
  }

  useEventListener(window, 'keydown', hear, { capture: true })
  useEventListener(window, 'keyup', hear, { capture: true })
}
