import { existsSync, readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import Database from 'better-sqlite3'
import type { Drawing, TraceSample } from '#core/model/model'
import type { DeliveredFile } from '../core/formats/delivery/deliver'
import { deliverable } from '../core/formats/delivery/deliver'
import type { DeliverySettings } from '../core/formats/delivery/settings'
import { deliverySchema, FIRST_DELIVERIES, PLAIN_DELIVERY } from '../core/formats/delivery/settings'
import { freeFileName } from '../core/formats/file-name'
import { zipOf } from '../core/formats/archive/zip'
import { parseSvg } from '../core/formats/svg/parse-svg'
import { shapesSideBySide } from './side-by-side'
import { parseRecord } from '../core/formats/json'
import { Journal } from '../server/database/journal'
import { readMigrations } from '../server/database/migration-files'
import { TraceTable } from '../server/database/traces'
import { versionOf } from '../server/database/version'
import { drawPicture } from '../server/delivery/draw-picture'
import { pictureSvg } from '../server/delivery/picture-svg'
import { inputsOf } from './input-files'
import { Taken, written } from './outputs'

export const DELIVER_USAGE = `Usage: deliver IN.svg|DIR|DESK.db ... --out FILE.zip | --out-dir DIR
  [--settings ${FIRST_DELIVERIES.map((d) => d.name).join('|')}|FILE.json] [--shelf NAME]
`

/** A drawing to deliver, read when its turn comes. */
interface Source {
  name: string
  read: () => { drawing: Drawing; samplesOf: (hash: string) => readonly TraceSample[] | undefined }
}

interface Settings {
  inputs: string[]
  out: string | undefined
  outDir: string | undefined
  delivery: DeliverySettings
  shelf: string | undefined
}

function readSettings(argv: string[]): Settings | string {
  let parsed
  try {
    parsed = parseArgs({
      args: argv,
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        'out-dir': { type: 'string' },
        settings: { type: 'string' },
        shelf: { type: 'string' },
      },
    })
  } catch (e) {
    return (e as Error).message
  }
  const { out, settings, shelf } = parsed.values
  const outDir = parsed.values['out-dir']
  if (!parsed.positionals.length) return 'Name at least one SVG file, folder or database file.'
  if (!out === !outDir) return 'Name either --out or --out-dir.'
  const delivery = deliveryNamed(settings)
  return typeof delivery === 'string' ? delivery : { inputs: parsed.positionals, out, outDir, delivery, shelf }
}

/** Settings by their name, or from a JSON file: what it leaves out is as usual. */
function deliveryNamed(name: string | undefined): DeliverySettings | string {
  if (name === undefined) return PLAIN_DELIVERY
  const known = FIRST_DELIVERIES.find((d) => d.name === name)
  if (known) return known.settings
  if (!existsSync(name))
    return `There are no settings "${name}": name ${FIRST_DELIVERIES.map((d) => d.name).join(', ')}, or a JSON file.`
  try {
    const own = parseRecord(
      readFileSync(name, 'utf8'),
      'settings',
      'they are no record of settings in JSON',
    ) as Partial<DeliverySettings>
    const unknown = unknownIn(own, PLAIN_DELIVERY)
    if (unknown) return `The settings in ${name} cannot be used: there is no setting "${unknown}".`
    const whole = {
      ...PLAIN_DELIVERY,
      ...own,
      svg: { ...PLAIN_DELIVERY.svg, ...own.svg },
      pdf: { ...PLAIN_DELIVERY.pdf, ...own.pdf },
      picture: { ...PLAIN_DELIVERY.picture, ...own.picture },
    }
    return deliverySchema.validateSync(whole) as DeliverySettings
  } catch (e) {
    return `The settings in ${name} cannot be used: ${(e as Error).message.replace(/\.$/, '')}.`
  }
}

/** The first field of settings that there is no such setting for: a slip of the hand must not be passed over. */
function unknownIn(own: object, known: object, path = ''): string | null {
  for (const [field, value] of Object.entries(own)) {
    const there: unknown = Object.hasOwn(known, field) ? (known as Record<string, unknown>)[field] : undefined
    if (there === undefined) return path + field
    if (typeof value === 'object' && value !== null && typeof there === 'object' && there !== null) {
      const inner = unknownIn(value as object, there, `${path}${field}.`)
      if (inner) return inner
    }
  }
  return null
}

function sourcesOf(input: string, shelf: string | undefined): Source[] {
  if (/\.(db|sqlite3?)$/i.test(input)) return drawingsOf(input, shelf)
  return [
    {
      name: input,
      read: () => {
        const { drawing } = parseSvg(readFileSync(input, 'utf8'))
        return {
          drawing: { ...drawing, name: basename(input).replace(/(\.live)?\.svg$/i, '') },
          samplesOf: () => undefined,
        }
      },
    },
  ]
}

const MIGRATIONS = fileURLToPath(new URL('../server/database/migrations', import.meta.url))

/** Why a database cannot be read, by how it stands to this version. */
const UNREADABLE = {
  empty: 'it is empty.',
  foreign: 'it is a database of something else, not a Desk.',
  earlier:
    'it is the Desk of an older Bellatrait. Start this one with it once (BELLATRAIT_DB), which brings it up to date.',
  later: 'it is the Desk of a newer Bellatrait. Bring this one up to date.',
}

/**
 * The drawings on the Desk of a database file, which is only read.
 *
 * @throws Error with a sentence where it cannot be read, or has no such shelf, or no drawing
 */
function drawingsOf(file: string, shelf: string | undefined): Source[] {
  const db = openedDesk(file)
  const [journal, traces] = [new Journal(db), new TraceTable(db)]
  const shelves = db.prepare('SELECT id, name FROM shelves ORDER BY name').all() as { id: string; name: string }[]
  const wanted = shelves.find((s) => s.name === shelf)?.id ?? null
  if (shelf !== undefined && wanted === null)
    throw new Error(
      `there is no shelf "${shelf}".${shelves.length ? ` There are: ${shelves.map((s) => s.name).join(', ')}.` : ''}`,
    )
  const cards = journal.drawings.list().filter((c) => wanted === null || c.shelf === wanted)
  if (!cards.length)
    throw new Error(shelf === undefined ? 'no drawing lies on this Desk.' : `no drawing lies on the shelf "${shelf}".`)
  return cards.map(({ id, name }) => ({
    name: `${file}: ${name}`,
    read: () => ({ drawing: journal.head(id)!.drawing, samplesOf: (hash) => traces.find(hash) ?? undefined }),
  }))
}

/** A database file, opened to be read. */
function openedDesk(file: string): Database.Database {
  let db
  try {
    db = new Database(file, { readonly: true, fileMustExist: true })
    const version = versionOf(db, readMigrations(MIGRATIONS))
    if (version !== 'same') throw new Error(UNREADABLE[version])
    return db
  } catch (e) {
    db?.close()
    const code = (e as { code?: string }).code ?? ''
    if (/^SQLITE_(BUSY|LOCKED)/.test(code))
      throw new Error('another program holds this database. Close it and try again.')
    if (/^SQLITE_(NOTADB|CORRUPT)/.test(code)) throw new Error('it is no database, or a damaged one.')
    throw e
  }
}

async function made({ read }: Source, settings: DeliverySettings): Promise<DeliveredFile> {
  const { drawing, samplesOf } = read()
  return deliverable(drawing, (await shapesSideBySide(drawing)).shapes, settings, {
    samplesOf,
    picture: (order) => drawPicture(pictureSvg(order), order),
  })
}

/** Runs `deliver`; answers the exit code: 0 done, 1 some input failed, 2 wrong usage. */
export async function deliver(argv: string[]): Promise<number> {
  const settings = readSettings(argv)
  if (typeof settings === 'string') {
    process.stderr.write(`${settings}\n${DELIVER_USAGE}`)
    return 2
  }
  const { files: inputs, missing } = inputsOf(settings.inputs)
  const taken = new Taken(inputs)
  const rival = settings.out === undefined ? null : taken.rivalOf(settings.out)
  if (rival) {
    process.stderr.write(`--out would overwrite ${rival}; name another file.\n${DELIVER_USAGE}`)
    return 2
  }
  let failed = false
  const tell = (name: string, e: unknown): void => {
    failed = true
    process.stderr.write(`${name}: ${(e as Error).message}\n`)
  }
  for (const { name, why } of missing) tell(name, new Error(why))
  const sources = inputs.flatMap((input) => {
    try {
      return sourcesOf(input, settings.shelf)
    } catch (e) {
      tell(input, e)
      return []
    }
  })
  const files: DeliveredFile[] = []
  const names = new Set<string>()
  for (const [i, source] of sources.entries()) {
    if (process.stderr.isTTY) process.stderr.write(`\r${i + 1} of ${sources.length}`)
    try {
      const file = await made(source, settings.delivery)
      const name = freeFileName(names, file.name)
      names.add(name)
      files.push({ ...file, name })
    } catch (e) {
      tell(source.name, e)
    }
  }
  if (process.stderr.isTTY) process.stderr.write('\n')
  // Where nothing could be made, what lies there from before stays.
  const outputs = settings.outDir
    ? files.map(({ name, bytes }) => ({ path: join(settings.outDir!, name), bytes }))
    : files.length
      ? [
          {
            path: settings.out!,
            bytes: zipOf(
              files.map(({ name, bytes, mediaType }) => ({ path: name, bytes, packed: mediaType !== 'image/svg+xml' })),
            ),
          },
        ]
      : []
  for (const { path, bytes } of outputs) {
    try {
      const lost = taken.rivalOf(path)
      if (lost) throw new Error(`it would overwrite ${lost}; name another --out-dir`)
      written(path, bytes)
    } catch (e) {
      tell(path, e)
    }
  }
  return failed ? 1 : 0
}
