import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** A finger or a pen that rests on something for so long wants to know what it is, ms; it may tremble by so many px. */
const LONG = 550
const TREMBLE = 8

/** What a long press asks about, and where it lies. */
export interface Told {
  words: string
  x: number
  y: number
  below: boolean
}

/** Says what hovering says elsewhere, where there is nothing that hovers: as long as a finger or a pen rests on a thing. */
export function useLongPress() {
  const told = ref<Told | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined
  let from = { x: 0, y: 0 }
  /** Whoever was told what a thing is did not mean to press it. */
  let asked = false

  function end(): void {
    clearTimeout(timer)
    timer = undefined
    told.value = null
  }

  useEventListener(document, 'pointerdown', (e: PointerEvent) => {
    end()
    asked = false
    if (e.pointerType === 'mouse' || !(e.target instanceof Element)) return
    const thing = e.target.closest<HTMLElement>('[title]')
    // Keys are there to be held.
    if (!thing?.title || 'held' in thing.dataset) return
    from = { x: e.clientX, y: e.clientY }
    timer = setTimeout(() => {
      asked = true
      const box = thing.getBoundingClientRect()
      const below = box.top < 90
      told.value = {
        words: thing.title,
        x: Math.min(Math.max(box.left + box.width / 2, 130), window.innerWidth - 130),
        y: below ? box.bottom + 8 : box.top - 8,
        below,
      }
    }, LONG)
  })
  useEventListener(document, 'pointermove', (e: PointerEvent) => {
    if (Math.hypot(e.clientX - from.x, e.clientY - from.y) > TREMBLE) end()
  })
  useEventListener(document, ['pointerup', 'pointercancel'], end)
  useEventListener(
    document,
    'click',
    (e: Event) => {
      if (!asked) return
      asked = false
      e.preventDefault()
      e.stopPropagation()
    },
    { capture: true },
  )
  // The system's own menu would come up over it.
  useEventListener(document, 'contextmenu', (e: Event) => {
    if (timer !== undefined && (e as PointerEvent).pointerType !== 'mouse') e.preventDefault()
  })
  return told
}
