import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import { nextTick, onBeforeUnmount } from 'vue'
import type { Vec } from '#core/geometry/point'
import type { MarkRef } from '~/canvas/marks'
import { toPage, turnBetween } from '~/canvas/viewport'
import type { Hand, HandSample, Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { useScreenKeysStore } from '~/stores/screen-keys'
import { useViewStore } from '~/stores/view'
import { ClickCounter } from './count-clicks'
import { useFingers } from './use-fingers'

interface PointerOptions {
  worktop: Worktop
  /** The mark under a point of the screen; a finger is `broad`. */
  markAt: (p: Vec, broad: boolean) => MarkRef | null
  instrument: () => Instrument | null
  /** Whether Space is held: drags move the page then. */
  panning: Ref<boolean>
  /** Whether Space is wanted for something else. */
  spaceTaken: () => boolean
  /** `done` where the hand did something, rather than moved. */
  after: (done: boolean) => void
}

/** Pressure for devices that report none, and for the samples of a pen that has just touched down. */
const EVEN_PRESSURE = 0.5

/** Buttons of a pointer event: of a pen its second one, and its other end. */
const BARREL = 2
const OTHER_END = 5

/** The hand on the canvas. */
export interface PointerHand {
  /** Whether an instrument is pressed down. */
  isDown: () => boolean
  /** Takes the instrument off the canvas: what is under the hand goes, and what the pointer does until it is released means nothing. */
  drop: () => void
}

/** Turns the pointer events of the canvas into presses, moves and releases in page px; pans and zooms. */
export function usePointer(
  root: Ref<HTMLElement | undefined>,
  { worktop, markAt, instrument, panning, spaceTaken, after }: PointerOptions,
): PointerHand {
  const view = useViewStore()
  const keys = useScreenKeysStore()
  let down: number | null = null
  let byPen = false
  /** What the pointer does until it is released means nothing. */
  let dropped = false
  let pan: Vec | null = null
  /** Shift while moving the page: the drag turns it about the middle of the view. */
  let turning = false
  const clicks = new ClickCounter()

  const fingers = useFingers()

  const onScreen = (e: { clientX: number; clientY: number }): Vec => {
    const box = root.value!.getBoundingClientRect()
    return { x: e.clientX - box.left, y: e.clientY - box.top }
  }

  const fromMiddle = (p: Vec): Vec => ({ x: p.x - view.size.width / 2, y: p.y - view.size.height / 2 })

  const onPage = (p: Vec): Vec => toPage(view.viewport, p)

  const sampleOf = (e: PointerEvent): HandSample => ({
    at: onPage(onScreen(e)),
    pressure: e.pointerType === 'mouse' ? EVEN_PRESSURE : e.pressure || EVEN_PRESSURE,
    time: e.timeStamp,
    ...(e.pointerType === 'pen' && { tiltX: e.tiltX, tiltY: e.tiltY }),
  })

  function handOf(e: PointerEvent, clicks: number): Hand {
    const screen = onScreen(e)
    const merged = e.type === 'pointermove' ? (e.getCoalescedEvents?.() ?? []) : []
    let mark: MarkRef | null | undefined
    return {
      at: onPage(screen),
      screen,
      // Looked for only when asked: finding it draws the marks once more.
      get mark() {
        if (mark === undefined) mark = markAt(screen, e.pointerType === 'touch')
        return mark
      },
      shift: e.shiftKey || keys.held.shift,
      alt: e.altKey || keys.held.alt,
      free: e.ctrlKey || e.metaKey || keys.held.free,
      device: e.pointerType === 'pen' || e.pointerType === 'touch' ? e.pointerType : 'mouse',
      clicks,
      samples: (merged.length ? merged : [e]).map(sampleOf),
    }
  }

  /** Two fingers have the page now: what the first of them began was no stroke. */
  function giveUpStroke(): void {
    if (down !== null && !dropped) {
      instrument()?.cancel?.()
      worktop.drop()
      after(true)
    }
    down = null
    dropped = false
    turnPenBack()
  }

  function press(e: PointerEvent): void {
    if (e.pointerType === 'pen') fingers.sawPen()
    if (e.pointerType === 'touch') {
      // A hand that rests on the screen while the pen draws.
      if (down !== null && byPen) return
      root.value!.setPointerCapture(e.pointerId)
      if (fingers.down(e.pointerId, onScreen(e))) {
        giveUpStroke()
        return
      }
    }
    if (down !== null) return
    view.byKey = false
    root.value!.focus({ preventScroll: true })
    root.value!.setPointerCapture(e.pointerId)
    down = e.pointerId
    byPen = e.pointerType === 'pen'
    const movesByPen = byPen && e.button === BARREL && keys.settings.penButton === 'moves'
    if (e.button === 1 || panning.value || keys.held.pan || movesByPen) {
      pan = onScreen(e)
      turning = e.shiftKey || keys.held.shift
      e.preventDefault()
      return
    }
    const scrapes = byPen && e.button === OTHER_END && keys.settings.penEnd === 'scrapes' && view.pass === 'lines'
    if (e.button !== 0 && !scrapes) {
      down = null
      return
    }
    const begin = (): void => {
      instrument()?.press?.(handOf(e, clicks.press(e.timeStamp, onScreen(e))))
      after(true)
    }
    if (!scrapes) return begin()
    giveBack = view.borrow('scrape')
    // The other instrument is in the hand before the next event.
    void nextTick(begin)
  }

  /** The other end of the pen scrapes as long as it is down. */
  let giveBack: (() => void) | null = null

  function turnPenBack(): void {
    giveBack?.()
    giveBack = null
  }

  function move(e: PointerEvent): void {
    if (fingers.move(e.pointerId, onScreen(e))) {
      after(false)
      return
    }
    if (down !== null && e.pointerId !== down) return
    if (pan) {
      const now = onScreen(e)
      if (turning) view.turnBy(turnBetween(fromMiddle(pan), fromMiddle(now)))
      else view.panBy(now.x - pan.x, now.y - pan.y)
      pan = now
      return
    }
    if (dropped) return
    view.pointer = toPage(view.viewport, onScreen(e))
    instrument()?.move?.(handOf(e, 0))
    after(false)
  }

  function release(e: PointerEvent): void {
    if (fingers.up(e.pointerId)) return
    if (e.pointerId !== down) return
    down = null
    if (dropped) {
      dropped = false
      turnPenBack()
      return
    }
    if (pan) {
      pan = null
      return
    }
    clicks.release(onScreen(e))
    instrument()?.release?.(handOf(e, 0))
    after(true)
    turnPenBack()
  }

  function taken(e: PointerEvent): void {
    if (fingers.up(e.pointerId)) return
    if (e.pointerId !== down) return
    down = null
    pan = null
    if (!dropped) instrument()?.cancel?.()
    dropped = false
    after(true)
    turnPenBack()
  }

  function drop(): void {
    dropped = true
    instrument()?.cancel?.()
    worktop.drop()
    after(true)
  }

  function away(): void {
    view.pointer = null
    if (down !== null) return
    instrument()?.away?.()
    after(false)
  }

  function wheel(e: WheelEvent): void {
    e.preventDefault()
    const step = e.deltaMode === 1 ? e.deltaY * 30 : e.deltaY
    view.zoomAt(onScreen(e), Math.exp(-step * 0.0016))
    after(false)
  }

  function space(e: KeyboardEvent): void {
    const typing =
      e.target instanceof HTMLElement && e.target.closest('input, textarea, select, button, [role="slider"]')
    if (e.code !== 'Space' || typing || (e.type === 'keydown' && spaceTaken())) return
    e.preventDefault()
    panning.value = e.type === 'keydown'
  }

  useEventListener(root, 'pointerdown', press)
  useEventListener(root, 'pointermove', move)
  useEventListener(root, 'pointerup', release)
  useEventListener(root, 'pointercancel', taken)
  useEventListener(root, 'pointerleave', away)
  useEventListener(root, 'wheel', wheel, { passive: false })
  useEventListener(window, ['keydown', 'keyup'], space)

  onBeforeUnmount(() => worktop.drop())

  return { isDown: () => down !== null && !pan && !dropped, drop }
}
