import type { Remote } from 'comlink'
import { proxy, wrap } from 'comlink'
import type { InjectionKey, Ref, ShallowRef } from 'vue'
import { inject, onScopeDispose, provide, ref, shallowRef, watch } from 'vue'
import { colourOf } from '#core/formats/svg/write-svg'
import type { Drawing, Layer, Line, Path, Shape } from '#core/drawing/model'
import { uniteBoxes } from '#core/geometry/bounds'
import { boxOfPath } from '#core/geometry/known'
import { pathData } from '#core/geometry/path'
import { coveredRegion } from '#core/shapes/cover'
import type { ShapesResult } from '#core/shapes/derive'
import { OutlineCache } from '~/canvas/outline-cache'
import { useDrawingStore } from '~/stores/drawing'
import { findLine } from '~/stores/find'
import { useViewStore } from '~/stores/view'
import type { GeometryWorker } from '~/workers/geometry.worker'
import type { Outline } from '~/workers/outline'
import { outlineOfShape } from '~/workers/outline'
import type { InkEntry, RasterWorker } from '~/workers/raster.worker'

/** The ink of the open drawing: its outlines, the stack on screen, the shapes, and the workers behind them. */
export interface Ink {
  raster: Remote<RasterWorker>
  geometry: Remote<GeometryWorker>
  cache: OutlineCache
  stack: ShallowRef<InkEntry[]>
  shapes: ShallowRef<ShapesResult | null>
  /** Share 0..1 of long work under way, or null. */
  progress: Ref<number | null>
  stopShapes: () => void
}

const KEY: InjectionKey<Ink> = Symbol('ink')

export function useInk(): Ink {
  return inject(KEY)!
}

/** Chosen lines up to this many are drawn live rather than in tiles, so that they can change in the frame. */
export const MOST_LIVE = 200

/** How long the drawing must stay the same before its shapes are made again, ms. */
const SETTLE = 150

/** Sets up the ink of the open drawing for a workspace and everything in it. */
export function provideInk(): Ink {
  const store = useDrawingStore()
  const view = useViewStore()
  const geometryThread = new Worker(new URL('../workers/geometry.worker.ts', import.meta.url), { type: 'module' })
  const rasterThread = new Worker(new URL('../workers/raster.worker.ts', import.meta.url), { type: 'module' })
  const geometry = wrap<GeometryWorker>(geometryThread)
  const raster = wrap<RasterWorker>(rasterThread)
  const cache = new OutlineCache(geometry)
  const stack = shallowRef<InkEntry[]>([])
  const shapes = shallowRef<ShapesResult | null>(null)
  const progress = ref<number | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  const wantsShapes = (): boolean => view.pass === 'shapes' || view.pass === 'deliver'

  /** A line that covers others is drawn by the tiles, where these lie. */
  const coversChosen = (): boolean => view.selection.some((id) => store.drawing && findLine(store.drawing, id)?.line.cover)

  async function showLines(drawing: Drawing): Promise<void> {
    const lines = drawing.layers.flatMap((l) => (l.kind === 'lines' && l.visible ? l.items : []))
    let shown = false
    await cache.fill(lines, (share) => {
      if (store.drawing !== drawing || wantsShapes()) return
      progress.value = share < 1 ? share : null
      stack.value = lineStack(drawing, cache, view.isShown)
      shown = true
    })
    if (!shown && store.drawing === drawing && !wantsShapes()) stack.value = lineStack(drawing, cache, view.isShown)
  }

  async function showShapes(drawing: Drawing): Promise<void> {
    const onProgress = proxy((share: number) => {
      progress.value = share
    })
    const result = await geometry.shapes(drawing, onProgress)
    if (!result || store.drawing !== drawing || !wantsShapes()) return
    progress.value = null
    shapes.value = result
    stack.value = result.outlines.map((o) => entryOf(o, drawing))
  }

  watch(
    [() => store.drawing, () => wantsShapes(), () => store.changing, () => (view.solo ? view.activeLayer : null)],
    ([drawing, forShapes], [before, wasForShapes]) => {
      clearTimeout(timer)
      if (!drawing) {
        stack.value = []
        shapes.value = null
        return
      }
      // Chosen lines under the hand are drawn live; the tiles follow when the hand lets go.
      if (!forShapes && store.changing && view.selection.length <= MOST_LIVE && !view.solids.length && !coversChosen()) return
      if (!forShapes) {
        if (wasForShapes) void geometry.stopShapes()
        void showLines(drawing)
        return
      }
      const settle = before?.id === drawing.id && wasForShapes ? SETTLE : 0
      timer = setTimeout(() => void showShapes(drawing), settle)
    },
    { immediate: true },
  )

  onScopeDispose(() => {
    clearTimeout(timer)
    geometryThread.terminate()
    rasterThread.terminate()
  })

  const ink: Ink = {
    raster,
    geometry,
    cache,
    stack,
    shapes,
    progress,
    stopShapes: () => {
      void geometry.stopShapes()
      progress.value = null
    },
  }
  provide(KEY, ink)
  return ink
}

const entryOf = (o: Outline, drawing: Drawing, layer: Pick<Layer, 'id' | 'opacity'> | null = null, cover: Path | null = null): InkEntry => ({
  id: o.id,
  colour: colourOf(drawing, o.ink),
  data: o.data,
  box: cover ? uniteBoxes(o.box, boxOfPath(cover)) : o.box,
  cover: cover ? pathData(cover, 4) : '',
  layer: layer?.id ?? '',
  opacity: layer?.opacity ?? 1,
})

/** Entries of the visible layers, bottom to top, those of layers left out at no strength; lines whose outline is still on its way are left out. */
function lineStack(drawing: Drawing, cache: OutlineCache, isShown: (layer: Layer) => boolean): InkEntry[] {
  return drawing.layers.flatMap((layer) => {
    if (!layer.visible || layer.kind === 'sketch') return []
    const look = { id: layer.id, opacity: isShown(layer) ? layer.opacity : 0 }
    return (layer.items as (Line | Shape)[]).flatMap((item) => {
      const outline = 'path' in item ? cache.get(item) : outlineOfShape(item)
      const cover = 'path' in item ? coveredRegion(item) : null
      return outline && (outline.data || cover) ? [entryOf(outline, drawing, look, cover)] : []
    })
  })
}
