import { watchDebounced } from '@vueuse/core'
import { ref, shallowRef } from 'vue'
import type { Vec } from '#core/geometry/point'
import type { Viewport } from '~/canvas/viewport'
import { changedAt, clampZoom, showing, tidyAngle, toPage, withPointAt } from '~/canvas/viewport'

/** Room left about a page that is shown whole, screen px. */
const MARGIN = 26

/** A view that stays as long was looked at, ms. */
const REST = 600

interface Seen {
  viewport: Viewport
  fitting: boolean
}

const isSame = (a: Viewport, b: Viewport): boolean =>
  a.x === b.x && a.y === b.y && a.zoom === b.zoom && a.angle === b.angle && a.mirrored === b.mirrored

/** Where on the page one looks, from how near, turned and mirrored. */
export function useLooking() {
  const viewport = shallowRef<Viewport>({ x: 0, y: 0, zoom: 1, angle: 0, mirrored: false })
  const size = shallowRef({ width: 1, height: 1 })
  /** The whole page is shown, and goes on to be when the window changes, until the person moves it. */
  const fitting = ref(true)

  /** Where the pointer is, px of the page; null while it is elsewhere. */
  const pointer = shallowRef<Vec | null>(null)

  /** What stands over the view at its sides, screen px: a page that is shown whole keeps clear of it. */
  const beside = shallowRef({ left: 0, right: 0 })

  const middle = (): Vec => ({ x: size.value.width / 2, y: size.value.height / 2 })

  /** Zooms by `factor` and keeps the document point under the screen point `at` where it is. */
  function zoomAt(at: Vec, factor: number): void {
    fitting.value = false
    viewport.value = changedAt(viewport.value, at, { zoom: clampZoom(viewport.value.zoom * factor) })
  }

  /** Zooms by `factor` about the middle of the view. */
  const zoomBy = (factor: number): void => zoomAt(middle(), factor)

  function panBy(dx: number, dy: number): void {
    fitting.value = false
    const at = toPage(viewport.value, { x: -dx, y: -dy })
    viewport.value = { ...viewport.value, x: at.x, y: at.y }
  }

  /** Turns the page by `degrees`, clockwise as it is seen, about the middle of the view or another point of the screen. */
  function turnBy(degrees: number, at = middle()): void {
    const { angle, mirrored } = viewport.value
    viewport.value = changedAt(viewport.value, at, { angle: tidyAngle(angle + (mirrored ? -degrees : degrees)) })
  }

  /** Turns the page upright again. */
  function setUpright(): void {
    viewport.value = changedAt(viewport.value, middle(), { angle: 0 })
  }

  /** Shows the page mirrored left to right, or as it is; the drawing stays as it is. */
  function mirror(): void {
    const { angle, mirrored } = viewport.value
    viewport.value = changedAt(viewport.value, middle(), { mirrored: !mirrored, angle: tidyAngle(-angle) })
  }

  /** Puts a page point in the middle of the view. */
  function centreOn(p: Vec): void {
    viewport.value = withPointAt(viewport.value, p, middle())
  }

  /** Shows the whole page with a margin, or the page at `zoom` in the middle. */
  function showPage(page: { width: number; height: number }, zoom?: number): void {
    fitting.value = zoom === undefined
    const { left, right } = beside.value
    const room = { ...size.value, width: Math.max(1, size.value.width - left - right) }
    const shown = showing(viewport.value, page, room, MARGIN, zoom)
    const centre = { x: page.width / 2, y: page.height / 2 }
    viewport.value = withPointAt(shown, centre, { x: left + room.width / 2, y: room.height / 2 })
  }

  /** What was seen where the view last rested, and where it rested before. */
  let rested: Seen | null = null
  let before: Seen | null = null
  const seen = (): Seen => ({ viewport: viewport.value, fitting: fitting.value })
  const look = (s: Seen): void => {
    viewport.value = s.viewport
    fitting.value = s.fitting
  }
  function rest(): void {
    const now = seen()
    if (rested && !isSame(now.viewport, rested.viewport)) before = rested
    rested = now
  }
  watchDebounced(viewport, rest, { debounce: REST })

  /** Goes to what was seen before, and from there back again. */
  function lastView(): void {
    rest()
    if (before) look(before)
    rest()
  }

  /** What brings back exactly what is seen now. */
  function viewToReturnTo(): () => void {
    const now = seen()
    return () => look(now)
  }

  function reset(): void {
    rested = before = null
    viewport.value = { ...viewport.value, angle: 0, mirrored: false }
    fitting.value = true
  }

  return {
    viewport,
    size,
    fitting,
    beside,
    pointer,
    zoomAt,
    zoomBy,
    panBy,
    turnBy,
    setUpright,
    mirror,
    centreOn,
    showPage,
    lastView,
    viewToReturnTo,
    reset,
  }
}
