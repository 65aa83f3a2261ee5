import { seenLines } from '#core/model/queries'
import { readFileSync } from 'node:fs'
import type { Shape } from '#core/model/model'
import { settingsForPage, shapeSettingsOf } from '#core/model/fineness'
import { parseSvg } from '../core/formats/svg/parse-svg'
import { writeSvg } from '../core/formats/svg/write-svg'
import { findingsOf } from '../core/proof/findings-of'
import { knockedOutShapes } from '#core/ink/fills/knockout'
import type { Speck } from '../core/shapes/specks'
import { dropSpecks } from '../core/shapes/specks'
import type { ExpandOrder, ExpandSettings, FileReport } from './expand-order'
import { written } from './outputs'
import { shapesSideBySide } from './side-by-side'

/** What a file becomes. */
async function expandText(
  text: string,
  s: ExpandSettings,
): Promise<{
  svg: string
  strokes: number
  shapes: Shape[]
  dropped: Speck[]
  findings: FileReport['findings']
  warnings: string[]
  failed: string[]
}> {
  const { drawing, warnings } = parseSvg(text)
  const strokes = seenLines(drawing).length
  const { union: unite, tolerance = shapeSettingsOf(drawing).tolerance, simplify } = s
  const dropped: Speck[] = []
  const findings: FileReport['findings'] = {}
  if (s.findings) for (const { kind } of findingsOf(drawing)) findings[kind] = (findings[kind] ?? 0) + 1
  const derived = await shapesSideBySide({
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

/** The report of a file of which nothing came. */
export const failed = (file: string, error: string): FileReport => ({ ...nothingOf(file), error })

const nothingOf = (file: string): FileReport => ({
  file,
  strokes: 0,
  contours: 0,
  nodes: 0,
  milliseconds: 0,
  dropped: [],
  findings: {},
  warnings: [],
})

/** Expands a file into another. */
export async function expandFile({ file, target, settings }: ExpandOrder): Promise<FileReport> {
  const start = performance.now()
  const report = nothingOf(file)
  try {
    const {
      svg,
      strokes,
      shapes,
      dropped,
      findings,
      warnings,
      failed: lost,
    } = await expandText(readFileSync(file, 'utf8'), settings)
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
