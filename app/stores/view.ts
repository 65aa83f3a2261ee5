import { defineStore } from 'pinia'
import { useLongWork } from './long-work'
import { useRemembered } from './remembered'
import { computed, reactive, ref, shallowRef } from 'vue'
import type { PassName } from '~/catalogue/passes'
import { firstInstruments, passOf } from '~/catalogue/passes'
import type { NodeRef, StopRef } from '~/instruments/worktop'
import type { Vec } from '#core/geometry/point'
import type { Viewport } from '~/canvas/viewport'
import { changedAt, clampZoom, showing, tidyAngle, withPointAt, toPage } from '~/canvas/viewport'

/** How one drawing is looked at: the pass, the instrument, the selection and the viewport. */
export const useViewStore = defineStore('view', () => {
  const pass = ref<PassName>('lines')
  const chosen = reactive(firstInstruments())
  const selection = ref<string[]>([])
  /** Chosen shapes of layers. */
  const solids = ref<string[]>([])
  const nodes = ref<NodeRef[]>([])
  /** Chosen width stops, the last chosen last. */
  const stops = ref<StopRef[]>([])
  const stop = computed({
    get: () => stops.value.at(-1) ?? null,
    set: (one: StopRef | null) => (stops.value = one ? [one] : []),
  })
  /** A field of the Strip that is to have the keyboard; a fresh object each time. */
  const asked = shallowRef<{ field: 'width' } | null>(null)
  /** A place on a line (0..1) under the pointer, on the canvas or in the weight graph. */
  const place = ref<{ line: string; at: number } | null>(null)
  /** A hand drags in the weight graph. */
  const graphHeld = ref(false)
  const activeLayer = ref<string | null>(null)
  /** The layer of the sketch that is in hand; null: the topmost. */
  const sketchLayer = ref<string | null>(null)
  /** Of the layers of ink only the one in use is shown. */
  const solo = ref(false)
  const viewport = ref<Viewport>({ x: 0, y: 0, zoom: 1, angle: 0, mirrored: false })
  const size = ref({ width: 1, height: 1 })
  /** The whole page is shown, and goes on to be when the window changes, until the person moves it. */
  const fitting = ref(true)
  /** The drawing has the keyboard because keys brought it there: then its focus is shown. */
  const byKey = ref(false)
  /** What a screen reader is to say. */
  const spoken = ref('')
  const bare = ref(false)
  /** The pencil is out of sight while its key is held. */
  const sketchHidden = ref(false)
  /** Held: the pencil is looked at without the ink. */
  const inkHidden = ref(false)
  /** Left of this share of the canvas the pencil is seen, right of it the ink; null: both. */
  const pencilWipe = ref<number | null>(null)
  /** As `pencilWipe`; what leaves the house is judged without the pencil. */
  const wipedAt = computed(() => (pass.value === 'deliver' ? null : pencilWipe.value))
  /** What lies off the pencil is shown so. */
  const halo = ref(false)
  const folds = useRemembered('bellatrait:folds', { column: false, dock: false, islands: true })
  const hint = ref('')
  /** Long work under way that the canvas tells of. */
  const { work, beginWork } = useLongWork()
  /** Chosen islands of the shapes, by their keys. */
  const islands = ref<string[]>([])
  /** Outlines as expanded are shown over those of the shapes. */
  const compared = ref(false)

  const instrument = computed(() => chosen[pass.value])
  /** Whether the derived shapes are seen, not the lines. */
  const showsShapes = computed(() => passOf(pass.value).showsShapes)

  function select(ids: readonly string[]): void {
    selection.value = [...ids]
    nodes.value = nodes.value.filter((n) => ids.includes(n.line))
    if (stops.value.some((s) => !ids.includes(s.line))) stops.value = stops.value.filter((s) => ids.includes(s.line))
  }

  /** The id of the layer that is looked at alone, or null. */
  const alone = computed(() => (solo.value ? activeLayer.value : null))

  /** Zooms by `factor` about the middle of the view. */
  const zoomBy = (factor: number): void => zoomAt(middle(), factor)

  /** Zooms by `factor` and keeps the document point under the screen point `at` where it is. */
  function zoomAt(at: Vec, factor: number): void {
    fitting.value = false
    viewport.value = changedAt(viewport.value, at, { zoom: clampZoom(viewport.value.zoom * factor) })
  }

  function panBy(dx: number, dy: number): void {
    fitting.value = false
    const at = toPage(viewport.value, { x: -dx, y: -dy })
    viewport.value = { ...viewport.value, x: at.x, y: at.y }
  }

  const middle = (): Vec => ({ x: size.value.width / 2, y: size.value.height / 2 })

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
    viewport.value = showing(viewport.value, page, size.value, 26, zoom)
  }

  /** Keys give the keyboard to the drawing. */
  function takeKeyboard(drawing: HTMLElement | null | undefined): void {
    drawing?.focus({ preventScroll: true })
    byKey.value = true
  }

  function reset(): void {
    pass.value = 'lines'
    Object.assign(chosen, firstInstruments())
    selection.value = []
    solids.value = []
    nodes.value = []
    stops.value = []
    place.value = null
    activeLayer.value = null
    sketchLayer.value = null
    solo.value = false
    viewport.value = { ...viewport.value, angle: 0, mirrored: false }
    bare.value = false
    sketchHidden.value = false
    pencilWipe.value = null
    halo.value = false
    islands.value = []
    compared.value = false
  }

  return {
    pass,
    chosen,
    instrument,
    showsShapes,
    selection,
    solids,
    nodes,
    stops,
    stop,
    asked,
    place,
    graphHeld,
    activeLayer,
    sketchLayer,
    solo,
    alone,
    viewport,
    size,
    bare,
    sketchHidden,
    inkHidden,
    pencilWipe,
    wipedAt,
    halo,
    folds,
    hint,
    work,
    beginWork,
    islands,
    compared,
    select,
    zoomAt,
    zoomBy,
    fitting,
    spoken,
    byKey,
    takeKeyboard,
    panBy,
    turnBy,
    setUpright,
    mirror,
    centreOn,
    showPage,
    reset,
  }
})
