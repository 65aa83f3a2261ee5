import { defineStore } from 'pinia'
import { computed, reactive, ref, shallowRef } from 'vue'
import type { PassName } from '~/catalogue/passes'
import { firstInstruments, passOf } from '~/catalogue/passes'
import { useLongWork } from './long-work'
import { useChoice } from './view-parts/choice'
import { useFolds } from './view-parts/folds'
import { useLooking } from './view-parts/looking'
import { useSeen } from './view-parts/seen'

/** How one drawing is looked at: the pass, the instrument, what is chosen, what is seen and from where. */
export const useViewStore = defineStore('view', () => {
  const pass = ref<PassName>('lines')
  const chosen = reactive(firstInstruments())
  const { reset: letGo, ...choice } = useChoice()
  const { reset: lookAnew, ...looking } = useLooking()
  const { reset: seeAll, ...seen } = useSeen(pass)
  /** A field of the Strip that is to have the keyboard; a fresh object each time. */
  const asked = shallowRef<{ field: 'width' } | null>(null)
  /** A hand drags in the weight graph. */
  const graphHeld = ref(false)
  /** The layer of the sketch that is in hand; null: the topmost. */
  const sketchLayer = ref<string | null>(null)
  /** The drawing has the keyboard because keys brought it there: then its focus is shown. */
  const byKey = ref(false)
  /** What a screen reader is to say. */
  const spoken = ref('')
  const { folds, stripUp } = useFolds()
  const hint = ref('')
  /** Long work under way that the canvas tells of. */
  const { work, beginWork } = useLongWork()

  const instrument = computed(() => chosen[pass.value])
  /** Whether what is set is for the next stroke, though the last one is chosen still. */
  const setsNext = computed(() => choice.laid.value && instrument.value === 'freehand')
  /** Whether the derived shapes are seen, not the lines. */
  const showsShapes = computed(() => passOf(pass.value).showsShapes)

  /** Keys give the keyboard to the drawing. */
  function takeKeyboard(drawing: HTMLElement | null | undefined): void {
    drawing?.focus({ preventScroll: true })
    byKey.value = true
  }

  /** An instrument was taken for a while: what the one before had under way waits. */
  const borrowing = ref(false)

  /** Takes an instrument for a while; what is answered gives back what the hand had in that pass, or keeps what was taken. */
  function borrow(id: string): (back?: boolean) => void {
    const of = pass.value
    const before = chosen[of]
    chosen[of] = id
    borrowing.value = true
    return (back = true) => {
      borrowing.value = false
      if (back) chosen[of] = before
    }
  }

  /** What the hand had in Lines before an instrument was called that has no place in the tray. */
  const calledFrom = ref<string | null>(null)

  /** Calls an instrument in Lines that has no place in the tray; called again, it goes and what the hand had before is back. */
  function callUp(id: string): void {
    if (pass.value === 'lines' && chosen.lines === id) {
      chosen.lines = calledFrom.value ?? firstInstruments().lines
      return
    }
    pass.value = 'lines'
    calledFrom.value = chosen.lines
    chosen.lines = id
  }

  /** Another drawing is looked at: nothing of the one before is left. */
  function reset(): void {
    pass.value = 'lines'
    Object.assign(chosen, firstInstruments())
    letGo()
    lookAnew()
    seeAll()
    asked.value = null
    sketchLayer.value = null
    graphHeld.value = false
    byKey.value = false
    spoken.value = ''
    hint.value = ''
    stripUp.value = false
    borrowing.value = false
    calledFrom.value = null
  }

  return {
    pass,
    chosen,
    instrument,
    showsShapes,
    setsNext,
    ...choice,
    ...looking,
    ...seen,
    asked,
    graphHeld,
    sketchLayer,
    folds,
    stripUp,
    hint,
    work,
    beginWork,
    spoken,
    byKey,
    takeKeyboard,
    borrow,
    callUp,
    borrowing,
    reset,
  }
})
