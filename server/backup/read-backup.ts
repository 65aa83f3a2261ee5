import { createHash } from 'node:crypto'
import * as yup from 'yup'
import { applyEdit } from '../../core/drawing/edits'
import { checkDrawing } from '../../core/drawing/check-drawing'
import type { Drawing, TraceSample } from '../../core/drawing/model'
import type { PassName } from '../../core/drawing/pass-reached'
import { PASS_NAMES, passReached } from '../../core/drawing/pass-reached'
import type { Patch } from '../../core/drawing/patch'
import { samplesSchema } from '../../core/drawing/schema'
import { hashOfSamples } from '../../core/drawing/line-trace'
import { BadArchive, unzipped } from '../../core/formats/archive/zip'
import { hasInbornKeys, isTooDeep } from '../../core/formats/json'
import type { ShelfProfile } from '../../core/weight/shelf'
import { editSchema, LIMITS, shelfSchema } from '../../shared/api'
import type { StoredImage } from '../database/images'
import type { EditRow, WholeDrawing } from '../database/whole-drawing'
import { checkImage } from '../http/check-image'
import type { BackupIndex } from './backup-form'
import { BACKUP_FORM, INDEX } from './backup-form'

/** What a backup holds, all of it checked. */
export interface Backup {
  drawings: WholeDrawing[]
  images: StoredImage[]
  traces: [hash: string, samples: TraceSample[]][]
  profiles: ShelfProfile[]
}

const MOST_FILES = 200_000

const indexSchema = yup.object({
  form: yup.number().strict().integer().required(),
  made: yup.string().strict().required(),
  drawings: yup.array(yup.object({ folder: yup.string().strict().required(), id: yup.string().strict().required().max(80), name: yup.string().strict().required() })).required(),
  files: yup.object().required(),
})

const revision = () => yup.number().strict().integer().min(0)
const moment = () => yup.string().strict().matches(/^\d{4}-\d\d-\d\dT/, 'a date is none')

const aboutSchema = yup.object({
  id: yup.string().strict().required().matches(/^[\w-]{1,80}$/, 'its id is none'),
  name: yup.string().strict().required().max(120),
  revision: revision().required(),
  firstRevision: revision().required(),
  template: yup.boolean().strict().required(),
  shelf: yup.string().strict().max(80).nullable().defined(),
  createdAt: moment().required(),
  updatedAt: moment().required(),
  deletedAt: moment().nullable().defined(),
  checkpoints: yup
    .array(yup.object({ id: yup.string().strict().required().max(80), revision: revision().required(), name: yup.string().strict().required().max(80), madeAt: moment().required(), pass: yup.mixed<PassName>().oneOf(PASS_NAMES).nullable().defined() }).required())
    .required()
    .max(400),
})

/**
 * A backup, checked from end to end: the archive, the hash of each file, each document, and that the history leads from
 * each document to the next.
 *
 * @throws BadArchive with a sentence that says what is wrong
 */
export async function readBackup(bytes: Uint8Array): Promise<Backup> {
  const files = unzipped(bytes, { files: MOST_FILES, bytes: LIMITS.unpackedBackup })
  const index = indexOf(files)
  for (const path of Object.keys(index.files)) if (!files.has(path)) throw damaged(path, 'it is missing')
  for (const [path, content] of files) if (path !== INDEX && index.files[path] !== createHash('sha256').update(content).digest('hex')) throw damaged(path, 'it is not as it was when the backup was made')
  const images: StoredImage[] = []
  const traces: Backup['traces'] = []
  for (const [path, content] of files) {
    const [folder, name = ''] = path.split('/')
    if (folder === 'pictures') images.push(await pictureOf(path, content))
    if (folder === 'traces') traces.push([name.replace('.json', ''), samplesOf(path, content)])
  }
  const { profiles } = checked('profiles.json', () => shelfSchema.validateSync({ profiles: json(files, 'profiles.json') })) as { profiles: ShelfProfile[] }
  const drawings: WholeDrawing[] = []
  for (const d of index.drawings) {
    // Others are served between two drawings.
    await new Promise(setImmediate)
    drawings.push(drawingOf(files, d.folder))
  }
  return { drawings, images, traces, profiles }
}

function indexOf(files: ReadonlyMap<string, Uint8Array>): BackupIndex {
  if (!files.has(INDEX)) throw new BadArchive('This archive is no backup of Bellatrait. Choose a file that "Back up" on the Desk made.')
  const index = checked(INDEX, () => indexSchema.validateSync(json(files, INDEX))) as unknown as BackupIndex
  if (index.form > BACKUP_FORM) throw new BadArchive('This backup was made by a newer Bellatrait. Bring this one up to date first.')
  return index
}

const damaged = (path: string, what: string): BadArchive => new BadArchive(`The backup is damaged: of "${path}", ${what}. Nothing was brought in. Copy the backup again, or take an older one.`)

function checked<T>(path: string, work: () => T): T {
  try {
    return work()
  } catch (e) {
    if (e instanceof BadArchive) throw e
    throw damaged(path, (e as Error).message.replace(/\.$/, ''))
  }
}

function json(files: ReadonlyMap<string, Uint8Array>, path: string): unknown {
  const bytes = files.get(path)
  if (!bytes) throw damaged(path, 'it is missing')
  return parsed(path, new TextDecoder().decode(bytes))
}

function parsed(path: string, text: string): unknown {
  if (isTooDeep(text) || hasInbornKeys(text)) throw damaged(path, 'it holds fields that no drawing has')
  return checked(path, () => JSON.parse(text) as unknown)
}

async function pictureOf(path: string, content: Uint8Array): Promise<StoredImage> {
  const image = await checkImage(Buffer.from(content)).catch((e: Error) => {
    throw damaged(path, e.message)
  })
  if (!path.includes(image.sha256)) throw damaged(path, 'it is another picture than the one it is named for')
  return image
}

function samplesOf(path: string, content: Uint8Array): TraceSample[] {
  const samples = checked(path, () => samplesSchema.validateSync(parsed(path, new TextDecoder().decode(content)))) as TraceSample[]
  if (path !== `traces/${hashOfSamples(samples)}.json`) throw damaged(path, 'it is another trace than the one it is named for')
  return samples
}

/** A drawing of the backup: its documents are what its history says. */
function drawingOf(files: ReadonlyMap<string, Uint8Array>, folder: string): WholeDrawing {
  const path = `${folder}/about.json`
  const about = checked(path, () => aboutSchema.validateSync(json(files, path), { stripUnknown: true })) as unknown as Omit<WholeDrawing, 'snapshots' | 'edits' | 'lineCount' | 'pass'>
  const documents = new Map<number, { drawing: Drawing; text: string }>()
  for (const [name, bytes] of files) {
    const found = name.startsWith(`${folder}/documents/`) && /\/(\d+)\.json$/.exec(name)
    if (!found) continue
    const text = new TextDecoder().decode(bytes)
    const drawing = checked(name, () => checkDrawing(parsed(name, text)))
    if (drawing.id !== about.id) throw damaged(name, 'it is of another drawing')
    documents.set(Number(found[1]), { drawing, text })
  }
  const first = documents.get(about.firstRevision)
  if (!first) throw damaged(folder, 'the document that its history starts from is missing')
  const edits = editsOf(files, `${folder}/history.jsonl`, about.firstRevision)
  const head = replayed(folder, first.drawing, edits, documents)
  const wanted = about.firstRevision + edits.length
  if (about.revision !== wanted) throw damaged(`${folder}/history.jsonl`, `it ends at step ${wanted}, not at step ${about.revision}`)
  return {
    ...about,
    name: head.name,
    lineCount: head.layers.reduce((n, l) => n + (l.kind === 'lines' ? l.items.length : 0), 0),
    pass: passReached(head),
    snapshots: [...documents].sort(([a], [b]) => a - b).map(([at, { text }]) => ({ revision: at, document: text })),
    edits,
  }
}

function editsOf(files: ReadonlyMap<string, Uint8Array>, path: string, first: number): EditRow[] {
  const bytes = files.get(path)
  if (!bytes) throw damaged(path, 'it is missing')
  const lines = new TextDecoder().decode(bytes).split('\n').filter(Boolean)
  return lines.map((line, i): EditRow => {
    const row = parsed(path, line) as Record<string, unknown>
    const edit = checked(path, () => editSchema.validateSync({ ...row, pass: row.pass ?? undefined }, { stripUnknown: true }))
    if (row.revision !== first + i + 1) throw damaged(path, `step ${first + i + 1} is missing`)
    checked(path, () => moment().required().validateSync(row.madeAt))
    return { revision: first + i + 1, id: edit.id, kind: edit.kind, label: edit.label, patches: JSON.stringify(row.patches), inverse: JSON.stringify(row.inverse), madeAt: String(row.madeAt), pass: edit.pass ?? null }
  })
}

/** The drawing after all its steps; each document on the way must be what they lead to. */
function replayed(folder: string, first: Drawing, edits: readonly EditRow[], documents: ReadonlyMap<number, { drawing: Drawing }>): Drawing {
  let drawing = first
  for (const { revision: at, patches, label } of edits) {
    drawing = checked(`${folder}/history.jsonl`, () => {
      try {
        return applyEdit(drawing, { patches: JSON.parse(patches) as Patch[] })
      } catch (e) {
        throw new Error(`"${label}" does not fit: ${(e as Error).message}`)
      }
    })
    const kept = documents.get(at)
    if (kept && !isSame(kept.drawing, drawing)) throw damaged(`${folder}/documents/${at}.json`, 'it is not what the history leads to')
  }
  return checked(folder, () => checkDrawing(drawing))
}

/** The same data, whatever the order of its fields. */
function isSame(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b || Array.isArray(a) !== Array.isArray(b)) return false
  const [left, right] = [a as Record<string, unknown>, b as Record<string, unknown>]
  const fields = (of: Record<string, unknown>): string[] => Object.keys(of).filter((k) => of[k] !== undefined)
  const names = fields(left)
  return names.length === fields(right).length && names.every((k) => isSame(left[k], right[k]))
}
