import type { Ref } from 'vue'
import { onBeforeUnmount, onMounted } from 'vue'
import type { Vec } from '#core/drawing/model'
import type { MarkRef } from '~/canvas/marks'
import { tidyAngle, toPage } from '~/canvas/viewport'
import type { Bench, Hand, HandSample, Instrument } from '~/instruments/instrument'
import { useViewStore } from '~/stores/view'

interface PointerOptions {
  bench: Bench
  markAt: (p: Vec) => MarkRef | null
  instrument: () => Instrument | null
  /** Whether Space is held: drags move the page then. */
  panning: Ref<boolean>
  /** `done` where the hand did something, rather than moved. */
  after: (done: boolean) => void
}

const DOUBLE_TIME = 450
const DOUBLE_REACH = 5

/** Pressure for devices that report none, and for the samples of a pen that has just touched down. */
const EVEN_PRESSURE = 0.5

/** The hand on the canvas. */
export interface PointerHand {
  /** Whether an instrument is pressed down. */
  isDown: () => boolean
  /** Takes the instrument off the canvas: what is under the hand goes, and what the pointer does until it is released means nothing. */
  drop: () => void
}

/** Turns the pointer events of the canvas into presses, moves and releases in page px; pans and zooms. */
export function usePointer(root: Ref<HTMLElement | undefined>, { bench, markAt, instrument, panning, after }: PointerOptions): PointerHand {
  const view = useViewStore()
  let down: number | null = null
  /** What the pointer does until it is released means nothing. */
  let dropped = false
  let pan: Vec | null = null
  /** Shift while moving the page: the drag turns it about the middle of the view. */
  let turning = false
  let last = { time: -Infinity, screen: { x: 0, y: 0 }, clicks: 0 }

  /** Fingers on the canvas, by pointer. Two move, zoom and turn the page; where a pen draws, one moves it. */
  const fingers = new Map<number, Vec>()
  let pinching = false
  let penSeen = false

  const onScreen = (e: { clientX: number; clientY: number }): Vec => {
    const box = root.value!.getBoundingClientRect()
    return { x: e.clientX - box.left, y: e.clientY - box.top }
  }

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
        if (mark === undefined) mark = markAt(screen)
        return mark
      },
      shift: e.shiftKey,
      alt: e.altKey,
      free: e.ctrlKey || e.metaKey,
      device: e.pointerType === 'pen' || e.pointerType === 'touch' ? e.pointerType : 'mouse',
      clicks,
      samples: (merged.length ? merged : [e]).map(sampleOf),
    }
  }

  function countClicks(e: PointerEvent): number {
    const screen = onScreen(e)
    const near = Math.hypot(screen.x - last.screen.x, screen.y - last.screen.y) < DOUBLE_REACH
    const clicks = near && e.timeStamp - last.time < DOUBLE_TIME && last.clicks === 1 ? 2 : 1
    last = { time: e.timeStamp, screen, clicks }
    return clicks
  }

  /** A finger comes down. Answers whether the fingers have the page now. */
  function fingerDown(e: PointerEvent): boolean {
    fingers.set(e.pointerId, onScreen(e))
    if (fingers.size < 2 && !penSeen) return false
    // What the first finger began was no stroke.
    if (down !== null && !dropped) {
      instrument()?.cancel?.()
      bench.drop()
      after(true)
    }
    down = null
    dropped = false
    pinching = true
    return true
  }

  function fingerMoves(e: PointerEvent): void {
    const before = [...fingers.values()]
    fingers.set(e.pointerId, onScreen(e))
    const [a, b] = before
    const [p, q] = [...fingers.values()]
    if (!b || !q) {
      view.panBy(p!.x - a!.x, p!.y - a!.y)
      return
    }
    const middle = { x: (p!.x + q.x) / 2, y: (p!.y + q.y) / 2 }
    view.panBy(middle.x - (a!.x + b.x) / 2, middle.y - (a!.y + b.y) / 2)
    const spread = Math.hypot(b.x - a!.x, b.y - a!.y)
    if (spread > 0) view.zoomAt(middle, Math.hypot(q.x - p!.x, q.y - p!.y) / spread)
    const turn = turnAbout(a!, b, { x: q.x - p!.x + a!.x, y: q.y - p!.y + a!.y })
    if (turn) view.turnBy(turn, middle)
  }

  /** Answers whether the fingers had the page. */
  function fingerUp(e: PointerEvent): boolean {
    if (!fingers.delete(e.pointerId) || !pinching) return false
    pinching = fingers.size > 0
    return true
  }

  function press(e: PointerEvent): void {
    if (e.pointerType === 'pen') penSeen = true
    if (e.pointerType === 'touch') {
      root.value!.setPointerCapture(e.pointerId)
      if (fingerDown(e)) return
    }
    if (down !== null) return
    root.value!.focus({ preventScroll: true })
    root.value!.setPointerCapture(e.pointerId)
    down = e.pointerId
    if (e.button === 1 || panning.value) {
      pan = onScreen(e)
      turning = e.shiftKey
      e.preventDefault()
      return
    }
    if (e.button !== 0) {
      down = null
      return
    }
    instrument()?.press?.(handOf(e, countClicks(e)))
    after(true)
  }

  function move(e: PointerEvent): void {
    if (pinching && fingers.has(e.pointerId)) {
      fingerMoves(e)
      after(false)
      return
    }
    if (down !== null && e.pointerId !== down) return
    if (pan) {
      const now = onScreen(e)
      if (turning) view.turnBy(turnAbout({ x: view.size.width / 2, y: view.size.height / 2 }, pan, now))
      else view.panBy(now.x - pan.x, now.y - pan.y)
      pan = now
      return
    }
    if (dropped) return
    instrument()?.move?.(handOf(e, 0))
    after(false)
  }

  function release(e: PointerEvent): void {
    if (fingerUp(e)) return
    if (e.pointerId !== down) return
    down = null
    if (dropped) {
      dropped = false
      return
    }
    if (pan) {
      pan = null
      return
    }
    instrument()?.release?.(handOf(e, 0))
    after(true)
  }

  function taken(e: PointerEvent): void {
    if (fingerUp(e)) return
    if (e.pointerId !== down) return
    down = null
    pan = null
    if (!dropped) instrument()?.cancel?.()
    dropped = false
    after(true)
  }

  function drop(): void {
    dropped = true
    instrument()?.cancel?.()
    bench.drop()
    after(true)
  }

  function away(): void {
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
    const typing = e.target instanceof HTMLElement && e.target.closest('input, textarea, select, button, [role="slider"]')
    if (e.code !== 'Space' || typing) return
    e.preventDefault()
    panning.value = e.type === 'keydown'
  }

  onMounted(() => {
    const el = root.value!
    el.addEventListener('pointerdown', press)
    el.addEventListener('pointermove', move)
    el.addEventListener('pointerup', release)
    el.addEventListener('pointercancel', taken)
    el.addEventListener('pointerleave', away)
    el.addEventListener('wheel', wheel, { passive: false })
    window.addEventListener('keydown', space)
    window.addEventListener('keyup', space)
  })

  onBeforeUnmount(() => {
    window.removeEventListener('keydown', space)
    window.removeEventListener('keyup', space)
    bench.drop()
  })

  return { isDown: () => down !== null && !pan && !dropped, drop }
}

/** Degrees by which a hand that goes from `a` to `b` goes round `middle`. */
function turnAbout(middle: Vec, a: Vec, b: Vec): number {
  const from = Math.atan2(a.y - middle.y, a.x - middle.x)
  const to = Math.atan2(b.y - middle.y, b.x - middle.x)
  return tidyAngle(((to - from) * 180) / Math.PI)
}
