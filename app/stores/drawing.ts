import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Edit } from '#core/drawing/edits'
import { applyEdit, makeEdit, walkOver } from '#core/drawing/edits'
import type { History } from '#core/drawing/history'
import { advance, emptyHistory } from '#core/drawing/history'
import type { Drawing, Layer, Line } from '#core/drawing/model'
import type { Conflict } from '#agreed/api'
import { olderSteps, openDrawing } from '~/network/api'
import { forgetEdits, pendingEdits } from '~/network/outbox'
import type { SaveState } from './journal-sync'
import { JournalSync } from './journal-sync'

type Recipe = (draft: Drawing) => void

/** The open drawing, its history, and the way to the server. */
export const useDrawingStore = defineStore('drawing', () => {
  const drawing = shallowRef<Drawing | null>(null)
  const history = shallowRef(emptyHistory())
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const savedAt = ref<Date | null>(null)
  /** Words for the person at the desk; shown for a while. */
  const notice = ref('')

  let sync: JournalSync | null = null
  /** The drawing before the change under the hand. */
  let base: Drawing | null = null
  /** What the server is known to have: where a conflict starts again from. */
  let acknowledged: { drawing: Drawing; history: History } | null = null
  const changing = ref(false)
  /** Revision of the oldest step that was fetched. */
  let oldest = 1
  const hasOlder = ref(false)

  async function open(id: string): Promise<void> {
    close()
    const [server, kept] = await Promise.all([openDrawing(id), pendingEdits(id).catch(() => [])])
    const known = new Set(server.recent)
    await forgetEdits(id, known).catch(() => undefined)
    oldest = server.undo[0]?.revision ?? 1
    hasOlder.value = server.hasOlder
    acknowledged = {
      drawing: server.drawing,
      history: { undo: server.undo.map((s) => s.edit), redo: server.redo.map((s) => s.edit) },
    }
    const edits = refit(acknowledged, kept.filter((e) => !known.has(e.id)))
    sync = new JournalSync(id, server.revision, { state: onSaveState, acknowledged: onAcknowledged, conflict: onConflict })
    sync.resume(edits)
  }

  function close(): void {
    sync?.close()
    sync = null
    base = null
    changing.value = false
    drawing.value = null
    history.value = emptyHistory()
    hasOlder.value = false
  }

  /** Shows what the server has with those edits on top that can still be applied; answers these. */
  function refit(onto: { drawing: Drawing; history: History }, edits: readonly Edit[]): Edit[] {
    let now = onto.drawing
    let past = onto.history
    const fit: Edit[] = []
    for (const edit of edits) {
      try {
        now = applyEdit(now, edit)
        past = advance(past, edit)
        fit.push(edit)
      } catch {
        notice.value = `"${edit.label}" no longer fits this drawing, which was changed elsewhere, and was left out.`
        break
      }
    }
    drawing.value = now
    history.value = past
    return fit
  }

  function onSaveState(state: SaveState, message = ''): void {
    saveState.value = state
    saveMessage.value = message
    if (state === 'saved') savedAt.value = new Date()
    if (state === 'refused') notice.value = message
  }

  function onAcknowledged(edits: readonly Edit[]): void {
    for (const edit of edits) {
      acknowledged = { drawing: applyEdit(acknowledged!.drawing, edit), history: advance(acknowledged!.history, edit) }
    }
  }

  function onConflict(conflict: Conflict, pending: Edit[]): Edit[] {
    // What is under the hand was made on a drawing that is no more.
    drop()
    onAcknowledged(conflict.missing.map((m) => m.edit))
    const edits = refit(acknowledged!, pending)
    if (edits.length === pending.length) notice.value = 'This drawing was also changed in another window. Both changes were kept.'
    return edits
  }

  function record(next: Drawing, edit: Edit): void {
    drawing.value = next
    history.value = advance(history.value, edit)
    sync?.push(edit)
  }

  /** Changes the drawing in one step of the history. */
  function edit(label: string, recipe: Recipe): void {
    if (!drawing.value) return
    drop()
    const made = makeEdit(drawing.value, label, recipe)
    if (made) record(made.drawing, made.edit)
  }

  /** Shows the drawing as `recipe` would make it from where the hand began, without a step of the history yet. */
  function change(recipe: Recipe): void {
    if (!drawing.value) return
    base ??= drawing.value
    changing.value = true
    drawing.value = makeEdit(base, '', recipe)?.drawing ?? base
  }

  /** Makes what `change` showed last a step of the history. */
  function finish(label: string): void {
    if (!base || !drawing.value) return
    const before = base
    const after = drawing.value
    base = null
    changing.value = false
    drawing.value = before
    const made = makeEdit(before, label, (draft) => copyOver(draft, before, after))
    if (made) record(made.drawing, made.edit)
  }

  /** Takes back what `change` showed. */
  function drop(): void {
    if (!base) return
    drawing.value = base
    base = null
    changing.value = false
  }

  async function undo(): Promise<void> {
    drop()
    let step = history.value.undo.at(-1)
    if (!step && hasOlder.value) {
      await fetchOlder()
      step = history.value.undo.at(-1)
    }
    if (step) walk(step, 'undo')
  }

  function redo(): void {
    drop()
    const step = history.value.redo.at(-1)
    if (step) walk(step, 'redo')
  }

  function walk(step: Edit, kind: 'undo' | 'redo'): void {
    const edit = walkOver(step, kind)
    record(applyEdit(drawing.value!, edit), edit)
  }

  /** Steps older than those that came with the drawing. */
  async function fetchOlder(): Promise<void> {
    try {
      const page = await olderSteps(drawing.value!.id, oldest)
      oldest = page.undo[0]?.revision ?? 1
      hasOlder.value = page.hasOlder
      const steps = page.undo.map((s) => s.edit)
      history.value = { ...history.value, undo: [...steps, ...history.value.undo] }
      acknowledged!.history = { ...acknowledged!.history, undo: [...steps, ...acknowledged!.history.undo] }
    } catch (e) {
      notice.value = (e as Error).message
    }
  }

  const lines = computed<Line[]>(() => drawing.value?.layers.flatMap((l) => (l.kind === 'lines' ? l.items : [])) ?? [])
  const canUndo = computed(() => history.value.undo.length > 0 || hasOlder.value)
  const canRedo = computed(() => history.value.redo.length > 0)

  return {
    drawing,
    /** Whether a change is under the hand that is not a step yet. */
    changing,
    history,
    saveState,
    saveMessage,
    savedAt,
    notice,
    lines,
    canUndo,
    canRedo,
    open,
    close,
    edit,
    change,
    finish,
    drop,
    undo,
    redo,
    settled: () => sync?.settled() ?? Promise.resolve(),
  }
})

/**
 * Makes `draft` of `before` equal to `after`, item by item, so that the patches stay as small as the change: whole
 * layers that differ in their list of items are compared line by line.
 */
function copyOver(draft: Drawing, before: Drawing, after: Drawing): void {
  if (before.name !== after.name) draft.name = after.name
  if (before.page !== after.page) draft.page = after.page
  if (before.inks !== after.inks) draft.inks = after.inks
  if (before.settings !== after.settings) draft.settings = after.settings
  const sameLayers = before.layers.length === after.layers.length && before.layers.every((l, i) => l.id === after.layers[i]!.id)
  if (!sameLayers) {
    draft.layers = after.layers
    return
  }
  after.layers.forEach((layer, i) => {
    const was = before.layers[i]!
    if (was === layer) return
    const { items, ...rest } = layer
    Object.assign(draft.layers[i]!, rest)
    const same = items.length === was.items.length && items.every((it, k) => it.id === was.items[k]!.id)
    if (!same) (draft.layers[i] as Layer).items = items as never
    else items.forEach((it, k) => {
      if (it !== was.items[k]) (draft.layers[i]!.items as unknown[])[k] = it
    })
  })
}
