import { createHash } from 'node:crypto'
import { fileNameOf } from '../../core/formats/file-name'
import type { ArchiveFile } from '../../core/formats/archive/zip'
import { zipped } from '../../core/formats/archive/zip'
import { writeSvg } from '../../core/formats/svg/write-svg'
import { withWholeTraces } from '#core/document/traces-apart'
import type { Drawing } from '#core/model/model'
import type { Store } from '../database/store'
import type { WholeDrawing } from '../database/whole-drawing'
import type { BackupIndex, WholeSeat, WholeTask } from './backup-form'
import { BACKUP_FORM, INDEX } from './backup-form'

const ENDINGS: Readonly<Record<string, string>> = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' }

/**
 * The archive of some drawings, in pieces: of each its live SVG, its history as JSON lines, the documents that this starts
 * from, and its checkpoints; then pictures, pen traces, seats with what
 * belongs to them, and tasks. The index comes last, with the hash of each file.
 */
export function* backupOf(
  store: Pick<
    Store,
    'whole' | 'journal' | 'images' | 'traces' | 'profiles' | 'seats' | 'belongings' | 'tasks' | 'connection'
  >,
  ids: readonly string[],
  made: string,
): Generator<Uint8Array> {
  const index: BackupIndex = { form: BACKUP_FORM, made, drawings: [], files: {} }
  function* files(): Generator<ArchiveFile> {
    const apart = new Set<string>()
    const tasks = new Set<string>()
    for (const [n, id] of ids.entries()) {
      const whole = store.whole.read(id)
      if (!whole) continue
      for (const hash of store.whole.hashes(id)) apart.add(hash)
      if (whole.task !== null) tasks.add(whole.task)
      const folder = `drawings/${String(n + 1).padStart(3, '0')} ${fileNameOf(whole.name)}`
      index.drawings.push({ folder, id, name: whole.name })
      yield* filesOf(folder, whole, store)
    }
    for (const hash of [...apart].sort()) {
      const image = store.images.find(hash)
      if (image)
        yield { path: `pictures/${hash}.${ENDINGS[image.mediaType] ?? 'bin'}`, bytes: image.bytes, packed: true }
      const samples = store.traces.find(hash)
      if (samples) yield text(`traces/${hash}.json`, JSON.stringify(samples))
    }
    // What the first seat has stands by itself, too: earlier versions know of no seats.
    yield text('profiles.json', JSON.stringify(store.profiles.list(store.seats.first())))
    yield text('seats.json', JSON.stringify(seatsOf(store)))
    const written = new Set(ids)
    const named = (t: WholeTask): boolean => tasks.has(t.id) || (t.template !== null && written.has(t.template))
    yield text('tasks.json', JSON.stringify(store.tasks.whole().filter(named)))
  }
  function* indexed(): Generator<ArchiveFile> {
    for (const file of files()) {
      index.files[file.path] = createHash('sha256').update(file.bytes).digest('hex')
      yield file
    }
    yield text(INDEX, JSON.stringify(index, null, 1))
  }
  yield* zipped(indexed())
}

const seatsOf = ({ seats, belongings, profiles }: Pick<Store, 'seats' | 'belongings' | 'profiles'>): WholeSeat[] =>
  seats.list().map(({ id, name, colour }) => ({
    name,
    colour,
    profiles: profiles.list(id),
    belongings: belongings.read(id),
  }))

function* filesOf(
  folder: string,
  { snapshots, edits, ...about }: WholeDrawing,
  store: Pick<Store, 'journal' | 'traces'>,
): Generator<ArchiveFile> {
  yield text(`${folder}/about.json`, JSON.stringify(about))
  const now = store.journal.at(about.id, about.revision) ?? (JSON.parse(snapshots.at(-1)!.document) as Drawing)
  yield text(
    `${folder}/drawing.svg`,
    writeSvg(
      withWholeTraces(now, (hash) => store.traces.find(hash) ?? undefined),
      { content: 'lines' },
    ),
  )
  for (const { revision, document } of snapshots) yield text(`${folder}/documents/${revision}.json`, document)
  yield text(
    `${folder}/history.jsonl`,
    edits
      .map(
        (e) =>
          `${JSON.stringify({ ...e, patches: JSON.parse(e.patches) as unknown, inverse: JSON.parse(e.inverse) as unknown })}\n`,
      )
      .join(''),
  )
}

const text = (path: string, content: string): ArchiveFile => ({ path, bytes: new TextEncoder().encode(content) })
