import { useEventListener } from '@vueuse/core'
import type { Ref, ShallowRef } from 'vue'
import { nextTick, shallowRef, watch } from 'vue'
import { findLine } from '#core/model/find'
import { instrumentOf } from '~/catalogue/instruments'
import type { GoingOn } from '~/instruments/going-on'
import type { Instrument } from '~/instruments/instrument'
import type { Worktop } from '~/instruments/worktop'
import { useClingStore } from '~/stores/cling'
import { useDrawingStore } from '~/stores/drawing'
import { useDroppedStore } from '~/stores/dropped'
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
  /** What waits with a line under way while another instrument is held. */
  waiting: ShallowRef<Instrument | null>
  /** Writes down what is laid node by node, so that it outlives a crash. */
  keepLaid: () => void
  /** Lays the instrument aside: what is under way becomes a step. */
  putDown: () => void
  /** Whether the instrument has understood a key. What Escape drops can be brought back. */
  key: (name: string, shift: boolean) => boolean
  /** Brings back what was dropped since the last step; answers whether anything was. */
  bringBack: () => boolean
  /** Drops again what was just brought back and is as it was; answers whether it did. */
  dropAgain: () => boolean
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
  const dropped = useDroppedStore()
  const instrument = shallowRef<Instrument | null>(null)
  const waiting = shallowRef<Instrument | null>(null)
  /** What the waiting instrument goes by. */
  let waitsFor = ''
  /** Whether something that is being laid is written down. */
  let kept = false

  function keepLaid(going = false): void {
    if (!store.drawing || (isPressed() && !going)) return
    const laid = (waiting.value ?? instrument.value)?.underWay?.() ?? null
    if (laid || kept) keepUnderWay(store.drawing.id, laid)
    kept = !!laid
  }

  function putDown(): void {
    if (!store.drawing) return
    waiting.value?.leave?.()
    instrument.value?.leave?.()
    waiting.value = instrument.value = null
    keepLaid()
  }

  watch(
    () => view.instrument,
    (name, was) => {
      const before = instrument.value
      const waits = view.borrowing && !isPressed() && !waiting.value && !!before?.laid?.()
      if (waits) {
        waiting.value = before
        waitsFor = was!
      } else before?.leave?.()
      if (waiting.value && waitsFor === name) goOn()
      else instrument.value = made(name)
      if (before) keepLaid()
      tick.value++
    },
    { immediate: true },
  )

  function made(name: string): Instrument | null {
    const tool = instrumentOf(name)
    return tool ? new tool.make(tool.onOutlines ? outlineWorktop : worktop) : null
  }

  /** The line that waited is under way again, unless what it goes on with is another by now. */
  function goOn(): void {
    const laid = waiting.value!.laid?.() as { goingOn?: GoingOn | null } | null
    const line = laid?.goingOn?.line
    if (line && findLine(store.drawing!, line.id)?.line !== line) waiting.value!.overtaken?.()
    instrument.value = waiting.value
    waiting.value = null
  }

  // The other instrument was taken for good.
  watch(
    () => view.borrowing,
    (borrowing) => {
      if (borrowing || !waiting.value || view.instrument === waitsFor) return
      waiting.value.leave?.()
      waiting.value = null
      keepLaid()
    },
  )

  function key(name: string, shift: boolean): boolean {
    const laid = name === 'Escape' ? (instrument.value?.laid?.() ?? null) : null
    const done = instrument.value?.key?.(name, shift) ?? false
    if (laid && !instrument.value?.laid?.()) {
      const isStep = !!instrument.value?.takesUpSteps
      dropped.drop({ pass: view.pass, instrument: view.instrument, laid, isStep })
    }
    return done
  }

  function bringBack(): boolean {
    // A line that waits would be written over.
    const taken = waiting.value ? null : dropped.take()
    if (!taken) return false
    view.pass = taken.pass
    view.chosen[taken.pass] = taken.instrument
    void nextTick(() => {
      instrument.value?.takeUp?.(taken.laid)
      keepLaid()
      tick.value++
    })
    return true
  }

  function dropAgain(): boolean {
    const laid = instrument.value?.laid?.()
    if (!laid || !dropped.again || JSON.stringify(laid) !== JSON.stringify(dropped.again.laid)) return false
    return key('Escape', false)
  }

  const review = (): void => {
    if (store.drawing) instrument.value?.review?.()
  }
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
      waiting.value?.overtaken?.()
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

  return { instrument, waiting, keepLaid: () => keepLaid(), putDown, key, bringBack, dropAgain }
}
