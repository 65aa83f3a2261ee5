import type { OldRetouch, OldSettings } from '#core/document/earlier'
import { newDocument, newSettings, withIds } from '#core/document/earlier'
import { applyEdit } from '#core/document/edits'
import { settingsForPage } from '#core/model/fineness'
import type { Drawing, Page, ShapeSettings } from '#core/model/model'
import { passReached } from '#core/model/pass-reached'
import type { Patch } from '#core/document/patch'
import { isRecord } from '#core/document/patch'
import { patchesApart, withTracesApart } from '#core/document/traces-apart'
import type { Connection } from './sqlite'
import { EditTable } from './edits'
import { SnapshotTable } from './snapshots'
import { TraceTable } from './traces'

/** What a migration does that SQL cannot say, by the migration's name; it runs in its transaction, after its SQL. */
export const STEPS: Readonly<Record<string, (db: Connection) => void>> = {
  '0005-kept-apart.sql': keepApart,
  '0006-desk.sql': fillPasses,
}

/** Traces and retouches leave the documents' old places, and lengths of settings mean the usual page, in snapshots and journals alike. */
function keepApart(db: Connection): void {
  const traces = new TraceTable(db)
  const keep = traces.insert.bind(traces)
  const drawings = db.prepare('SELECT DISTINCT drawing_id FROM snapshots').pluck().all() as string[]
  for (const id of drawings) {
    const page = pageOf(db, id)
    const snapshots = db.prepare('SELECT revision, document FROM snapshots WHERE drawing_id = ?').all(id) as {
      revision: number
      document: string
    }[]
    const putSnapshot = db.prepare('UPDATE snapshots SET document = ? WHERE drawing_id = ? AND revision = ?')
    for (const { revision, document } of snapshots)
      putSnapshot.run(JSON.stringify(withTracesApart(newDocument(JSON.parse(document) as Drawing), keep)), id, revision)
    const putEdit = db.prepare('UPDATE edits SET patches = ?, inverse = ? WHERE drawing_id = ? AND revision = ?')
    const revisions = db
      .prepare('SELECT revision FROM edits WHERE drawing_id = ? ORDER BY revision')
      .pluck()
      .all(id) as number[]
    const edit = db.prepare('SELECT patches, inverse FROM edits WHERE drawing_id = ? AND revision = ?')
    for (const revision of revisions) {
      const row = edit.get(id, revision) as { patches: string; inverse: string }
      const [patches, inverse] = [row.patches, row.inverse].map((t) => JSON.parse(t) as Patch[]) as [Patch[], Patch[]]
      const [there, back] = [newPatches(patches, inverse, page), newPatches(inverse, patches, page)].map((p) =>
        JSON.stringify(patchesApart(p, keep)),
      )
      putEdit.run(there, back, id, revision)
    }
  }
}

function pageOf(db: Connection, id: string): Page {
  const newest = db
    .prepare('SELECT document FROM snapshots WHERE drawing_id = ? ORDER BY revision DESC LIMIT 1')
    .pluck()
    .get(id) as string
  return (JSON.parse(newest) as Drawing).page
}

/** Patches in the present form. `back` is the way back, which tells what retouches there were before. */
function newPatches(patches: readonly Patch[], back: readonly Patch[], page: Page): Patch[] {
  return patches.flatMap((p): Patch[] => {
    const [root, field, part] = p.path
    if (root !== 'settings') return [p]
    if (field === undefined)
      return [
        { ...p, value: newSettings(p.value as OldSettings, page) },
        ...retouchPatches(retouchesIn(back), (p.value as OldSettings).retouches ?? []),
      ]
    if (field === 'retouches') return retouchPatches(retouchesIn(back), (p.value as OldRetouch[] | undefined) ?? [])
    if (field !== 'shapes') return [p]
    if (part === undefined) return [{ ...p, value: settingsForPage(p.value as ShapeSettings, page) }]
    if (part !== 'tolerance' && part !== 'simplify') return [p]
    const scaled = settingsForPage({ unite: true, tolerance: Number(p.value), simplify: Number(p.value) }, page)
    return [{ ...p, value: scaled[part] }]
  })
}

function retouchesIn(patches: readonly Patch[]): OldRetouch[] {
  for (const { path, value } of patches) {
    if (path.join('/') === 'settings/retouches') return (value as OldRetouch[] | undefined) ?? []
    if (path.join('/') === 'settings' && isRecord(value)) return (value as unknown as OldSettings).retouches ?? []
  }
  return []
}

function retouchPatches(before: readonly OldRetouch[], after: readonly OldRetouch[]): Patch[] {
  const [was, is] = [withIds(before), withIds(after)]
  const had = new Set(was.map((r) => r.id))
  const has = new Set(is.map((r) => r.id))
  return [
    ...was.filter((r) => !has.has(r.id)).map((r): Patch => ({ op: 'remove', path: ['amendments', r.id] })),
    ...is.flatMap((value, place): Patch[] =>
      had.has(value.id) ? [] : [{ op: 'add', path: ['amendments', place], value }],
    ),
  ]
}

/** The pass that each drawing reached. */
function fillPasses(db: Connection): void {
  const [snapshots, edits] = [new SnapshotTable(db), new EditTable(db)]
  const put = db.prepare('UPDATE drawings SET pass = ? WHERE id = ?')
  for (const id of db.prepare('SELECT id FROM drawings').pluck().all() as string[]) {
    const snapshot = snapshots.latest(id)
    if (snapshot)
      put.run(
        passReached(
          edits.after(id, snapshot.revision).reduce((drawing, e) => applyEdit(drawing, e.edit), snapshot.drawing),
        ),
        id,
      )
  }
}
