import type { Remote } from 'comlink'
import { proxy, wrap } from 'comlink'
import type { ComputedRef, InjectionKey, Ref, ShallowRef } from 'vue'
import { computed, inject, onScopeDispose, provide, ref, shallowRef, watch } from 'vue'
import type { Drawing, Line } from '#core/drawing/model'
import { shapeSettingsOf } from '#core/drawing/fineness'
import { patchesBetween } from '#core/drawing/patch'
import { isSeen } from '#core/drawing/queries'
import type { ShapesResult } from '#core/ink/open-ink'
import { OutlineCache } from '~/canvas/outline-cache'
import type { InkEntry } from '~/canvas/paint-stack'
import { entryOf, Stacker } from '~/canvas/stacker'
import { useDrawingStore } from '~/stores/drawing'
import { changedBesides, findLine } from '~/stores/find'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import { HeldContours } from '~/workers/contour-book'
import { GeometryThread, Hang } from '~/workers/geometry-thread'
import type { GeometryWorker } from '~/workers/geometry.worker'
import type { Outline } from '~/workers/outline'
import { outlineOfContours } from '~/workers/outline'
import type { RasterWorker } from '~/workers/raster.worker'

/** The ink of the open drawing: its outlines, the stack on screen, the shapes, and the workers behind them. */
export interface Ink {
  raster: Remote<RasterWorker>
  geometry: GeometryThread
  cache: OutlineCache
  stack: ShallowRef<InkEntry[]>
  shapes: ShallowRef<ShapesResult | null>
  /** Whether the shapes are those of the drawing as it is now. */
  upToDate: ComputedRef<boolean>
  /** Share 0..1 of long work under way, or null. */
  progress: Ref<number | null>
  /** Rises when an outline came after the frame that asked for it. */
  late: Ref<number>
  stopShapes: () => void
}

const KEY: InjectionKey<Ink> = Symbol('ink')

export function useInk(): Ink {
  return inject(KEY)!
}

/** Chosen lines up to this many are drawn live rather than in tiles, so that they can change in the frame. */
export const MOST_LIVE = 200

/** Longest time between two signs of life from the making of shapes, ms. */
const LONGEST_STEP = 90_000

/** Sets up the ink of the open drawing for a workspace and everything in it. */
export function provideInk(): Ink {
  const store = useDrawingStore()
  const view = useViewStore()
  const trial = useTrialStore()
  const rasterThread = new Worker(new URL('../workers/raster.worker.ts', import.meta.url), { type: 'module' })
  const geometry = new GeometryThread()
  const raster = wrap<RasterWorker>(rasterThread)
  /** Counts outlines of heavy lines that came after their frame. */
  const late = ref(0)
  const cache = new OutlineCache({ fetch: fetchOutlines, tolerance: () => (store.drawing ? shapeSettingsOf(store.drawing).tolerance : 1), late: () => late.value++, stuck: tellStuck })
  const stack = shallowRef<InkEntry[]>([])
  const shapes = shallowRef<ShapesResult | null>(null)
  const shapesOf = shallowRef<Drawing | null>(null)
  const progress = ref<number | null>(null)
  const stacker = new Stacker(cache, trial.shown)
  /** The drawing as the worker has it, and the contours that came from there. */
  let there: { worker: Remote<GeometryWorker>; drawing: Drawing; contours: HeldContours } | null = null
  /** The newest call of the lines to the screen; older ones give up. */
  let newest = 0
  let newestShapes = 0
  let turn = 0

  function tellStuck({ id }: Line): void {
    store.tell('A line is so intricate that its ink could not be worked out in time. It is shown without: make it simpler, or take it out.', [{ title: 'Choose it', run: () => (view.selection = [id]) }])
  }

  const wantsShapes = (): boolean => view.pass === 'shapes' || view.pass === 'deliver'

  /** A line that covers others is drawn by the tiles, where these lie. */
  const coversChosen = (): boolean => view.selection.some((id) => store.drawing && findLine(store.drawing, id)?.line.cover)

  async function showLines(drawing: Drawing): Promise<void> {
    const mine = ++newest
    const lines = drawing.layers.flatMap((l) => (l.kind === 'lines' && l.visible ? l.items : []))
    const { shown, current } = trial
    // What is tried on may change before all lines have followed: the next round begins where this one ended.
    const from = current ? turn % Math.max(1, lines.length) : 0
    const came = await cache.fill([...lines.slice(from), ...lines.slice(0, from)], shown, () => mine === newest, (share) => {
      if (store.drawing !== drawing || wantsShapes()) return
      progress.value = share < 1 && !current ? share : null
      stack.value = stacker.linesOf(drawing, (l) => isSeen(l, view.alone))
    })
    turn = from + came
  }

  /** Outlines of lines as they are now: those of the drawing are there already, others go along. */
  function fetchOutlines(lines: readonly Line[], longest: number): Promise<Outline[]> {
    return geometry.within(longest, (worker) => {
      follow(worker, store.drawing!)
      return worker.outlines(lines.map((l) => (findLine(store.drawing!, l.id)?.line === l ? l.id : l)))
    })
  }

  /** Brings the drawing in the worker up to date: an edit goes there as patches. */
  function follow(worker: Remote<GeometryWorker>, drawing: Drawing): void {
    if (!there || there.worker !== worker || there.drawing.id !== drawing.id) {
      void worker.open(drawing)
      there = { worker, drawing, contours: new HeldContours() }
      return
    }
    const patches = patchesBetween(there.drawing, drawing)
    if (patches.length) void worker.apply(patches)
    there.drawing = drawing
  }

  async function showShapes(drawing: Drawing): Promise<void> {
    const mine = ++newestShapes
    let taken
    try {
      taken = await geometry.within(LONGEST_STEP, async (worker, alive) => {
        follow(worker, drawing)
        const { contours } = there!
        const answer = await worker.shapes(
          proxy((share: number) => {
            alive()
            if (mine === newestShapes) progress.value = share
          }),
        )
        return answer && contours.take(answer)
      })
    } catch (e) {
      if (mine !== newestShapes) return
      progress.value = null
      store.notice = e instanceof Hang ? 'The shapes of this drawing take too long and were given up. Take out or simplify what is densest, or turn off Unite.' : `The shapes could not be made. ${(e as Error).message}`
      return
    }
    if (!taken || store.drawing !== drawing || !wantsShapes()) return
    progress.value = null
    const { result, contours } = taken
    shapes.value = result
    shapesOf.value = drawing
    stack.value = result.shapes.map((s, i) => entryOf(outlineOfContours(s, contours[i]!), drawing))
    const [lost] = result.failed
    if (lost) store.tell(`${result.failed.length > 1 ? `${result.failed.length} lines have` : 'A line has'} no ink: ${lost.message}`, [{ title: 'Choose it', run: () => (view.selection = result.failed.map((f) => f.id)) }])
  }

  watch(
    [() => store.drawing, () => wantsShapes(), () => store.changing, () => view.alone, () => trial.current],
    ([drawing, forShapes], [before, wasForShapes]) => {
      if (!drawing) {
        stack.value = []
        shapes.value = null
        return
      }
      // Chosen lines under the hand are drawn live; the tiles follow when the hand lets go.
      if (!forShapes && store.changing && view.selection.length <= MOST_LIVE && !view.solids.length && !coversChosen() && !changedBesides(before ?? null, drawing, view.selection)) return
      if (!forShapes) {
        if (wasForShapes) void geometry.remote.stopShapes()
        void showLines(drawing)
        return
      }
      void showShapes(drawing)
    },
    { immediate: true },
  )

  onScopeDispose(() => {
    geometry.end()
    rasterThread.terminate()
  })

  const ink: Ink = {
    raster,
    geometry,
    cache,
    stack,
    shapes,
    upToDate: computed(() => !!shapes.value && shapesOf.value === store.drawing),
    progress,
    late,
    stopShapes: () => {
      void geometry.remote.stopShapes()
      progress.value = null
    },
  }
  provide(KEY, ink)
  return ink
}
