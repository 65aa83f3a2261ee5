import { rgb } from 'd3-color'
import type { PDFFont, PDFOperator } from 'pdf-lib'
import {
  appendBezierCurve,
  clip,
  closePath,
  concatTransformationMatrix,
  endPath,
  fill,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  setFillingCmykColor,
  setFillingRgbColor,
  setLineWidth,
  setStrokingCmykColor,
  StandardFonts,
  stroke,
} from 'pdf-lib'
import type { Drawing, Shape } from '../../model/model'
import type { Vec } from '../../geometry/point'
import { colourIn } from '../../model/inks'
import { InputError } from '../../errors'
import { isStraight } from '../../geometry/cubic'
import { cubicsOfPath } from '../../geometry/path'
import { printInkOf } from './print-ink'
import type { PdfOptions } from './pdf-options'
import type { Sheet } from './sheets'
import { marksOf, rimOf, sheetsOf } from './sheets'

const PT_PER_MM = 72 / 25.4
const MARK_WIDTH = 0.25
/** Size of the words beside a separation, points. */
const LABEL = 7
/** Coordinates are told to so many px. */
const DIGITS = 4

/**
 * A PDF of a drawing's shapes: plain filled curves, the page in its true size with its boxes (PDF 1.7, ISO 32000-1, 14.11.2).
 *
 * @throws InputError for an impossible bleed
 */
export async function writePdf(drawing: Drawing, options: PdfOptions): Promise<Uint8Array> {
  const { bleed } = options
  if (!(bleed >= 0 && bleed <= 50)) throw new InputError('bleed', `The bleed must be from 0 to 50 mm, not ${bleed}.`)
  const document = await PDFDocument.create()
  document.setTitle(drawing.name)
  document.setCreator('Bellatrait')
  document.setProducer('Bellatrait')
  const font = await document.embedFont(StandardFonts.Helvetica)
  for (const sheet of sheetsOf(drawing, options)) addPage(document, drawing, options, sheet, font)
  // A drawing without ink has an empty page: a PDF has one at least.
  if (!document.getPageCount()) addPage(document, drawing, options, { ink: null, name: drawing.name, shapes: [] }, font)
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

function addPage(document: PDFDocument, drawing: Drawing, options: PdfOptions, sheet: Sheet, font: PDFFont): void {
  const { bleed, marks, colours } = options
  const paint = (ink: string): PDFOperator =>
    sheet.ink ? setFillingCmykColor(0, 0, 0, 1) : painted(drawing, ink, colours)
  const { width, height, pxPerMm } = drawing.page
  const k = PT_PER_MM / pxPerMm
  const [w, h] = [width * k, height * k]
  const round = bleed * PT_PER_MM
  const rim = rimOf(options, sheet) * PT_PER_MM
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
    ...sheet.shapes.flatMap((s) => [paint(s.ink), ...outlineOf(s), fill()]),
    popGraphicsState(),
  )
  if (marks) page.pushOperators(...strokesOf(marksOf(width / pxPerMm, height / pxPerMm, bleed), rim, h))
  if (sheet.ink) page.drawText(sheet.name, { x: rim + 2 * LABEL, y: LABEL / 2, size: LABEL, font })
}

const told = (v: number): number => Number(v.toFixed(DIGITS))

function outlineOf({ contours }: Shape): PDFOperator[] {
  return contours.flatMap((c) => {
    const cubics = cubicsOfPath({ ...c, closed: true })
    const [first] = cubics
    if (!first) return []
    return [
      moveTo(told(first.p0.x), told(first.p0.y)),
      ...cubics.map((q) =>
        isStraight(q, 1e-9)
          ? lineTo(told(q.p3.x), told(q.p3.y))
          : appendBezierCurve(told(q.p1.x), told(q.p1.y), told(q.p2.x), told(q.p2.y), told(q.p3.x), told(q.p3.y)),
      ),
      closePath(),
    ]
  })
}

/** Thin lines, told in mm from the corner of a page that is `height` points high. */
function strokesOf(lines: readonly [Vec, Vec][], rim: number, height: number): PDFOperator[] {
  const at = ({ x, y }: Vec): [number, number] => [rim + x * PT_PER_MM, rim + height - y * PT_PER_MM]
  return [
    pushGraphicsState(),
    setLineWidth(MARK_WIDTH),
    setStrokingCmykColor(0, 0, 0, 1),
    ...lines.flatMap(([a, b]) => [moveTo(...at(a)), lineTo(...at(b)), stroke()]),
    popGraphicsState(),
  ]
}
