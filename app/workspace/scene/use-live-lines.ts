import type { ComputedRef } from 'vue'
import { computed } from 'vue'
import type { Line } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import { idsStandingFor, rulesOf } from '#core/repetition/images'
import { allStandingFor, reachOfAxis, withCopies } from '#core/repetition/with-copies'
import type { InkRaster } from '~/canvas/ink-raster'
import { entryOf } from '~/canvas/stacker'
import { boxInView } from '~/canvas/viewport'
import type { Instrument } from '~/instruments/instrument'
import { chosenLines } from '~/instruments/line-marks'
import type { Worktop } from '~/instruments/worktop'
import type { InkEntry } from '~/painting/paint-stack'
import { LayerColours } from '~/painting/layer-colours'
import { paintStack } from '~/painting/paint-stack'
import { useDrawingStore } from '~/stores/drawing'
import { useTrialStore } from '~/stores/trial'
import { useViewStore } from '~/stores/view'
import type { Ink } from '../use-ink'
import { MOST_LIVE } from '../use-ink'

/** What is scraped away shows so until the hand lets go. */
const SCRAPED = '#fffdf8e0'

/** What is being laid, where it is to stand out from pencil and ink. */
const LAID = '#0b6fd6'

/** Lines that are drawn live, over the tiles, because a hand may be changing them. */
export interface LiveLines {
  /** Ids of those that the tiles leave out. */
  ids: ComputedRef<string[]>
  /** A stack as it is to be seen: in its inks, or by layer. */
  seen: (stack: readonly InkEntry[]) => readonly InkEntry[]
  /** Draws them, and what instruments lay, in page px. */
  paint: (ctx: CanvasRenderingContext2D, instruments: readonly (Instrument | null)[]) => void
  /** Lines that are chosen leave the tiles; lines let go stay live until the tiles have them, which `shown` then tells. */
  exchange: (raster: InkRaster, ids: readonly string[], shown: () => void) => void
}

export function useLiveLines(ink: Ink, worktop: Worktop): LiveLines {
  const store = useDrawingStore()
  const view = useViewStore()
  const trial = useTrialStore()
  let hidden: string[] = []
  let lingering: Line[] = []
  const colours = new LayerColours()
  const seen = (stack: readonly InkEntry[]): readonly InkEntry[] =>
    view.layerColours ? colours.of(stack, store.drawing?.layers ?? []) : stack

  const rules = computed(() => (store.drawing ? rulesOf(store.drawing) : []))
  /** All that stands on the page for a line; of one that is being laid, by the rules that take along what is drawn. */
  function standing(line: Line, isFresh = false): Line[] {
    const { value: all } = rules
    if (!all.length) return [line]
    const by = isFresh ? all.filter((r) => r.fresh).map((r) => ({ ...r, lines: [...r.lines, line.id] })) : all
    return allStandingFor(line, by, reachOfAxis(store.drawing!.page))
  }

  const ids = computed(() => {
    if (view.showsShapes || view.selection.length > MOST_LIVE) return []
    const shown = new Set(ink.stack.value.map((e) => e.id))
    const { drawing } = store
    if (!drawing) return []
    return view.selection.flatMap((id) => idsStandingFor(id, rules.value)).filter((id) => shown.has(id))
  })

  function exchange(raster: InkRaster, next: readonly string[], shown: () => void): void {
    if (next.length === hidden.length && next.every((id, i) => id === hidden[i])) return
    const turned = new Set([...hidden.filter((id) => !next.includes(id)), ...next.filter((id) => !hidden.includes(id))])
    lingering = linesOf(withCopies(store.drawing!)).filter((l) => hidden.includes(l.id) && !next.includes(l.id))
    hidden = [...next]
    const boxes = ink.stack.value.filter((e) => turned.has(e.id)).map((e) => e.box)
    void raster.hide(next, boxes).then(() => {
      lingering = []
      shown()
    })
  }

  /** The stack of `lines` as they are under the hand, in their order. */
  function stackOf(lines: readonly Line[]): InkEntry[] {
    const left = new Map(lines.map((l) => [l.id, l]))
    const entry = (line: Line, was?: InkEntry): InkEntry => {
      const plain = ink.cache.inFrame(line)
      const now = entryOf(
        ink.tucked.inFrame(line, withCopies(store.drawing!), ink.cache.hasTime) ?? plain,
        store.drawing!,
        null,
        ink.tucked.behind(line),
      )
      return was ? { ...now, layer: was.layer, opacity: was.opacity } : now
    }
    const out: InkEntry[] = []
    for (const e of ink.stack.value) {
      const line = left.get(e.id)
      left.delete(e.id)
      if (line) out.push(entry(line, e))
    }
    return [...out, ...[...left.values()].map((l) => entry(l))]
  }

  function paint(ctx: CanvasRenderingContext2D, instruments: readonly (Instrument | null)[]): void {
    const box = boxInView(view.viewport, view.size)
    const live = new Set(ids.value)
    const chosen = chosenLines(worktop)
      .filter((l) => live.has(l.id))
      .flatMap((l) => standing(trial.shown(l)))
    paintStack(ctx, seen(stackOf([...lingering.filter((l) => !live.has(l.id)), ...chosen])), { box })
    for (const instrument of instruments) {
      const fresh = instrument?.freshInk?.()
      if (!fresh) continue
      for (const line of instrument!.scrapes ? [fresh] : standing(fresh, true)) {
        const entry = entryOf(ink.cache.now(line), store.drawing!)
        const colour = instrument!.scrapes ? SCRAPED : view.laidColour ? LAID : entry.colour
        paintStack(ctx, [{ ...entry, colour }], { box })
      }
    }
  }

  return { ids, seen, paint, exchange }
}
