import { rgb } from 'd3-color'
import type { PDFFont, PDFOperator, PDFPage } from 'pdf-lib'
import { appendBezierCurve, clip, closePath, concatTransformationMatrix, endPath, fill, lineTo, moveTo, PDFDocument, popGraphicsState, pushGraphicsState, rectangle, setFillingCmykColor, setFillingRgbColor, setLineWidth, setStrokingCmykColor, StandardFonts, stroke } from 'pdf-lib'
import type { Drawing, Shape } from '../../drawing/model'
import { colourIn } from '../../drawing/inks'
import { InputError } from '../../errors'
import { leavingShapes } from '../../ink/leaving'
import { isStraight } from '../../geometry/cubic'
import { cubicsOfPath } from '../../geometry/path'
import { printInkOf } from './print-ink'

export interface PdfOptions {
  /** What is drawn, from the bottom to the top. */
  shapes: readonly Shape[]
  /** How far what is drawn goes on beyond the page, mm, 0..50. */
  bleed: number
  /** Marks at the corners where the page is cut. */
  marks: boolean
  /** A page for each ink, in black, each less what lies above it. */
  separate: boolean
  colours: 'screen' | 'print'
  /** px; of what is cut for separations. */
  tolerance: number
}

const PT_PER_MM = 72 / 25.4
/** Marks are so long, and stand so far off what is cut, mm. */
const MARK = 5
const OFF = 3
const MARK_WIDTH = 0.25
const LABEL = 7
/** Coordinates are told to so many px. */
const DIGITS = 4

/**
 * A PDF of a drawing's shapes: plain filled curves, the page in its true size with its boxes (PDF 1.7, ISO 32000-1, 14.11.2).
 *
 * @throws InputError for an impossible bleed
 */
export async function writePdf(drawing: Drawing, options: PdfOptions): Promise<Uint8Array> {
  const { bleed, separate } = options
  if (!(bleed >= 0 && bleed <= 50)) throw new InputError('bleed', `The bleed must be from 0 to 50 mm, not ${bleed}.`)
  const document = await PDFDocument.create()
  document.setTitle(drawing.name)
  document.setCreator('Bellatrait')
  document.setProducer('Bellatrait')
  const font = await document.embedFont(StandardFonts.Helvetica)
  if (!separate) addPage(document, drawing, options, options.shapes, (ink) => painted(drawing, ink, options.colours), null)
  else {
    const parts = leavingShapes(options.shapes, drawing.inks, 'cut-out', { tolerance: options.tolerance })
    const black = (): PDFOperator => setFillingCmykColor(0, 0, 0, 1)
    for (const ink of [...new Set(parts.map((s) => s.ink))]) addPage(document, drawing, options, parts.filter((s) => s.ink === ink), black, { text: labelOf(drawing, ink), font })
  }
  // A drawing without ink has an empty page: a PDF has one at least.
  if (!document.getPageCount()) addPage(document, drawing, options, [], () => setFillingCmykColor(0, 0, 0, 1), null)
  return document.save()
}

function painted(drawing: Drawing, ink: string, colours: PdfOptions['colours']): PDFOperator {
  const known = drawing.inks.find((i) => i.id === ink)
  const colour = colourIn(drawing.inks, ink)
  if (colours === 'print') {
    const { c, m, y, k } = printInkOf({ colour, ...(known?.print && { print: known.print }) })
    return setFillingCmykColor(c / 100, m / 100, y / 100, k / 100)
  }
  const { r, g, b } = rgb(colour)
  return setFillingRgbColor(r / 255, g / 255, b / 255)
}

function addPage(document: PDFDocument, drawing: Drawing, { bleed, marks }: PdfOptions, shapes: readonly Shape[], paint: (ink: string) => PDFOperator, label: { text: string; font: PDFFont } | null): void {
  const { width, height, pxPerMm } = drawing.page
  const k = PT_PER_MM / pxPerMm
  const [w, h] = [width * k, height * k]
  const round = bleed * PT_PER_MM
  const rim = round + (marks ? (OFF + MARK) * PT_PER_MM : label ? 2 * LABEL : 0)
  const page = document.addPage([w + 2 * rim, h + 2 * rim])
  page.setTrimBox(rim, rim, w, h)
  page.setBleedBox(rim - round, rim - round, w + 2 * round, h + 2 * round)
  page.pushOperators(
    pushGraphicsState(),
    rectangle(rim - round, rim - round, w + 2 * round, h + 2 * round),
    clip(),
    endPath(),
    // From px, y down, to points, y up.
    concatTransformationMatrix(k, 0, 0, -k, rim, rim + h),
    ...shapes.flatMap((s) => [paint(s.ink), ...outlineOf(s), fill()]),
    popGraphicsState(),
  )
  if (marks) page.pushOperators(...marksOf(rim, w, h, round))
  if (label) writeLabel(page, label, rim)
}

const told = (v: number): number => Number(v.toFixed(DIGITS))

function outlineOf({ contours }: Shape): PDFOperator[] {
  return contours.flatMap((c) => {
    const cubics = cubicsOfPath({ ...c, closed: true })
    const [first] = cubics
    if (!first) return []
    return [
      moveTo(told(first.p0.x), told(first.p0.y)),
      ...cubics.map((q) => (isStraight(q, 1e-9) ? lineTo(told(q.p3.x), told(q.p3.y)) : appendBezierCurve(told(q.p1.x), told(q.p1.y), told(q.p2.x), told(q.p2.y), told(q.p3.x), told(q.p3.y)))),
      closePath(),
    ]
  })
}

/** Two marks at each corner, beyond the bleed. */
function marksOf(rim: number, w: number, h: number, bleed: number): PDFOperator[] {
  const from = bleed + OFF * PT_PER_MM
  const to = from + MARK * PT_PER_MM
  const out = [pushGraphicsState(), setLineWidth(MARK_WIDTH), setStrokingCmykColor(0, 0, 0, 1)]
  for (const [x, dx] of [[rim, -1], [rim + w, 1]] as const) {
    for (const [y, dy] of [[rim, -1], [rim + h, 1]] as const) {
      out.push(moveTo(x + dx * from, y), lineTo(x + dx * to, y), stroke(), moveTo(x, y + dy * from), lineTo(x, y + dy * to), stroke())
    }
  }
  return [...out, popGraphicsState()]
}

function writeLabel(page: PDFPage, { text, font }: { text: string; font: PDFFont }, rim: number): void {
  page.drawText(text, { x: rim + 2 * LABEL, y: LABEL / 2, size: LABEL, font })
}

/** What a separation is of; the plain font has no letters but these. */
function labelOf(drawing: Drawing, id: string): string {
  const ink = drawing.inks.find((i) => i.id === id)
  const { c, m, y, k } = printInkOf(ink ?? { colour: colourIn(drawing.inks, id) })
  return `${(ink?.name ?? 'Tone').normalize('NFKD').replace(/[^\x20-\x7e]/g, '')}, C${c} M${m} Y${y} K${k}`
}

