import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { parseArgs } from 'node:util'
import Database from 'better-sqlite3'
import type { Drawing, TraceSample } from '../core/drawing/model'
import type { DeliveredFile } from '../core/formats/delivery/deliver'
import { deliverable } from '../core/formats/delivery/deliver'
import type { DeliverySettings } from '../core/formats/delivery/settings'
import { deliverySchema, FIRST_DELIVERIES, PLAIN_DELIVERY } from '../core/formats/delivery/settings'
import { freeFileName } from '../core/formats/file-name'
import { zipOf } from '../core/formats/archive/zip'
import { parseSvg } from '../core/formats/svg/parse-svg'
import { shapesOf } from '../core/ink/shapes-of'
import { Journal } from '../server/database/journal'
import { TraceTable } from '../server/database/traces'
import { drawPicture } from '../server/delivery/draw-picture'
import { pictureSvg } from '../server/delivery/picture-svg'
import { filesOf } from './input-files'

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
    parsed = parseArgs({ args: argv, allowPositionals: true, options: { out: { type: 'string' }, 'out-dir': { type: 'string' }, settings: { type: 'string' }, shelf: { type: 'string' } } })
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
  if (!existsSync(name)) return `There are no settings "${name}": name ${FIRST_DELIVERIES.map((d) => d.name).join(', ')}, or a JSON file.`
  try {
    const own = JSON.parse(readFileSync(name, 'utf8')) as Partial<DeliverySettings>
    const whole = { ...PLAIN_DELIVERY, ...own, svg: { ...PLAIN_DELIVERY.svg, ...own.svg }, pdf: { ...PLAIN_DELIVERY.pdf, ...own.pdf }, picture: { ...PLAIN_DELIVERY.picture, ...own.picture } }
    return deliverySchema.validateSync(whole) as DeliverySettings
  } catch (e) {
    return `The settings in ${name} cannot be used: ${(e as Error).message}.`
  }
}

function sourcesOf(input: string, shelf: string | undefined): Source[] {
  if (/\.(db|sqlite3?)$/.test(input)) return drawingsOf(input, shelf)
  return [
    {
      name: input,
      read: () => {
        const { drawing } = parseSvg(readFileSync(input, 'utf8'))
        return { drawing: { ...drawing, name: basename(input).replace(/(\.live)?\.svg$/, '') }, samplesOf: () => undefined }
      },
    },
  ]
}

/** The drawings on the Desk of a database file, which is only read. */
function drawingsOf(file: string, shelf: string | undefined): Source[] {
  const db = new Database(file, { readonly: true, fileMustExist: true })
  const [journal, traces] = [new Journal(db), new TraceTable(db)]
  const wanted = shelf === undefined ? null : ((db.prepare('SELECT id FROM shelves WHERE name = ?').pluck().get(shelf) as string | undefined) ?? 'none')
  return journal.drawings.list().filter((c) => wanted === null || c.shelf === wanted).map(({ id, name }) => ({ name: `${file}: ${name}`, read: () => ({ drawing: journal.head(id)!.drawing, samplesOf: (hash) => traces.find(hash) ?? undefined }) }))
}

async function made({ read }: Source, settings: DeliverySettings): Promise<DeliveredFile> {
  const { drawing, samplesOf } = read()
  return deliverable(drawing, shapesOf(drawing).shapes, settings, { samplesOf, picture: (order) => drawPicture(pictureSvg(order), order) })
}

/** Runs `deliver`; answers the exit code: 0 done, 1 some input failed, 2 wrong usage. */
export async function deliver(argv: string[]): Promise<number> {
  const settings = readSettings(argv)
  if (typeof settings === 'string') {
    process.stderr.write(`${settings}\n${DELIVER_USAGE}`)
    return 2
  }
  let failed = false
  const tell = (name: string, e: unknown): void => {
    failed = true
    process.stderr.write(`${name}: ${(e as Error).message}\n`)
  }
  const sources = filesOf(settings.inputs).flatMap((input) => {
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
  if (settings.outDir) {
    mkdirSync(settings.outDir, { recursive: true })
    for (const { name, bytes } of files) writeFileSync(join(settings.outDir, name), bytes)
  } else {
    mkdirSync(dirname(settings.out!), { recursive: true })
    writeFileSync(settings.out!, zipOf(files.map(({ name, bytes, mediaType }) => ({ path: name, bytes, packed: mediaType !== 'image/svg+xml' }))))
  }
  return failed ? 1 : 0
}
