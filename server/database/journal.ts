import { applyEdit } from '#core/document/edits'
import type { Edit } from '#core/document/edits'
import { withPointsOnGrid } from '#core/document/grid'
import { hashOfSamples } from '#core/model/line-trace'
import type { Drawing, TraceSample } from '#core/model/model'
import { patchesApart, withTracesApart } from '#core/document/traces-apart'
import { checkDrawing, checkTouched } from '#core/document/check-drawing'
import { mostToLetGo, replay } from '#core/document/history'
import type { AppendBody, Conflict, OlderSteps, OpenDrawing } from '../../shared/edits'
import { HISTORY_PAGE, RECENT_IDS } from '../../shared/edits'
import { CheckpointTable } from './checkpoints'
import type { Connection } from './sqlite'
import type { Belonging } from './drawings'
import { DrawingTable } from './drawings'
import { EditTable } from './edits'
import { SnapshotTable } from './snapshots'
import { TraceTable } from './traces'

/** A snapshot is taken when so many edits were made since the last, and they are a share of the size of the drawing, or very many. */
const SNAPSHOT_EVERY = 50
const SNAPSHOT_SHARE = 0.1
const SNAPSHOT_AT_LAST = 1000
/** A class at work: a drawing that fell out is read and built anew by its next edit. */
const MOST_CACHED = 64

/** An edit that does not fit the drawing that it was sent for. */
export class UnfitEdit extends Error {}

/** The journal is not the one that edits were made on: its database was put back to an older copy, or replaced. */
export class OtherJournal extends Error {}

export type AppendResult = { revision: number } | { conflict: Conflict }

/** Drawings as a journal of edits over snapshots. */
export class Journal {
  readonly drawings: DrawingTable
  private readonly edits: EditTable
  private readonly snapshots: SnapshotTable
  private readonly traces: TraceTable
  /** By drawing, its head and when it came to be so. */
  private readonly heads = new Map<string, { since: string; head: Head }>()

  constructor(private readonly db: Connection) {
    this.drawings = new DrawingTable(db)
    this.edits = new EditTable(db)
    this.snapshots = new SnapshotTable(db)
    this.traces = new TraceTable(db)
  }

  /** Keeps a new drawing at revision 0. */
  create(drawing: Drawing, of: Belonging = {}): void {
    const kept = new Map<string, TraceSample[]>()
    const checked = withPointsOnGrid(
      null,
      withTracesApart(checkDrawing(drawing), (hash, samples) => void kept.set(hash, samples)),
    )
    this.db
      .transaction(() => {
        for (const [hash, samples] of kept) this.traces.insert(hash, samples)
        this.drawings.insert(checked, new Date().toISOString(), of)
        this.snapshots.insert(checked, 0)
      })
      .immediate()
  }

  /** The drawing as it is now, or null when there is none. */
  head(id: string): Head | null {
    const row = this.drawings.find(id)
    if (!row) return null
    const cached = this.heads.get(id)
    // Another process may have erased it and brought it back otherwise, at the same revision.
    if (cached?.head.revision === row.revision && cached.since === row.updatedAt) return cached.head
    const snapshot = this.snapshots.latest(id)
    if (!snapshot) return null
    let { drawing } = snapshot
    for (const entry of this.edits.after(id, snapshot.revision)) drawing = applyEdit(drawing, entry.edit)
    const head = { revision: row.revision, drawing }
    this.remember(id, row.updatedAt, head)
    return head
  }

  /** How much there is to read for a drawing as it is now, bytes: the last whole document and the edits after it. */
  weight(id: string): number {
    const last = this.snapshots.newest(id)
    return last ? last.size + this.edits.size(id, last.revision) : 0
  }

  /** The drawing as it was at a revision, or null where the journal has no such one. */
  at(id: string, revision: number): Drawing | null {
    const snapshot = this.snapshots.latest(id, revision)
    const row = this.drawings.find(id)
    if (!snapshot || !row || revision > row.revision) return null
    // Of what came before the journal only those moments are left that were kept whole.
    if (revision < row.firstRevision && snapshot.revision !== revision) return null
    return this.edits
      .after(id, snapshot.revision, revision)
      .reduce((drawing, e) => applyEdit(drawing, e.edit), snapshot.drawing)
  }

  open(id: string): OpenDrawing | null {
    const head = this.head(id)
    if (!head) return null
    const { undo, redo } = replay(this.edits.kinds(id))
    const nearest = redo.slice(-HISTORY_PAGE).map((e) => e.revision)
    return {
      ...head,
      ...this.undoPage(id, undo),
      redo: this.edits.at(id, nearest),
      recent: this.edits.recentIds(id, RECENT_IDS),
    }
  }

  /** Steps to undo that were made before revision `before`. */
  older(id: string, before: number): OlderSteps {
    return this.undoPage(
      id,
      replay(this.edits.kinds(id)).undo.filter((e) => e.revision < before),
    )
  }

  private undoPage(id: string, undo: readonly { revision: number }[]): OlderSteps {
    const nearest = undo.slice(-HISTORY_PAGE).map((e) => e.revision)
    return { undo: this.edits.at(id, nearest), hasOlder: undo.length > nearest.length }
  }

  /**
   * Appends edits in one transaction. Edits that are already in the journal right after `base` are not written again,
   * so that a batch whose answer was lost can be sent once more. Null when there is no such drawing.
   *
   * @throws UnfitEdit when an edit cannot be applied or leads to an invalid drawing; nothing is written then
   * @throws OtherJournal when `base` lies beyond the head, or another edit made it than the one named
   */
  append(id: string, body: AppendBody): AppendResult | null {
    for (;;) {
      // What takes long is done on what is read at one moment, before anybody is kept from writing.
      const planned = this.db.transaction(() => this.planned(id, body)).deferred()
      if (!planned || 'conflict' in planned) return planned
      if (!this.db.transaction(() => this.write(id, planned)).immediate()) continue
      this.remember(id, this.drawings.find(id)!.updatedAt, planned.next)
      return { revision: planned.next.revision }
    }
  }

  /** What an append comes to: a conflict, or what is to be written. */
  private planned(id: string, { base, head: made, edits }: AppendBody): Planned | { conflict: Conflict } | null {
    const head = this.head(id)
    if (!head) return null
    if (
      base > head.revision ||
      base < this.drawings.find(id)!.firstRevision ||
      (made && base > 0 && this.edits.idAt(id, base) !== made)
    )
      throw new OtherJournal()
    const missing = base < head.revision ? this.edits.after(id, base) : []
    const again = missing.length <= edits.length && missing.every((m, i) => m.edit.id === edits[i]!.id)
    const fresh = again ? edits.slice(missing.length) : edits
    if (new Set(fresh.map((e) => e.id)).size < fresh.length)
      throw new UnfitEdit('One edit stands twice among those sent.')
    const known = this.edits.known(id, fresh)
    if (!again || known.length) return { conflict: { revision: head.revision, missing, known } }
    const traces = new Map<string, TraceSample[]>()
    const own: Edit[] = []
    let { drawing } = head
    for (const sent of fresh) {
      // Exactly what is stored is what is checked and applied: JSON has no infinity, for one.
      const edit = withTracesApartIn(JSON.parse(JSON.stringify(sent)) as Edit, traces)
      drawing = applied(drawing, edit, id)
      own.push(edit)
    }
    return { before: head.revision, edits: own, traces, next: { revision: head.revision + own.length, drawing } }
  }

  /** Writes what was planned; answers whether the drawing was still as it was then. */
  private write(id: string, { before, edits, traces, next: { revision, drawing } }: Planned): boolean {
    const row = this.drawings.find(id)
    if (row?.revision !== before) return false
    const at = new Date().toISOString()
    for (const [hash, samples] of traces) this.traces.insert(hash, samples)
    for (const [i, edit] of edits.entries()) this.edits.append(id, before + i + 1, edit, at)
    if (this.isSnapshotDue(id, revision)) {
      this.snapshots.insert(drawing, revision)
      this.snapshots.thin(id, row.firstRevision)
    }
    if (edits.length) this.drawings.advance(drawing, revision, at)
    return true
  }

  /**
   * Lets the steps go that were made before a moment, as far as no later one walks over them; checkpoints stay. Answers how
   * many went; null when there is no such drawing.
   */
  letGoBefore(id: string, moment: string): number | null {
    return this.db
      .transaction((): number | null => {
        const row = this.drawings.find(id)
        if (!row) return null
        const kinds = this.edits.kinds(id)
        const count = mostToLetGo(
          kinds.map((e) => e.kind),
          this.edits.countBefore(id, moment),
        )
        if (!count) return 0
        const first = kinds[count - 1]!.revision
        const kept = new Set([
          first,
          ...new CheckpointTable(this.db)
            .list(id)
            .map((c) => c.revision)
            .filter((r) => r < first),
        ])
        const documents = [...kept].flatMap((r) => {
          const drawing = this.at(id, r)
          return drawing ? [{ revision: r, drawing }] : []
        })
        this.edits.removeUpTo(id, first)
        this.snapshots.removeBefore(id, first)
        for (const { revision, drawing } of documents) this.snapshots.insert(drawing, revision)
        this.drawings.beginAt(id, first)
        return count
      })
      .immediate()
  }

  /** What was written past the journal is read anew. */
  forget(id: string): void {
    this.heads.delete(id)
  }

  private isSnapshotDue(id: string, revision: number): boolean {
    const last = this.snapshots.newest(id)
    if (!last || revision - last.revision < SNAPSHOT_EVERY) return false
    return (
      revision - last.revision >= SNAPSHOT_AT_LAST || this.edits.size(id, last.revision) > SNAPSHOT_SHARE * last.size
    )
  }

  private remember(id: string, since: string, head: Head): void {
    this.heads.delete(id)
    this.heads.set(id, { since, head })
    if (this.heads.size > MOST_CACHED) this.heads.delete(this.heads.keys().next().value!)
  }
}

/** A drawing as it is now. */
interface Head {
  revision: number
  drawing: Drawing
}

/** Edits that fit, and what they lead to. */
interface Planned {
  /** The revision that they were made on. */
  before: number
  edits: Edit[]
  traces: ReadonlyMap<string, TraceSample[]>
  next: Head
}

/** An edit without the samples of traces that it brought, which are added to `kept`. */
function withTracesApartIn({ traces, ...edit }: Edit, kept: Map<string, TraceSample[]>): Edit {
  for (const [hash, samples] of Object.entries(traces ?? {})) {
    if (hashOfSamples(samples) !== hash)
      throw new UnfitEdit(`"${edit.label}" could not be saved: a pen trace is not the one that it says.`)
    kept.set(hash, samples)
  }
  const keep = (hash: string, samples: TraceSample[]): void => void kept.set(hash, samples)
  return { ...edit, patches: patchesApart(edit.patches, keep), inverse: patchesApart(edit.inverse, keep) }
}

function applied(drawing: Drawing, edit: Edit, id: string): Drawing {
  try {
    const next = applyEdit(drawing, edit)
    checkTouched(next, edit.patches)
    if (next.id !== id) throw new Error('the drawing would change its id')
    return next
  } catch (e) {
    throw new UnfitEdit(`"${edit.label}" could not be saved: ${(e as Error).message.replace(/\.$/, '')}.`)
  }
}
