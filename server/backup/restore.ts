import { freeName } from '#core/model/free-name'
import { makeEdit } from '#core/document/edits'
import { newId } from '../../core/new-id'
import type { RestoreReport } from '../../shared/desk'
import type { Store } from '../database/store'
import type { WholeDrawing } from '../database/whole-drawing'
import { asAnother } from '../database/whole-drawing'
import type { Backup } from './read-backup'
import { putSeat } from './restore-seat'

/**
 * Brings a checked backup in, all of it or nothing. What is here is never written over: a drawing that is here with all
 * steps of the backup is left as it is (and taken out of the bin), one that went another way comes in beside it as a copy.
 */
export function restore(store: Store, backup: Backup): RestoreReport {
  const report: RestoreReport = { added: [], here: [], copied: [] }
  store.connection
    .transaction(() => {
      for (const image of backup.images) store.images.insert(image)
      for (const [hash, samples] of backup.traces) store.traces.insert(hash, samples)
      for (const seat of backup.seats) putSeat(store, seat)
      const tasks = backup.tasks.filter((task) => store.tasks.write(task))
      const now = new Map(backup.drawings.map((whole) => [whole.id, put(store, whole, report)]))
      for (const { id, template } of tasks)
        if (template !== null) store.tasks.handsOut(id, now.get(template) ?? template)
    })
    .immediate()
  return report
}

/** Puts a drawing in; answers the id that it has here. */
function put(store: Store, whole: WholeDrawing, report: RestoreReport): string {
  const shelf = (): string | null => (whole.shelf === null ? null : store.shelves.of(whole.shelf).id)
  const seat = (): string | null => store.seats.list().find((s) => s.name === whole.seat)?.id ?? null
  const here = store.whole.editIds(whole.id)
  if (!here) {
    store.whole.write(freshCheckpoints(store, whole), shelf(), seat())
    report.added.push(whole.name)
    return whole.id
  }
  if (holds(store, here, whole)) {
    if (!whole.deletedAt) store.journal.drawings.markDeleted(whole.id, null)
    report.here.push(whole.name)
    return whole.id
  }
  const id = newId()
  store.whole.write(asAnother(whole, id, whole.name), shelf(), seat())
  renamed(store, id, freeName(new Set(store.journal.drawings.names()), `${whole.name} from backup`))
  report.copied.push(whole.name)
  return id
}

/** Whether the drawing that is here went through all that the backup holds of it. */
function holds(store: Store, here: readonly string[], whole: WholeDrawing): boolean {
  const ids = new Set(here)
  if (whole.edits.length) return whole.edits.every((e) => ids.has(e.id))
  const first = store.whole.read(whole.id)!.snapshots.find((s) => s.revision === whole.revision)
  return first?.document === whole.snapshots.at(-1)!.document
}

/** A checkpoint's id may be taken by a drawing that was copied from this one. */
function freshCheckpoints(store: Store, whole: WholeDrawing): WholeDrawing {
  const taken = store.connection.prepare('SELECT 1 FROM checkpoints WHERE id = ?')
  return { ...whole, checkpoints: whole.checkpoints.map((c) => (taken.get(c.id) ? { ...c, id: newId() } : c)) }
}

/** Gives a drawing another name, as a step of its history. */
export function renamed(store: Pick<Store, 'journal'>, id: string, name: string): void {
  const head = store.journal.head(id)
  const made = head && makeEdit(head.drawing, `Rename to ${name}`, (draft) => void (draft.name = name))
  if (made) store.journal.append(id, { base: head.revision, edits: [made.edit] })
}
