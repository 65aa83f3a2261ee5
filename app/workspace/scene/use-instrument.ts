import { useEventListener } from '@vueuse/core'
import type { Ref, ShallowRef } from 'vue'
import { shallowRef, watch } from 'vue'
import { instrumentOf } from '~/catalogue/instruments'
import type { Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { useClingStore } from '~/stores/cling'
import { useDrawingStore } from '~/stores/drawing'
import { useInkInHand } from '~/stores/ink-in-hand'
import { useOutlinesStore } from '~/stores/outlines'
import { useStudioStore } from '~/stores/studio'
import { useViewStore } from '~/stores/view'
import { createOutlineWorktop } from '../outline-worktop'
import { keepUnderWay } from '../under-way'
import type { Ink } from '../use-ink'

/** The instrument in the hand. */
export interface InstrumentInHand {
  instrument: ShallowRef<Instrument | null>
  /** Writes down what is laid node by node, so that it outlives a crash. */
  keepLaid: () => void
  /** Lays the instrument aside: what is under way becomes a step. */
  putDown: () => void
}

/**
 * Puts the chosen instrument into the hand, tells it what changed besides, and keeps what it is laying.
 *
 * @param isPressed whether the hand is down: a stroke is written down only when the page goes
 */
export function useInstrument(
  ink: Ink,
  worktop: Worktop,
  tick: Ref<number>,
  isPressed: () => boolean,
): InstrumentInHand {
  const store = useDrawingStore()
  const view = useViewStore()
  const { preferences } = useStudioStore()
  const inkInHand = useInkInHand()
  const cling = useClingStore()
  const outlines = useOutlinesStore()
  const outlineWorktop = createOutlineWorktop(worktop)
  const instrument = shallowRef<Instrument | null>(null)
  /** Whether something that is being laid is written down. */
  let kept = false

  function keepLaid(going = false): void {
    if (!store.drawing || (isPressed() && !going)) return
    const laid = instrument.value?.underWay?.() ?? null
    if (laid || kept) keepUnderWay(store.drawing.id, laid)
    kept = !!laid
  }

  function putDown(): void {
    if (!store.drawing) return
    instrument.value?.leave?.()
    instrument.value = null
    keepLaid()
  }

  watch(
    () => view.instrument,
    (name) => {
      const before = instrument.value
      before?.leave?.()
      const tool = instrumentOf(name)
      instrument.value = tool ? new tool.make(tool.onOutlines ? outlineWorktop : worktop) : null
      if (before) keepLaid()
      tick.value++
    },
    { immediate: true },
  )

  const review = (): void => instrument.value?.review?.()
  watch(
    () => [preferences.contact, preferences.light, preferences.match, preferences.fill, preferences.cling],
    review,
    {
      deep: true,
    },
  )
  watch(
    [
      () => preferences.fenceWidths,
      () => view.selection,
      () => store.drawing?.layers,
      () => store.drawing?.settings,
      () => store.drawing?.amendments,
      () => store.drawing?.fills,
      () => inkInHand.id,
      () => cling.pencil,
    ],
    review,
  )

  watch(
    () => store.overtaken,
    () => {
      instrument.value?.overtaken?.()
      tick.value++
    },
    { flush: 'sync' },
  )

  watch(
    [ink.shapes, () => !!instrumentOf(view.instrument)?.onOutlines],
    ([result, wanted]) => wanted && outlines.show(result?.shapes ?? []),
    { immediate: true },
  )

  useEventListener(window, 'pagehide', () => keepLaid(true))

  return { instrument, keepLaid: () => keepLaid(), putDown }
}
