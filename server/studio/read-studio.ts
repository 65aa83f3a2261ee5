import * as yup from 'yup'
import { checkDrawing } from '#core/document/check-drawing'
import { BadArchive, unzipped } from '../../core/formats/archive/zip'
import type { BelongingLists, ListName } from '../../core/formats/studio/belongings'
import { idOf, itemSchema, LIST_NAMES, MOST_ITEMS } from '../../core/formats/studio/belongings'
import type { ShelfProfile } from '../../core/weight/shelf'
import { LIMITS, shelfSchema } from '../../shared/api'
import type { Files } from '../backup/checked-files'
import { readerOf } from '../backup/checked-files'
import type { StudioContent } from './content'
import { ABOUT, STUDIO_FORM } from './content'

const { damaged, checked, json, pictureOf } = readerOf('studio file', 'Ask for it again where it comes from.')

const MOST_FILES = 2000

const aboutSchema = yup.object({
  form: yup.number().strict().integer().min(1).required(),
  from: yup.string().strict().max(80).required(),
})

/**
 * A studio file, checked from end to end.
 *
 * @throws BadArchive with a sentence that says what is wrong
 */
export async function readStudio(bytes: Uint8Array): Promise<StudioContent> {
  const files = unzipped(bytes, { files: MOST_FILES, bytes: LIMITS.unpackedBackup })
  if (!files.has(ABOUT))
    throw new BadArchive('This archive is no studio file. Choose one that "Studio file" on a Desk made.')
  const about = checked(ABOUT, () => aboutSchema.validateSync(json(files, ABOUT)))
  if (about.form > STUDIO_FORM)
    throw new BadArchive('This studio file was made by a newer Bellatrait. Bring this one up to date first.')
  const lists = Object.fromEntries(LIST_NAMES.map((l) => [l, listOf(files, l)])) as unknown as BelongingLists
  const paths = [...files.keys()].sort()
  const images = []
  for (const path of paths) if (path.startsWith('pictures/')) images.push(await pictureOf(path, files.get(path)!))
  const templates = paths
    .filter((p) => /^templates\/[^/]+\/document\.json$/.test(p))
    .map((path) => checked(path, () => checkDrawing(json(files, path))))
  return { from: about.from, ...lists, profiles: profilesOf(files), templates, images }
}

function listOf(files: Files, list: ListName): unknown[] {
  const path = `${list}.json`
  if (!files.has(path)) return []
  const schema = yup.array(itemSchema(list).required()).required().max(MOST_ITEMS)
  const all = checked(path, () => schema.validateSync(json(files, path))) as unknown[]
  const ids = all.map(idOf[list] as (item: unknown) => string)
  if (new Set(ids).size < ids.length) throw damaged(path, 'it holds one thing twice')
  return all
}

function profilesOf(files: Files): ShelfProfile[] {
  const path = 'profiles.json'
  if (!files.has(path)) return []
  const { profiles } = checked(path, () => shelfSchema.validateSync({ profiles: json(files, path) }))
  return profiles as unknown as ShelfProfile[]
}
