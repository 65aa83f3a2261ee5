import { basename, join } from 'node:path'
import { availableParallelism } from 'node:os'
import { parseArgs } from 'node:util'
import { LEAVINGS } from '#core/ink/fills/knockout'
import type { ExpandOrder, ExpandSettings, FileReport } from './expand-order'
import { expandFile, failed } from './expand-file'
import { inputsOf } from './input-files'
import { Taken, written } from './outputs'
import { Threads } from './threads'

export const EXPAND_USAGE = `Usage: expand IN.svg|DIR ... --out OUT.svg | --out-dir DIR
  [--tolerance PX] [--union] [--unite stacked|cut-out|one] [--tuck] [--simplify T]
  [--specks AREA] [--slivers WIDTH] [--report FILE.json]
`

interface Settings extends ExpandSettings {
  inputs: string[]
  out: string | undefined
  outDir: string | undefined
  report: string | undefined
}

/** The settings on the command line, or a sentence that says what is wrong with them. */
function readSettings(argv: string[]): Settings | string {
  let parsed
  try {
    parsed = parseArgs({
      args: argv,
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        'out-dir': { type: 'string' },
        tolerance: { type: 'string' },
        union: { type: 'boolean', default: false },
        unite: { type: 'string' },
        tuck: { type: 'boolean', default: false },
        simplify: { type: 'string', default: '0' },
        specks: { type: 'string', default: '0' },
        slivers: { type: 'string', default: '0' },
        report: { type: 'string' },
      },
    })
  } catch (e) {
    return (e as Error).message
  }
  const inputs = parsed.positionals
  const { out, union, unite, tuck, report } = parsed.values
  const outDir = parsed.values['out-dir']
  const tolerance = parsed.values.tolerance === undefined ? undefined : Number(parsed.values.tolerance)
  const simplify = Number(parsed.values.simplify)
  const limits = { area: Number(parsed.values.specks), width: Number(parsed.values.slivers) }
  if (!inputs.length) return 'Name at least one SVG file or folder.'
  if (!out === !outDir) return 'Name either --out or --out-dir.'
  if (tolerance !== undefined && !(tolerance > 0 && tolerance < 1000))
    return '--tolerance must be a positive number of pixels.'
  if (!(simplify >= 0 && simplify < 1000)) return '--simplify must be a number of pixels, 0 or more.'
  if (!(limits.area >= 0 && limits.area < Infinity)) return '--specks must be an area in square pixels, 0 or more.'
  if (!(limits.width >= 0 && limits.width < Infinity)) return '--slivers must be a width in pixels, 0 or more.'
  const leaving = LEAVINGS.find((l) => l === (unite ?? 'stacked'))
  if (!leaving) return `--unite is stacked, cut-out or one, not "${unite}".`
  return {
    inputs,
    out,
    outDir,
    tolerance,
    union: union || unite !== undefined,
    leaving,
    tuck,
    simplify,
    limits,
    report,
    findings: report !== undefined,
  }
}

/** Writes the report; answers whether it could be. */
function reported(file: string, reports: readonly FileReport[]): boolean {
  try {
    written(file, JSON.stringify(reports, null, 2) + '\n')
    return true
  } catch (e) {
    process.stderr.write(`${file}: ${(e as Error).message}\n`)
    return false
  }
}

/** A thread takes some seconds until it is there: others help once this one has worked for so long, ms. */
const ALONE = 2000
/** And only if so many files are left for each. */
const EACH = 4

/** What became of all files; they are done side by side where there are many. */
async function expanded(orders: readonly ExpandOrder[]): Promise<FileReport[]> {
  const left = [...orders]
  const reports: FileReport[] = []
  const threads = new Threads(availableParallelism() - 1)
  const take = async (work: (order: ExpandOrder) => Promise<FileReport>): Promise<void> => {
    for (let order = left.shift(); order; order = left.shift()) {
      reports.push(await work(order))
      if (process.stderr.isTTY) process.stderr.write(`\r${reports.length} of ${orders.length}`)
    }
  }
  const helpers: Promise<void>[] = []
  const since = performance.now()
  await take(async (order) => {
    // What others have done is heard between two files.
    await new Promise((resolve) => setImmediate(resolve))
    if (!helpers.length && performance.now() - since > ALONE)
      for (let i = 1; i < availableParallelism() && left.length > EACH * (i + 1); i++)
        helpers.push(take((o) => threads.run('expand', o).catch((e: Error) => failed(o.file, e.message))))
    return expandFile(order)
  })
  await Promise.all(helpers)
  await threads.end()
  return reports
}

/** Runs `expand`; answers the exit code: 0 done, 1 some input failed, 2 wrong usage. */
export async function expand(argv: string[]): Promise<number> {
  const settings = readSettings(argv)
  if (typeof settings === 'string') {
    process.stderr.write(`${settings}\n${EXPAND_USAGE}`)
    return 2
  }
  const { files, missing } = inputsOf(settings.inputs)
  const taken = new Taken(files)
  const wrong = settings.report && taken.rivalOf(settings.report)
  if (wrong) {
    process.stderr.write(`--report would overwrite ${wrong}; name another file.\n${EXPAND_USAGE}`)
    return 2
  }
  if (settings.out && files.length + missing.length !== 1) {
    process.stderr.write(
      `--out takes one file, but ${files.length + missing.length} were named; use --out-dir.\n${EXPAND_USAGE}`,
    )
    return 2
  }
  const reports = missing.map(({ name, why }) => failed(name, why))
  const orders = files.flatMap((file): ExpandOrder[] => {
    const target = settings.out ?? join(settings.outDir!, basename(file))
    // Neither live lines nor one of two files of one name may be lost without a word.
    const rival = taken.rivalOf(target)
    if (!rival) taken.add(target, `what ${file} became`)
    else reports.push(failed(file, `would overwrite ${rival}; name another ${settings.out ? '--out' : '--out-dir'}`))
    return rival ? [] : [{ file, target, settings }]
  })
  reports.push(...(await expanded(orders)))
  // In the order of the files, then what was missing.
  const placeOf = new Map(files.map((f, i) => [f, i]))
  reports.sort((a, b) => (placeOf.get(a.file) ?? files.length) - (placeOf.get(b.file) ?? files.length))
  if (process.stderr.isTTY) process.stderr.write('\n')
  for (const r of reports) if (r.error) process.stderr.write(`${r.file}: ${r.error}\n`)
  return reports.some((r) => r.error) || !(settings.report === undefined || reported(settings.report, reports)) ? 1 : 0
}
