import type { Drawing, Shape } from '../../model/model'
import type { Vec } from '../../geometry/point'
import { colourIn } from '../../model/inks'
import { knockedOutShapes } from '../../ink/fills/knockout'
import type { PdfOptions } from './pdf-options'
import { printInkOf } from './print-ink'

/** A page of a PDF: all inks, or one of them in black. */
export interface Sheet {
  /** The ink of a separation; null for all. */
  ink: string | null
  name: string
  shapes: readonly Shape[]
}

/** Marks are so long, and stand so far off what is cut, mm. */
const MARK = 5
const OFF = 3
/** Room for the words beside a separation that has no marks, mm. */
const LABEL = 5

/** The pages that a drawing's shapes make: one, or one for each ink, each less what lies above it. */
export function sheetsOf(
  drawing: Drawing,
  { shapes, separate, tolerance }: Pick<PdfOptions, 'shapes' | 'separate' | 'tolerance'>,
): Sheet[] {
  if (!separate) return [{ ink: null, name: drawing.name, shapes }]
  const parts = knockedOutShapes(shapes, drawing.inks, 'cut-out', { tolerance })
  return [...new Set(parts.map((s) => s.ink))].map((ink) => ({
    ink,
    name: labelOf(drawing, ink),
    shapes: parts.filter((s) => s.ink === ink),
  }))
}

/** How far a sheet goes on beyond the page on each side, mm. */
export const rimOf = ({ bleed, marks }: Pick<PdfOptions, 'bleed' | 'marks'>, { ink }: Pick<Sheet, 'ink'>): number =>
  bleed + (marks ? OFF + MARK : ink ? LABEL : 0)

/** Two marks at each corner of a page, beyond the bleed: lines in mm from the page's corner. */
export function marksOf(width: number, height: number, bleed: number): [Vec, Vec][] {
  const [from, to] = [bleed + OFF, bleed + OFF + MARK]
  return [
    [0, -1],
    [width, 1],
  ].flatMap(([x, dx]) =>
    [
      [0, -1],
      [height, 1],
    ].flatMap(([y, dy]): [Vec, Vec][] => [
      [
        { x: x! + dx! * from, y: y! },
        { x: x! + dx! * to, y: y! },
      ],
      [
        { x: x!, y: y! + dy! * from },
        { x: x!, y: y! + dy! * to },
      ],
    ]),
  )
}

/** What a separation is of; the plain font of a PDF has no letters but these. */
function labelOf(drawing: Drawing, id: string): string {
  const ink = drawing.inks.find((i) => i.id === id)
  const { c, m, y, k } = printInkOf(ink ?? { colour: colourIn(drawing.inks, id) })
  return `${(ink?.name ?? 'Tone').normalize('NFKD').replace(/[^\x20-\x7e]/g, '')}, C${c} M${m} Y${y} K${k}`
}
