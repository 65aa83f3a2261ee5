import { freeze } from 'immer'
import { ref } from 'vue'
import type { Edit } from '#core/document/edits'
import { applyEdit } from '#core/document/edits'
import type { History } from '#core/document/history'
import { advance, emptyHistory } from '#core/document/history'
import { rebase } from '#core/document/rebase'
import { patchesApart } from '#core/document/traces-apart'
import type { Drawing } from '#core/model/model'
import type { Conflict } from '#shared/edits'
import { createDrawing, olderSteps } from '~/network/api'
import { openedOrKept } from '~/network/opening'
import { forgetEdits, pendingEdits } from '~/network/outbox'
import type { SaveState } from '../journal-sync'
import { JournalSync } from '../journal-sync'
import { useTracesStore } from '../traces'
import { wordsOnBoth } from '../words-on-both'
import type { Document } from './document'
import type { Notices } from './notices'

/** The way to the server and back: opening, saving, and what others did meanwhile. */
export function useKeeping(document: Document, { notice, tell }: Notices) {
  const traces = useTracesStore()
  const { drawing, history, times } = document
  const saveState = ref<SaveState>('saved')
  const saveMessage = ref('')
  const savedAt = ref<Date | null>(null)
  const hasOlder = ref(false)
  /** It is a copy for a task through which the guide goes. */
  const isGuided = ref(false)
  /** Revision of the oldest step that was fetched. */
  let oldest = 1
  let sync: JournalSync | null = null
  /** What the server is known to have: where a conflict starts again from. */
  let acknowledged: { drawing: Drawing; history: History } | null = null

  async function open(id: string): Promise<void> {
    close()
    const [server, read] = await Promise.all([
      openedOrKept(id),
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
    isGuided.value = server.guided ?? false
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
    const events = { state: onSaveState, acknowledged: onAcknowledged, conflict: onConflict, refused: onRefused, stuck }
    sync = new JournalSync(id, server.revision, events, server.recent[0] ?? null)
    sync.resume(unsent, edits)
    if (server.isKept)
      notice.value =
        'The server cannot be reached. This is the drawing as this browser has it; what you do is sent once the server is back.'
    if (!read)
      notice.value =
        'This browser does not let Bellatrait look for steps that were not sent yet: you see what the server has. Allow this page to keep data, and open the drawing again.'
  }

  function close(): void {
    sync?.close()
    sync = null
    document.take(null, emptyHistory())
    hasOlder.value = false
  }

  /** Shows what the server has with those edits on top that still fit; answers these. */
  function putOnto(onto: { drawing: Drawing; history: History }, edits: readonly Edit[]): Edit[] {
    const { drawing: now, history: past, edits: fit, lost } = rebase(onto, edits)
    if (lost.length) {
      const more = lost.length > 1 ? ` and ${lost.length - 1} more` : ''
      notice.value = `"${lost[0]!.label}"${more} no longer fits this drawing, which was changed elsewhere, and was left out.`
    }
    document.take(now, past)
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

  function stuck(message: string, edit: Edit, leaveOut: () => void): void {
    tell(
      `"${edit.label}" cannot be saved, and what came after it waits: ${message} It is tried again from time to time.`,
      [{ title: 'Go on without it', run: leaveOut }],
    )
  }

  function onAcknowledged(edits: readonly Edit[]): void {
    traces.sent(edits)
    for (const edit of edits)
      acknowledged = { drawing: applyEdit(acknowledged!.drawing, edit), history: advance(acknowledged!.history, edit) }
  }

  function onConflict(conflict: Conflict, pending: Edit[]): Edit[] {
    // What is under the hand was made on a drawing that is no more.
    document.overtake()
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
    document.overtake()
    const edits = putOnto(acknowledged!, later)
    notice.value = `${message} It was taken back.`
    return edits
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

  return {
    saveState,
    saveMessage,
    savedAt,
    hasOlder,
    isGuided,
    open,
    close,
    push: (edit: Edit): void => sync?.push(edit),
    fetchOlder,
    allSent: (): Promise<void> => sync?.allSent() ?? Promise.resolve(),
  }
}
