import { defineStore } from 'pinia'
import { computed } from 'vue'
import { drawingAtStep } from '#core/document/history'
import type { Drawing, Line } from '#core/model/model'
import { linesOf } from '#core/model/queries'
import { useDocument } from './drawing-parts/document'
import { useKeeping } from './drawing-parts/keeping'
import { useNotices } from './drawing-parts/notices'

export type { Way } from './drawing-parts/notices'

const NONE: readonly Line[] = []

/** The open drawing, its history, the way to the server, and what is told about them. */
export const useDrawingStore = defineStore('drawing', () => {
  const notices = useNotices()
  const document = useDocument(notices, (edit) => keeping.push(edit))
  const keeping = useKeeping(document, notices)
  const { drawing, history } = document

  async function undo(): Promise<void> {
    // With something under the hand, that alone goes.
    const goes = document.isUnderHand()
    document.overtake()
    if (goes) return
    if (!history.value.undo.length && keeping.hasOlder.value) await keeping.fetchOlder()
    const step = history.value.undo.at(-1)
    if (step) document.walk(step, 'undo')
  }

  function redo(): void {
    const goes = document.isUnderHand()
    document.overtake()
    const step = history.value.redo.at(-1)
    if (!goes && step) document.walk(step, 'redo')
  }

  const lines = computed<readonly Line[]>(() => (drawing.value ? linesOf(drawing.value) : NONE))

  return {
    ...notices,
    drawing,
    /** Whether a change is under the hand that is not a step yet. */
    changing: document.changing,
    overtaken: document.overtaken,
    history,
    saveState: keeping.saveState,
    saveMessage: keeping.saveMessage,
    savedAt: keeping.savedAt,
    hasOlder: keeping.hasOlder,
    isGuided: keeping.isGuided,
    lines,
    canUndo: computed(() => history.value.undo.length > 0 || keeping.hasOlder.value),
    canRedo: computed(() => history.value.redo.length > 0),
    open: keeping.open,
    close: keeping.close,
    fetchOlder: keeping.fetchOlder,
    allSent: keeping.allSent,
    edit: document.edit,
    change: document.change,
    show: document.show,
    finish: document.finish,
    drop: document.drop,
    undo,
    redo,
    /** The drawing at a step of its history; see `drawingAtStep`. */
    seenFrom: (steps: number): Drawing | null => drawingAtStep(drawing.value!, history.value, steps),
    madeAt: (id: string): string | null => document.times.get(id) ?? null,
  }
})
