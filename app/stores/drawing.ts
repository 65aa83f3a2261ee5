import { freeze } from 'immer'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Edit, Recipe } from '#core/document/edits'
import { withLightSettled } from '#core/weight/light'
import { applyEdit, changed, editBetween, shownAs, underHand, walkOver } from '#core/document/edits'
import type { History } from '#core/document/history'
import { advance, drawingAtStep, emptyHistory } from '#core/document/history'
import type { Drawing, Line } from '#core/model/model'
import { patchesBetween } from '#core/document/patches-between'
import { rebase } from '#core/document/rebase'
import { withSnipsBound } from '#core/document/settle-snips'
import { patchesApart, withTracesApart } from '#core/document/traces-apart'
import { checkTouched } from '#core/document/check-drawing'
import type { Conflict } from '#shared/api'
import { noteStep } from '~/workers/known-steps'
import { createDrawing, olderSteps, openDrawing } from '~/network/api'
import { forgetEdits, pendingEdits } from '~/network/outbox'
import { useTracesStore } from './traces'
import { useViewStore } from './view'
import { wordsOnBoth } from './words-on-both'
import type { SaveState } from './journal-sync'
import { JournalSync } from './journal-sync'

/** A way out of what a notice tells of. */
export interface Way {
  title: string
  run: () => void
}

/** The open drawing, its history, and the way to the server. */
export const useDrawingStore = defineStore('drawing', () => {
  const drawing = shallowRef<Drawing | null>(null)
  const history = shallowRef(emptyHistory())
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const savedAt = ref<Date | null>(null)
  /** Words for the person at the desk; shown for a while. */
  const notice = ref('')
  /** Ways out of what the notice tells of. */
  const ways = shallowRef<readonly Way[]>([])

  const traces = useTracesStore()
  const view = useViewStore()
  let sync: JournalSync | null = null
  /** The drawing before the change under the hand. */
  let base: Drawing | null = null
  /** What the server is known to have: where a conflict starts again from. */
  let acknowledged: { drawing: Drawing; history: History } | null = null
  const changing = ref(false)
  /** Counts how often the drawing changed other than by the hand: what a hand holds may be gone then. */
  const overtaken = ref(0)
  /** When steps were made, by their ids. */
  const times = new Map<string, string>()
  /** Revision of the oldest step that was fetched. */
  let oldest = 1
  const hasOlder = ref(false)

  /** Tells the person something, with ways out of it to choose from. */
  function tell(text: string, out: readonly Way[]): void {
    notice.value = text
    ways.value = out
  }

  // A notice without ways out has none of the one before.
  watch(notice, () => (ways.value = []), { flush: 'sync' })

  async function open(id: string): Promise<void> {
    close()
    const [server, read] = await Promise.all([
      openDrawing(id),
      pendingEdits(id).catch((e: unknown) => console.error('Unsent steps could not be read:', e)),
    ])
    const kept = read ?? []
    const known = new Set(server.recent)
    await forgetEdits(
      id,
      kept.map((e) => e.id).filter((edit) => known.has(edit)),
    ).catch(() => undefined)
    oldest = server.undo[0]?.revision ?? 1
    hasOlder.value = server.hasOlder
    times.clear()
    for (const s of [...server.undo, ...server.redo]) times.set(s.edit.id, s.madeAt)
    // Whole drawings are frozen once, here, and not by the first edit, while a hand waits.
    freeze(server.drawing, true)
    acknowledged = {
      drawing: server.drawing,
      history: { undo: server.undo.map((s) => s.edit), redo: server.redo.map((s) => s.edit) },
    }
    const unsent = kept
      .filter((e) => !known.has(e.id))
      .map((e) => ({ ...e, patches: patchesApart(e.patches, traces.keep) }))
      .map(traces.withFresh)
    traces.takeUp(unsent)
    const edits = putOnto(acknowledged, unsent)
    const events = {
      state: onSaveState,
      acknowledged: onAcknowledged,
      conflict: onConflict,
      refused: onRefused,
      stuck: onStuck,
    }
    sync = new JournalSync(id, server.revision, events, server.recent[0] ?? null)
    sync.resume(unsent, edits)
    if (!read)
      notice.value =
        'This browser does not let Bellatrait look for steps that were not sent yet: you see what the server has. Allow this page to keep data, and open the drawing again.'
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

  /** Shows what the server has with those edits on top that still fit; answers these. */
  function putOnto(onto: { drawing: Drawing; history: History }, edits: readonly Edit[]): Edit[] {
    const { drawing: now, history: past, edits: fit, lost } = rebase(onto, edits)
    if (lost.length) {
      const more = lost.length > 1 ? ` and ${lost.length - 1} more` : ''
      notice.value = `"${lost[0]!.label}"${more} no longer fits this drawing, which was changed elsewhere, and was left out.`
    }
    drawing.value = now
    history.value = past
    return fit
  }

  function onSaveState(state: SaveState, message = '', status = 0): void {
    saveState.value = state
    saveMessage.value = message
    if (state === 'saved') savedAt.value = new Date()
    if (state !== 'refused') return
    // The drawing is gone from the server, or the server has an older one: what is here need not be lost.
    if (status === 404 || status === 412)
      tell(message, [{ title: 'Keep it as a new drawing', run: () => void keepAsNew() }])
    else notice.value = message
  }

  /** Puts the drawing as it is here on the Desk as a new one, and opens that. */
  async function keepAsNew(): Promise<void> {
    if (!drawing.value) return
    try {
      const made = await createDrawing({ drawing: traces.withSamples(drawing.value) })
      // What is kept of the old one stays: another window may still have it, or it fits there after all.
      saveState.value = 'saved'
      globalThis.location.assign(`/drawings/${made.id}`)
    } catch (e) {
      notice.value = (e as Error).message
    }
  }

  function onStuck(message: string, edit: Edit, leaveOut: () => void): void {
    tell(
      `"${edit.label}" cannot be saved, and what came after it waits: ${message} It is tried again from time to time.`,
      [{ title: 'Go on without it', run: leaveOut }],
    )
  }

  function onAcknowledged(edits: readonly Edit[]): void {
    traces.sent(edits)
    for (const edit of edits) {
      acknowledged = { drawing: applyEdit(acknowledged!.drawing, edit), history: advance(acknowledged!.history, edit) }
    }
  }

  function onConflict(conflict: Conflict, pending: Edit[]): Edit[] {
    // What is under the hand was made on a drawing that is no more.
    overtake()
    for (const m of conflict.missing) times.set(m.edit.id, m.madeAt)
    const missing = conflict.missing.map((m) => m.edit)
    onAcknowledged(missing)
    // Another window may have found these in the browser's keeping and sent them already.
    const sent = new Set([...missing.map((e) => e.id), ...(conflict.known ?? [])])
    const mine = pending.filter((e) => !sent.has(e.id))
    const edits = putOnto(acknowledged!, mine)
    const own = new Set(pending.map((e) => e.id))
    const theirs = missing.filter((e) => !own.has(e.id))
    if (theirs.length && edits.length === mine.length) notice.value = wordsOnBoth(theirs, edits)
    return edits
  }

  /** The server will not take an edit: it is taken back here, and what was made after it is put on top again. */
  function onRefused(message: string, later: Edit[]): Edit[] {
    overtake()
    const edits = putOnto(acknowledged!, later)
    notice.value = `${message} It was taken back.`
    return edits
  }

  function overtake(): void {
    drop()
    overtaken.value++
  }

  /** Makes an edit a step of the history, unless it holds a value that no drawing may have. */
  function record(next: Drawing, edit: Edit): void {
    try {
      checkTouched(next, edit.patches)
    } catch (e) {
      notice.value = `"${edit.label}" was not done: ${(e as Error).message}.`
      return
    }
    const whole = { ...traces.withFresh(edit), pass: view.pass }
    times.set(edit.id, new Date().toISOString())
    noteStep(drawing.value!, next, edit.patches)
    drawing.value = next
    history.value = advance(history.value, whole)
    sync?.push(whole)
  }

  /** Changes the drawing in one step of the history. */
  function edit(label: string, recipe: Recipe): void {
    if (!drawing.value) return
    drop()
    const next = withTracesApart(changed(drawing.value, recipe), traces.keep, drawing.value)
    const edit = editBetween(drawing.value, next, label)
    if (edit) record(next, edit)
  }

  /** Shows the drawing as `recipe` would make it from where the hand began, without a step of the history yet. */
  function change(recipe: Recipe): void {
    if (!drawing.value) return
    base ??= drawing.value
    changing.value = true
    drawing.value = underHand(base, recipe)
  }

  /** As `change`, of the drawing that `next` makes from where the hand began. */
  function show(next: (from: Drawing) => Drawing): void {
    if (!drawing.value) return
    base ??= drawing.value
    changing.value = true
    drawing.value = shownAs(base, next(base))
  }

  /** Makes what `change` showed last a step of the history. */
  function finish(label: string): void {
    if (!base || !drawing.value) return
    const before = base
    // A light that follows edits falls once, when the hand lets go.
    const after = withTracesApart(withLightSettled(base, drawing.value), traces.keep, base)
    base = null
    changing.value = false
    drawing.value = before
    const edit = editBetween(before, after, label)
    if (edit) record(after, edit)
  }

  /** Takes back what `change` showed. */
  function drop(): void {
    if (!base) return
    drawing.value = base
    base = null
    changing.value = false
  }

  async function undo(): Promise<void> {
    // With something under the hand, that alone goes.
    if (base) return overtake()
    overtake()
    let step = history.value.undo.at(-1)
    if (!step && hasOlder.value) {
      await fetchOlder()
      step = history.value.undo.at(-1)
    }
    if (step) walk(step, 'undo')
  }

  function redo(): void {
    if (base) return overtake()
    overtake()
    const step = history.value.redo.at(-1)
    if (step) walk(step, 'redo')
  }

  function walk(step: Edit, kind: 'undo' | 'redo'): void {
    let edit = walkOver(step, kind)
    let next: Drawing
    try {
      const applied = applyEdit(drawing.value!, edit)
      // Another window may have moved what bounds a snip since.
      next = withSnipsBound(drawing.value!, applied)
      if (next !== applied)
        edit = { ...edit, patches: patchesBetween(drawing.value!, next), inverse: patchesBetween(next, drawing.value!) }
    } catch {
      notice.value = `"${step.label}" cannot be ${kind === 'undo' ? 'taken back' : 'brought again'}: what it changed is gone, by a change in another window.`
      return
    }
    record(next, edit)
  }

  /** Steps older than those that came with the drawing. */
  async function fetchOlder(): Promise<void> {
    try {
      const page = await olderSteps(drawing.value!.id, oldest)
      oldest = page.undo[0]?.revision ?? 1
      hasOlder.value = page.hasOlder
      const steps = page.undo.map((s) => s.edit)
      for (const s of page.undo) times.set(s.edit.id, s.madeAt)
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
    overtaken,
    history,
    saveState,
    saveMessage,
    savedAt,
    notice,
    ways,
    tell,
    lines,
    canUndo,
    canRedo,
    open,
    close,
    edit,
    change,
    show,
    finish,
    drop,
    undo,
    redo,
    /** The drawing at a step of its history; see `drawingAtStep`. */
    seenFrom: (steps: number): Drawing | null => drawingAtStep(drawing.value!, history.value, steps),
    fetchOlder,
    hasOlder,
    madeAt: (id: string): string | null => times.get(id) ?? null,
    allSent: () => sync?.allSent() ?? Promise.resolve(),
  }
})
