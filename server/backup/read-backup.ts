import { createHash } from 'node:crypto'
import { checkDrawing } from '#core/document/check-drawing'
import type { Drawing, TraceSample } from '#core/model/model'
import { passReached } from '#core/model/pass-reached'
import type { Patch } from '#core/document/patch'
import { samplesSchema } from '#core/document/trace-schema'
import { hashOfSamples } from '#core/model/line-trace'
import type { Keep } from '#core/document/traces-apart'
import { patchesApart } from '#core/document/traces-apart'
import { BadArchive, listedIn, unzipped } from '../../core/formats/archive/zip'
import { SHIPPED } from '../../core/formats/studio/belongings'
import type { ShelfProfile } from '../../core/weight/shelf'
import { LIMITS, shelfSchema } from '../../shared/api'
import { editSchema } from '../../shared/edits'
import type { StoredImage } from '../database/images'
import type { EditRow, WholeDrawing } from '../database/whole-drawing'
import { aboutSchema, indexSchema, moment, wholeSeatsSchema, wholeTasksSchema } from './about-schema'
import type { BackupIndex, WholeSeat, WholeTask } from './backup-form'
import { BACKUP_FORM, INDEX } from './backup-form'
import { readerOf } from './checked-files'
import type { Step } from './replay'
import { replayed } from './replay'

/** What a backup holds, all of it checked. */
export interface Backup {
  drawings: WholeDrawing[]
  images: StoredImage[]
  traces: [hash: string, samples: TraceSample[]][]
  seats: WholeSeat[]
  tasks: WholeTask[]
}

const { damaged, checked, parsed, json, pictureOf } = readerOf('backup', 'Copy the backup again, or take an older one.')

const MOST_FILES = 200_000

/** Largest index, bytes: a name and a hash for each of so many files take less. */
const LARGEST_INDEX = 64 * 1024 * 1024

/**
 * A backup, checked from end to end: the archive, the hash of each file, each document, and that the history leads from
 * each document to the next.
 *
 * @throws BadArchive with a sentence that says what is wrong
 */
export async function readBackup(bytes: Uint8Array): Promise<Backup> {
  const files = filesOf(bytes)
  const index = indexOf(files)
  const images: StoredImage[] = []
  const traces: Backup['traces'] = []
  for (const [path, content] of files) {
    const [folder, name = ''] = path.split('/')
    if (folder === 'pictures') images.push(await pictureOf(path, content))
    if (folder === 'traces') traces.push([name.replace('.json', ''), samplesOf(path, content)])
  }
  const { profiles } = checked('profiles.json', () =>
    shelfSchema.validateSync({ profiles: json(files, 'profiles.json') }),
  ) as { profiles: ShelfProfile[] }
  const keep: Keep = (hash, samples) => void traces.push([hash, samples])
  const drawings = index.drawings.map((d) => drawingOf(files, d, keep))
  const seats = files.has('seats.json') ? seatsOf(files) : [seatWith(profiles)]
  const tasks = files.has('tasks.json') ? tasksOf(files) : []
  const known = new Set(tasks.map((t) => t.id))
  for (const { name, task } of drawings)
    if (task !== null && !known.has(task)) throw damaged('tasks.json', `the task of "${name}" is missing`)
  return { drawings, images, traces, seats, tasks }
}

/** The seat of a backup that knows of none: it has the shelf of profiles, and goes by no name. */
const seatWith = (profiles: ShelfProfile[]): WholeSeat => ({
  name: '',
  colour: '',
  profiles,
  belongings: { choices: {}, own: [], ...SHIPPED },
})

const seatsOf = (files: ReadonlyMap<string, Uint8Array>): WholeSeat[] =>
  checked('seats.json', () => wholeSeatsSchema.validateSync(json(files, 'seats.json'))) as unknown as WholeSeat[]

const tasksOf = (files: ReadonlyMap<string, Uint8Array>): WholeTask[] =>
  checked('tasks.json', () => wholeTasksSchema.validateSync(json(files, 'tasks.json')))

/** The files of a backup: its names and its index are looked at first, then one by one what it says that there is. */
function filesOf(bytes: Uint8Array): ReadonlyMap<string, Uint8Array> {
  const limits = { files: MOST_FILES, bytes: LIMITS.unpackedBackup }
  const listed = new Set(listedIn(bytes, limits))
  const index = indexOf(unzipped(bytes, { files: MOST_FILES, bytes: LARGEST_INDEX }, (name) => name === INDEX))
  for (const path of Object.keys(index.files)) if (!listed.has(path)) throw damaged(path, 'it is missing')
  for (const path of listed)
    if (path !== INDEX && !Object.hasOwn(index.files, path))
      throw damaged(path, 'it was not there when the backup was made')
  const files = unzipped(bytes, limits)
  for (const [path, content] of files)
    if (path !== INDEX && index.files[path] !== createHash('sha256').update(content).digest('hex'))
      throw damaged(path, 'it is not as it was when the backup was made')
  return files
}

function indexOf(files: ReadonlyMap<string, Uint8Array>): BackupIndex {
  if (!files.has(INDEX))
    throw new BadArchive('This archive is no backup of Bellatrait. Choose a file that "Back up" on the Desk made.')
  const index = checked(INDEX, () => indexSchema.validateSync(json(files, INDEX))) as unknown as BackupIndex
  if (index.form > BACKUP_FORM)
    throw new BadArchive('This backup was made by a newer Bellatrait. Bring this one up to date first.')
  return index
}

function samplesOf(path: string, content: Uint8Array): TraceSample[] {
  const samples = checked(path, () =>
    samplesSchema.validateSync(parsed(path, new TextDecoder().decode(content))),
  ) as TraceSample[]
  if (path !== `traces/${hashOfSamples(samples)}.json`)
    throw damaged(path, 'it is another trace than the one it is named for')
  return samples
}

/** A drawing of the backup: its documents are what its history says. */
function drawingOf(
  files: ReadonlyMap<string, Uint8Array>,
  { folder, id }: BackupIndex['drawings'][number],
  keep: Keep,
): WholeDrawing {
  const path = `${folder}/about.json`
  const about = checked(path, () =>
    aboutSchema.validateSync(json(files, path), { stripUnknown: true }),
  ) as unknown as Omit<WholeDrawing, 'snapshots' | 'edits' | 'lineCount' | 'pass'>
  if (about.id !== id) throw damaged(path, 'it is about another drawing')
  const documents = documentsOf(files, folder, about)
  const first = documents.get(about.firstRevision)
  if (!first) throw damaged(folder, 'the document that its history starts from is missing')
  const history = `${folder}/history.jsonl`
  const edits = editsOf(files, history, about.firstRevision, keep)
  const wanted = about.firstRevision + edits.length
  if (about.revision !== wanted) throw damaged(history, `it ends at step ${wanted}, not at step ${about.revision}`)
  const after = new Map([...documents].map(([at, drawing]) => [at - about.firstRevision, drawing]))
  const head = checked(history, () => replayed(first, edits, after))
  return {
    ...about,
    name: head.name,
    lineCount: head.layers.reduce((n, l) => n + (l.kind === 'lines' ? l.items.length : 0), 0),
    pass: passReached(head),
    snapshots: [...documents]
      .sort(([a], [b]) => a - b)
      .map(([revision, drawing]) => ({ revision, document: JSON.stringify(drawing) })),
    edits: edits.map(({ patches, inverse, ...row }) => ({
      ...row,
      patches: JSON.stringify(patches),
      inverse: JSON.stringify(inverse),
    })),
  }
}

/** The whole documents of a drawing, by their revisions: none past its last step, and none of another drawing. */
function documentsOf(
  files: ReadonlyMap<string, Uint8Array>,
  folder: string,
  about: Pick<WholeDrawing, 'id' | 'revision'>,
): Map<number, Drawing> {
  const documents = new Map<number, Drawing>()
  for (const [name, bytes] of files) {
    if (!name.startsWith(`${folder}/documents/`)) continue
    const at = /\/(0|[1-9]\d{0,14})\.json$/.exec(name)?.[1]
    if (at === undefined) throw damaged(name, 'its name is no number of a step')
    if (Number(at) > about.revision) throw damaged(name, `it comes after the last step, ${about.revision}`)
    const value = parsed(name, new TextDecoder().decode(bytes))
    const drawing = checked(name, () => checkDrawing(value))
    if (drawing.id !== about.id) throw damaged(name, 'it is of another drawing')
    documents.set(Number(at), drawing)
  }
  return documents
}

type Row = Omit<EditRow, 'patches' | 'inverse'> & Step

function editsOf(files: ReadonlyMap<string, Uint8Array>, path: string, first: number, keep: Keep): Row[] {
  const bytes = files.get(path)
  if (!bytes) throw damaged(path, 'it is missing')
  const ids = new Set<string>()
  const lines = new TextDecoder().decode(bytes).split('\n').filter(Boolean)
  return lines.map((line, i): Row => {
    const row = parsed(path, line) as Record<string, unknown>
    const edit = checked(path, () =>
      editSchema.validateSync({ ...row, pass: row.pass ?? undefined }, { stripUnknown: true }),
    )
    if (row.revision !== first + i + 1) throw damaged(path, `step ${first + i + 1} is missing`)
    if (ids.has(edit.id)) throw damaged(path, `"${edit.label}" stands in it twice`)
    ids.add(edit.id)
    checked(path, () => moment().required().validateSync(row.madeAt))
    const [patches, inverse] = [row.patches, row.inverse].map((all) => patchesApart(all as Patch[], keep))
    return {
      revision: first + i + 1,
      id: edit.id,
      kind: edit.kind,
      label: edit.label,
      patches: patches!,
      inverse: inverse!,
      madeAt: String(row.madeAt),
      pass: edit.pass ?? null,
    }
  })
}
