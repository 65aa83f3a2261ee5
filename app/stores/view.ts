import { defineStore } from 'pinia'
import { computed, reactive, ref, watch } from 'vue'
import type { Vec } from '#core/geometry/point'

export const PASSES = ['sketch', 'lines', 'weight', 'shapes', 'deliver'] as const
export type PassName = (typeof PASSES)[number]

export const PASS_TITLES: Record<PassName, string> = {
  sketch: 'Sketch',
  lines: 'Lines',
  weight: 'Weight',
  shapes: 'Shapes',
  deliver: 'Deliver',
}

/** The instruments of each pass by their place in the tray. */
export const TRAY: Record<PassName, readonly string[]> = {
  sketch: ['place'],
  lines: ['select', 'pen', 'bow', 'freehand', 'nodes', 'figure'],
  weight: ['select', 'caliper', 'nodes'],
  shapes: ['inspect'],
  deliver: [],
}

export const TRAY_KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const

const FIRST: Record<PassName, string> = { sketch: 'place', lines: 'pen', weight: 'caliper', shapes: 'inspect', deliver: '' }

/** A node of a line. */
export interface NodeRef {
  line: string
  index: number
}

/** Document point at the view's top left, and screen px per document px. */
export interface Viewport {
  x: number
  y: number
  zoom: number
}

export const SMALLEST_ZOOM = 0.05
export const LARGEST_ZOOM = 64

const FOLDS = 'bellatrait:folds'

function rememberedFolds(): { column: boolean; dock: boolean } {
  try {
    return { column: false, dock: false, ...(JSON.parse(localStorage.getItem(FOLDS) ?? '{}') as object) }
  } catch {
    return { column: false, dock: false }
  }
}

/** How one drawing is looked at: the pass, the instrument, the selection and the viewport. */
export const useViewStore = defineStore('view', () => {
  const pass = ref<PassName>('lines')
  const chosen = reactive<Record<PassName, string>>({ ...FIRST })
  const selection = ref<string[]>([])
  const nodes = ref<NodeRef[]>([])
  const stop = ref<{ line: string; index: number } | null>(null)
  /** A place on a line (0..1) under the pointer, on the canvas or in the weight graph. */
  const place = ref<{ line: string; at: number } | null>(null)
  const activeLayer = ref<string | null>(null)
  const viewport = ref<Viewport>({ x: 0, y: 0, zoom: 1 })
  const size = ref({ width: 1, height: 1 })
  const bare = ref(false)
  const folds = reactive(rememberedFolds())
  const hint = ref('')
  const shape = ref<string | null>(null)

  watch(folds, (f) => localStorage.setItem(FOLDS, JSON.stringify(f)))

  const instrument = computed(() => chosen[pass.value])

  function select(ids: readonly string[]): void {
    selection.value = [...ids]
    nodes.value = nodes.value.filter((n) => ids.includes(n.line))
    if (stop.value && !ids.includes(stop.value.line)) stop.value = null
  }

  /** Zooms by `factor` and keeps the document point under the screen point `at` where it is. */
  function zoomAt(at: Vec, factor: number): void {
    const { x, y, zoom } = viewport.value
    const next = Math.min(LARGEST_ZOOM, Math.max(SMALLEST_ZOOM, zoom * factor))
    viewport.value = { x: x + at.x / zoom - at.x / next, y: y + at.y / zoom - at.y / next, zoom: next }
  }

  function panBy(dx: number, dy: number): void {
    const { x, y, zoom } = viewport.value
    viewport.value = { x: x - dx / zoom, y: y - dy / zoom, zoom }
  }

  /** Shows the whole page with a margin, or the page at `zoom` in the middle. */
  function showPage(page: { width: number; height: number }, zoom?: number): void {
    const margin = 26
    const { width, height } = size.value
    const fit = Math.min((width - 2 * margin) / page.width, (height - 2 * margin) / page.height)
    const z = Math.min(LARGEST_ZOOM, Math.max(SMALLEST_ZOOM, zoom ?? fit))
    viewport.value = { x: page.width / 2 - width / 2 / z, y: page.height / 2 - height / 2 / z, zoom: z }
  }

  function reset(): void {
    pass.value = 'lines'
    Object.assign(chosen, FIRST)
    selection.value = []
    nodes.value = []
    stop.value = null
    place.value = null
    activeLayer.value = null
    bare.value = false
    shape.value = null
  }

  return {
    pass,
    chosen,
    instrument,
    selection,
    nodes,
    stop,
    place,
    activeLayer,
    viewport,
    size,
    bare,
    folds,
    hint,
    shape,
    select,
    zoomAt,
    panBy,
    showPage,
    reset,
  }
})
