import type { Ref } from 'vue'
import type { Drawing, Layer, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { layerForLine, openLines, openSolidLayers, openSolids, seenLines } from '#core/model/queries'
import { asSeen, isBehind, isUnseen } from '#core/ink/front/as-seen'
import { imagesIn } from '#core/repetition/with-copies'
import { inTurns } from '#core/turns'
import { linesUnder, solidUnder } from '#core/outline/hit-line'
import type { LineHit } from '#core/outline/hit-line'
import type { Worktop } from '~/instruments/worktop'
import { useDrawingStore } from '~/stores/drawing'
import { useCopiesStore } from '~/stores/copies'
import { useFrontsStore } from '~/stores/fronts'
import { useInkInHand } from '~/stores/ink-in-hand'
import { usePracticeStore } from '~/stores/practice'
import { useStudioStore } from '~/stores/studio'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import { chosenAmong, islandUnder } from './islands'
import { copied } from './use-copied-weight'
import type { Ink } from './use-ink'
import { fillsOfWorktop } from './worktop-fills'
import { pencilOfWorktop } from './worktop-pencil'

/** Long work goes on for so long between two looks at the hand, and is told of only after a while, ms. */
const TURN = 12
const QUIET = 250

/** The worktop that instruments work at, over the stores. */
export function createWorktop(
  ink: Ink,
  tick: Ref<number>,
  { expanded, bridges }: Record<'expanded' | 'bridges', Readonly<Ref<readonly Path[]>>>,
): Worktop {
  const store = useDrawingStore()
  const view = useViewStore()
  const studio = useStudioStore()
  const practice = usePracticeStore()
  const hand = useInkInHand()
  const trial = useTrialStore()
  const fronts = useFrontsStore()
  const copies = useCopiesStore()
  const drawing = (): Drawing => store.drawing!

  function layerForInk(): string | null {
    const active = drawing().layers.find((l) => l.id === view.activeLayer)
    const other = layerForLine(drawing(), view.activeLayer)
    if (other && other.id === active?.id) return active.id
    if (!active || active.kind !== 'lines') {
      if (other) return other.id
      store.notice = 'No layer is open for lines. Add one with + in Layers, or unlock or show one.'
      return null
    }
    refuse(active, other ?? null)
    return null
  }

  /** Says why a layer takes nothing, with the ways out as buttons. */
  function refuse(layer: Layer, other: Layer | null): void {
    const state = layer.locked ? 'locked' : 'hidden'
    const way = layer.locked ? 'Unlock it' : 'Show it'
    const opened = (draft: Drawing): void => {
      const found = draft.layers.find((l) => l.id === layer.id)
      if (found) Object.assign(found, layer.locked ? { locked: false } : { visible: true })
    }
    store.tell(`Layer "${layer.name}" is ${state}. ${way}${other ? `, or draw on "${other.name}"` : ''}.`, [
      { title: way, run: () => store.edit(`${layer.locked ? 'Unlock' : 'Show'} ${layer.name}`, opened) },
      ...(other ? [{ title: `Draw on ${other.name}`, run: () => void (view.activeLayer = other.id) }] : []),
    ])
  }

  function layerForSolids(): { layer: string | null; above: number } | null {
    const { layers } = drawing()
    const place = layers.findIndex((l) => l.id === view.activeLayer)
    const active = layers[place]
    if (active && (active.kind === 'fills' || active.kind === 'shapes')) {
      if (active.visible && !active.locked) return { layer: active.id, above: place }
      refuse(active, openSolidLayers(drawing()).at(-1) ?? null)
      return null
    }
    const open = openSolidLayers(drawing()).at(-1)
    return { layer: open?.id ?? null, above: place < 0 ? layers.length - 1 : place }
  }

  const linesAt = (p: Vec, reach: number, hiddenToo = false): LineHit[] =>
    linesUnder(openLines(drawing(), view.alone), p, reach / view.viewport.zoom, hiddenToo).filter(
      (hit) => !isBehind(hit.point, ink.inFront.value.get(hit.line.id)),
    )

  let newestWork = 0

  async function longWork<R>(what: string, work: Generator<number, R>, done: (result: R) => void): Promise<void> {
    const mine = ++newestWork
    const began = performance.now()
    let going = true
    const shown = view.beginWork(what, () => (going = false))
    const result = await inTurns(work, {
      turn: TURN,
      rest: () => new Promise((resolve) => setTimeout(resolve)),
      go: (share) => {
        if (mine !== newestWork) return false
        if (performance.now() - began > QUIET) shown.tell(share)
        return going
      },
    }).finally(shown.end)
    if (mine !== newestWork) return
    if (result !== null) done(result)
  }

  return {
    drawing,
    zoom: () => view.viewport.zoom,
    selection: () => view.selection,
    stretch: () => view.stretch,
    markStretch: (stretch) => (view.stretch = stretch),
    select: (ids, justLaid) => view.select(ids, justLaid),
    nodes: () => view.nodes,
    chooseNodes: (nodes) => {
      view.nodes = [...nodes]
    },
    stops: () => view.stops,
    chooseStops: (stops) => {
      view.stops = [...stops]
    },
    askFor: (field) => {
      view.asked = { field }
    },
    change: (recipe) => store.change(recipe),
    show: (next) => store.show(next),
    finish: (label) => store.finish(label),
    drop: () => store.drop(),
    edit: (label, recipe) => store.edit(label, recipe),
    layerForInk,
    layerForSolids,
    nextWeight: () => studio.nextWeight(),
    copiedWeight: () => copied.value,
    copyWeight: (weight) => {
      copied.value = weight
    },
    preferences: () => studio.preferences,
    remember: (choices) => void Object.assign(studio.preferences, choices),
    lineAt: (p, reach, hiddenToo) => linesAt(p, reach, hiddenToo)[0] ?? null,
    linesAt,
    nextInk: () => hand.lineInk,
    allLines: (open) =>
      open ? openLines(drawing(), view.alone) : withImages(seenLines(drawing(), view.alone), imagesIn(drawing())),
    asSeen: (line) => {
      const seen = asSeen(line, ink.inFront.value.get(line.id))
      return seen === line || !isUnseen(seen) ? seen : null
    },
    solids: () => view.solids,
    noteOver: (line) => {
      view.lineOver = line
    },
    chooseSolids: (ids) => {
      view.solids = [...ids]
    },
    allSolids: () => openSolids(drawing(), view.alone),
    solidAt: (p) => solidUnder(openSolids(drawing(), view.alone), p),
    piecesAt: (p) => ink.session.ask(drawing(), 'piecesAt', p),
    beyond: (fence, most) => ink.session.ask(drawing(), 'beyond', [...fence], most),
    joints: () => ink.session.ask(drawing(), 'joints'),
    fronts: () => ink.session.ask(drawing(), 'fronts'),
    noteFronts: (found) => fronts.note(found),
    frontAsked: () => fronts.asked?.key ?? null,
    askFront: (by) => fronts.step(by),
    answerFront: (which) => fronts.decide(which),
    takeSureFronts: () => fronts.takeSure(),
    endFronts: () => fronts.end(),
    takeForm: (lines) => {
      fronts.form = lines
    },
    copyRules: () => copies.rules,
    copyRuleInHand: () => copies.inHand,
    takeCopyRule: (id) => {
      copies.taken = id
    },
    freeCopies: (rule, standing) => copies.free(rule, standing),
    ...fillsOfWorktop(ink, bridges),
    ...pencilOfWorktop(),
    trims: () => ink.trims.value,
    allIslands: () => ink.islands(),
    islandAt: (p) => islandUnder(ink.islands(), p),
    chosenIslands: () => chosenAmong(ink.islands(), view.islands),
    chooseIslands: (keys) => {
      view.islands = [...keys]
    },
    expanded: () => expanded.value,
    pointOut: (place) => {
      view.place = place
    },
    say: (text) => {
      store.notice = text
    },
    tryOn: (tried) => {
      trial.current = tried
    },
    practiceTrace: () => practice.chosen?.samples ?? null,
    inTurns: (what, work, done) => void longWork(what, work, done),
    everyFrame,
    refresh: () => {
      tick.value++
    },
  }
}

/** Lines, and where else they stand; the very list where they do not. */
const withImages = (lines: readonly Line[], images: readonly Line[]): readonly Line[] =>
  images.length ? [...lines, ...images] : lines

/** Calls `step` with the time since now at each frame until it answers false; answers what stops it. */
function everyFrame(step: (ms: number) => boolean): () => void {
  const began = performance.now()
  let frame = 0
  const tick = (): void => {
    if (step(performance.now() - began)) frame = requestAnimationFrame(tick)
  }
  frame = requestAnimationFrame(tick)
  return () => cancelAnimationFrame(frame)
}
