import { useThrottleFn } from '@vueuse/core'
import type { Remote } from 'comlink'
import { wrap } from 'comlink'
import type { ComputedRef, InjectionKey, Ref, ShallowRef } from 'vue'
import { computed, inject, onScopeDispose, provide, ref, shallowRef, watch } from 'vue'
import type { Drawing, Layer, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { shapeSettingsOf } from '#core/model/fineness'
import { isSeen, seenLines } from '#core/model/queries'
import type { ShapesResult } from '#core/ink/open-ink'
import type { InFrontOf } from '#core/ink/front/as-seen'
import type { TrimResult } from '#core/ink/pieces/trim-stage'
import { withCopies } from '#core/repetition/with-copies'
import { OutlineCache } from '~/canvas/outline-cache'
import type { InkEntry } from '~/painting/paint-stack'
import { Stacker } from '~/canvas/stacker'
import { triedOnPage } from './tried-on-page'
import { TuckedLines } from '~/canvas/tucked-lines'
import { useDrawingStore } from '~/stores/drawing'
import { changedBesides, findLine } from '#core/model/find'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import type { IslandOfInk } from '~/instruments/worktop'
import type { Contour, DrawnShape } from '~/workers/contour-book'
import { GeometryThread, Hang } from '~/workers/geometry-thread'
import type { Outline } from '~/painting/outline'
import type { RasterWorker } from '~/workers/raster.worker'
import { countIslands, islandsOfDrawn } from './islands'
import { tellsFailed } from './tell-failed'
import { RemoteSession } from '~/workers/remote-session'

/** The ink of the open drawing: its outlines, the stack on screen, the shapes, and the workers behind them. */
export interface Ink {
  raster: Remote<RasterWorker>
  geometry: GeometryThread
  cache: OutlineCache
  /** What lines show beside others. */
  tucked: TuckedLines
  /** What each trim takes away, as the session said last. */
  trims: ShallowRef<readonly TrimResult[]>
  /** What lies in front of lines, as the session said last. */
  inFront: ShallowRef<InFrontOf>
  session: RemoteSession
  stack: ShallowRef<InkEntry[]>
  shapes: ShallowRef<ShapesResult | null>
  /** How many islands the shapes have, and which: listed when somebody asks. */
  islandCount: ComputedRef<number>
  islands: () => readonly IslandOfInk[]
  /** How contours of the shapes were simplified. */
  measureOf: (contour: Path) => Contour['measure']
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

/** Work on shapes that has gone on for less than this is let finish before the next edit is followed, ms. */
const SHORT = 400

/** Of so many lines at most the entries are made anew one by one. */
const FEW = 64

/** A hand that moves the view is told of so often, ms. */
const HAND = 100

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
  const cache = new OutlineCache({
    fetch: fetchOutlines,
    tolerance: () => (store.drawing ? shapeSettingsOf(store.drawing).tolerance : 1),
    late: () => late.value++,
    stuck: tellStuck,
  })
  const stack = shallowRef<InkEntry[]>([])
  const shapes = shallowRef<ShapesResult | null>(null)
  const drawn = shallowRef<readonly DrawnShape[]>([])
  const measures = new WeakMap<Path, Contour['measure']>()
  const shapesOf = shallowRef<Drawing | null>(null)
  const progress = ref<number | null>(null)
  const tucked = new TuckedLines()
  const trims = shallowRef<readonly TrimResult[]>([])
  const inFront = shallowRef<InFrontOf>(new Map())
  const shown = (line: Line): Line =>
    store.drawing && trial.current ? triedOnPage(store.drawing, trial.shown)(line) : line
  const stacker = new Stacker(cache, shown, tucked)
  const session = new RemoteSession(geometry)
  /** The newest call of the lines to the screen; older ones give up. */
  let newest = 0
  let turn = 0

  const tellFailed = tellsFailed()

  function tellStuck({ id }: Line): void {
    store.tell(
      'A line is so intricate that its ink could not be worked out in time. It is shown without: make it simpler, or take it out.',
      [{ title: 'Choose it', run: () => (view.selection = [id]) }],
    )
  }

  function stopShapes(): void {
    session.stopShapes()
    making = progress.value = null
  }

  const isShown = (layer: Layer): boolean => isSeen(layer, view.alone)

  const wantsShapes = (): boolean => view.showsShapes

  /** Until the first shapes are there the lines stand in for them: a page is never bare for as long as they take. */
  const showsLines = (): boolean => !wantsShapes() || !shapes.value

  async function showLines(drawing: Drawing): Promise<void> {
    const mine = ++newest
    const whole = withCopies(drawing)
    const lines = seenLines(whole)
    const { current } = trial
    // What is tried on may change before all lines have followed: the next round begins where this one ended.
    const from = current ? turn % Math.max(1, lines.length) : 0
    const came = await cache.fill(
      [...lines.slice(from), ...lines.slice(0, from)],
      shown,
      () => mine === newest,
      (share) => {
        if (store.drawing !== drawing || !showsLines()) return
        if (!wantsShapes()) progress.value = share < 1 && !current ? share : null
        stack.value = stacker.linesOf(whole, isShown)
      },
    )
    turn = from + came
    if (mine === newest && !wantsShapes()) void followTucks()
  }

  /** What lines show beside others is asked for one state after the other, while the hand drags, too. */
  let asking: { again: boolean } | null = null

  async function followTucks(): Promise<void> {
    const { drawing } = store
    // It was left meanwhile.
    if (!drawing) return
    if (asking) {
      asking.again = true
      return
    }
    const mine = (asking = { again: false })
    try {
      const answer = await session.clipped(drawing)
      if (answer && store.drawing?.id === drawing.id) {
        trims.value = answer.trims
        inFront.value = answer.inFront
        const lines = tucked.take(withCopies(drawing), answer.clipped, answer.inFront)
        const poured = [
          answer.fills && stacker.takeFills(answer.fills),
          answer.tints && stacker.takeTints(answer.tints),
          stacker.takeCasts(answer.casts),
        ].some(Boolean)
        if ((lines.length || poured) && showsLines()) {
          const few = !poured && lines.length <= FEW
          stack.value =
            (few && stacker.withLinesAnew(stack.value, lines, withCopies(store.drawing), isShown)) ||
            stacker.linesOf(withCopies(store.drawing), isShown)
        }
        late.value++
      }
    } catch (e) {
      if (!(e instanceof Hang)) throw e
    } finally {
      asking = null
    }
    if (mine.again && store.drawing) void followTucks()
  }

  function fetchOutlines(lines: readonly Line[], longest: number): Promise<Outline[]> {
    const drawing = store.drawing!
    const whole = withCopies(drawing)
    return session.outlines(drawing, lines, (l) => findLine(whole, l.id)?.line === l, longest)
  }

  /** Shapes are made for one state after the other: an edit that comes meanwhile waits, unless the work is long. */
  let making: { since: number; again: boolean } | null = null

  async function showShapes(): Promise<void> {
    if (making && performance.now() - making.since < SHORT) {
      making.again = true
      return
    }
    const mine = (making = { since: performance.now(), again: false })
    const drawing = store.drawing!
    const isNewest = (): boolean => mine === making
    if (!stack.value.length) void showLines(drawing)
    let taken
    try {
      taken = await session.shapes(drawing, (share) => isNewest() && (progress.value = share))
    } catch (e) {
      if (!isNewest()) return
      making = progress.value = null
      store.notice =
        e instanceof Hang
          ? 'The shapes of this drawing take too long and were given up. Take out or simplify what is densest, or turn off Unite.'
          : `The shapes could not be made. ${(e as Error).message}`
      return
    }
    // Every answer is taken: the next one only tells what differs from it.
    const entries = taken && stacker.shapesOf(drawing, taken.drawn)
    if (!isNewest()) return
    making = null
    if (!store.drawing || !wantsShapes()) return
    if (mine.again) void showShapes()
    else progress.value = null
    if (!taken || !entries || store.drawing.id !== drawing.id) return
    for (const { parts } of taken.drawn) for (const part of parts) measures.set(part.path, part.measure)
    shapes.value = taken.result
    drawn.value = taken.drawn
    void followTucks()
    shapesOf.value = drawing
    stack.value = entries
    tellFailed(drawing, taken.result.failed)
  }

  watch(
    [() => store.drawing, () => wantsShapes(), () => store.changing, () => view.alone, () => trial.current],
    ([drawing, forShapes], [before, wasForShapes]) => {
      if (!drawing) {
        newest++
        stack.value = []
        shapes.value = null
        drawn.value = []
        return
      }
      // Chosen lines under the hand are drawn live; the tiles follow when the hand lets go.
      if (
        !forShapes &&
        store.changing &&
        view.selection.length <= MOST_LIVE &&
        !view.solids.length &&
        !changedBesides(before ?? null, drawing, view.selection)
      ) {
        void followTucks()
        return
      }
      if (!forShapes) {
        if (wasForShapes) stopShapes()
        void showLines(drawing)
        return
      }
      void showShapes()
    },
    { immediate: true },
  )

  watch(
    () => view.viewport,
    useThrottleFn(() => session.handMoves(), HAND),
  )

  onScopeDispose(() => {
    geometry.end()
    rasterThread.terminate()
  })

  const ink: Ink = {
    raster,
    geometry,
    cache,
    tucked,
    trims,
    inFront,
    session,
    stack,
    shapes,
    islandCount: computed(() => countIslands(drawn.value)),
    islands: () => islandsOfDrawn(drawn.value),
    measureOf: (contour) => measures.get(contour) ?? null,
    upToDate: computed(() => !!shapes.value && shapesOf.value === store.drawing),
    progress,
    late,
    stopShapes,
  }
  provide(KEY, ink)
  return ink
}
