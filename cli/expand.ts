import { readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { parseArgs } from 'node:util'
import type { Shape } from '#core/model/model'
import { settingsForPage, shapeSettingsOf } from '#core/model/fineness'
import { parseSvg } from '../core/formats/svg/parse-svg'
import { writeSvg } from '../core/formats/svg/write-svg'
import { shapesOf } from '../core/ink/shapes-of'
import type { FindingKind } from '../core/proof/finding'
import { findingsOf } from '../core/proof/findings-of'
import type { Leaving } from '#core/ink/fills/knockout'
import { LEAVINGS, knockedOutShapes } from '#core/ink/fills/knockout'
import type { Speck, SpeckLimits } from '../core/shapes/specks'
import { dropSpecks } from '../core/shapes/specks'
import { inputsOf } from './input-files'
import { Taken, written } from './outputs'

export const EXPAND_USAGE = `Usage: expand IN.svg|DIR ... --out OUT.svg | --out-dir DIR
  [--tolerance PX] [--union] [--unite stacked|cut-out|one] [--tuck] [--simplify T]
  [--specks AREA] [--slivers WIDTH] [--report FILE.json]
`

interface Settings {
  inputs: string[]
  out: string | undefined
  outDir: string | undefined
  /** px; undefined for what suits the page. */
  tolerance: number | undefined
  union: boolean
  /** How shapes leave; it unites them, too. */
  leaving: Leaving
  /** Ends keep within what they meet, whatever the file says. */
  tuck: boolean
  simplify: number
  /** What is dropped: below this area, px squared, or this mean width, px. */
  limits: SpeckLimits
  report: string | undefined
}

interface FileReport {
  file: string
  strokes: number
  contours: number
  nodes: number
  milliseconds: number
  dropped: Speck[]
  /** What Proof finds in the file as it came, by kind. */
  findings: Partial<Record<FindingKind, number>>
  warnings: string[]
  error?: string
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
  }
}

function expandText(
  text: string,
  s: Settings,
): {
  svg: string
  strokes: number
  shapes: Shape[]
  dropped: Speck[]
  findings: FileReport['findings']
  warnings: string[]
  failed: string[]
} {
  const { drawing, warnings } = parseSvg(text)
  const strokes = drawing.layers.reduce((n, l) => n + (l.kind === 'lines' && l.visible ? l.items.length : 0), 0)
  const { union: unite, tolerance = shapeSettingsOf(drawing).tolerance, simplify } = s
  const dropped: Speck[] = []
  const findings: FileReport['findings'] = {}
  if (s.report) for (const { kind } of findingsOf(drawing)) findings[kind] = (findings[kind] ?? 0) + 1
  const derived = shapesOf({
    ...drawing,
    settings: {
      ...drawing.settings,
      ...(s.tuck && { tuck: true }),
      shapes: settingsForPage({ unite, tolerance, simplify }, drawing.page),
    },
  })
  const shapes = derived.shapes.map((shape) => {
    // What came as a fill stays as it is.
    if (!shape.from.length) return shape
    const { contours, dropped: gone } = dropSpecks(shape.contours, s.limits)
    dropped.push(...gone)
    return { ...shape, contours }
  })
  const leaving = knockedOutShapes(
    shapes.filter((x) => x.contours.length),
    drawing.inks,
    s.leaving,
    { tolerance },
  )
  return {
    svg: writeSvg(drawing, { content: 'outlines', shapes: leaving }),
    strokes,
    shapes: leaving,
    dropped,
    findings,
    warnings,
    failed: derived.failed.map((f) => f.message),
  }
}

const failed = (file: string, error: string): FileReport => ({
  file,
  strokes: 0,
  contours: 0,
  nodes: 0,
  milliseconds: 0,
  dropped: [],
  findings: {},
  warnings: [],
  error,
})

function expandFile(file: string, target: string, s: Settings): FileReport {
  const start = performance.now()
  const report: FileReport = {
    file,
    strokes: 0,
    contours: 0,
    nodes: 0,
    milliseconds: 0,
    dropped: [],
    findings: {},
    warnings: [],
  }
  try {
    const {
      svg,
      strokes,
      shapes,
      dropped,
      findings,
      warnings,
      failed: lost,
    } = expandText(readFileSync(file, 'utf8'), s)
    written(target, svg)
    Object.assign(report, { strokes, dropped, findings, warnings })
    if (lost.length) report.error = `${lost.length} of ${strokes} strokes have no ink, the others are done: ${lost[0]}`
    report.contours = shapes.reduce((n, x) => n + x.contours.length, 0)
    report.nodes = shapes.reduce((n, x) => n + x.contours.reduce((k, c) => k + c.nodes.length, 0), 0)
  } catch (e) {
    report.error = (e as Error).message
  }
  report.milliseconds = Math.round((performance.now() - start) * 10) / 10
  return report
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

/** Runs `expand`; answers the exit code: 0 done, 1 some input failed, 2 wrong usage. */
export function expand(argv: string[]): number {
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
  const done = files.map((f, i) => {
    const target = settings.out ?? join(settings.outDir!, basename(f))
    // Neither live lines nor one of two files of one name may be lost without a word.
    const rival = taken.rivalOf(target)
    if (rival) return failed(f, `would overwrite ${rival}; name another ${settings.out ? '--out' : '--out-dir'}`)
    taken.add(target, `what ${f} became`)
    if (process.stderr.isTTY) process.stderr.write(`\r${i + 1} of ${files.length}`)
    return expandFile(f, target, settings)
  })
  const reports = [...done, ...missing.map(({ name, why }) => failed(name, why))]
  if (process.stderr.isTTY) process.stderr.write('\n')
  for (const r of reports) if (r.error) process.stderr.write(`${r.file}: ${r.error}\n`)
  return reports.some((r) => r.error) || !(settings.report === undefined || reported(settings.report, reports)) ? 1 : 0
}
