import { newId } from '../new-id'
import type {
  Drawing,
  Finish,
  Ink,
  Line,
  LinesLayer,
  Page,
  Shape,
  ShapesLayer,
  Sketch,
  SketchLayer,
  Weight,
} from './model'
import type { Path } from '../geometry/path'

/** The name of a drawing that was not given one. */
export const UNTITLED = 'Untitled drawing'

export const BLACK: Ink = { id: 'black', name: 'Black', colour: '#211c1a' }

/** A weight of the same width everywhere, `size` px, without tapers. */
export const evenWeight = (size: number): Weight => ({
  size,
  stops: [{ at: 0, left: 1, right: 1 }],
  start: null,
  end: null,
  nib: null,
  pinned: false,
})

/** The finish of a fresh line: round caps and joins, in the middle of its path, whole. */
export const roundFinish = (): Finish => ({
  startCap: 'round',
  endCap: 'round',
  join: 'round',
  miterLimit: 4,
  align: 'centre',
  dash: [],
})

/** A fresh line on a path, black and even unless `over` says otherwise. */
export function newLine(path: Path, over: Partial<Omit<Line, 'path'>> = {}): Line {
  return {
    id: newId(),
    path,
    weight: evenWeight(6),
    finish: roundFinish(),
    ink: BLACK.id,
    trace: null,
    snips: [],
    cover: false,
    ...over,
  }
}

/** A fresh layer of lines, visible and open. */
export const newLinesLayer = (name: string, items: Line[] = []): LinesLayer => ({
  id: newId(),
  name,
  kind: 'lines',
  visible: true,
  locked: false,
  opacity: 1,
  items,
})

/** A fresh layer of solids, visible and open. */
export const newFillsLayer = (name: string, items: Shape[] = []): ShapesLayer => ({
  id: newId(),
  name,
  kind: 'fills',
  visible: true,
  locked: false,
  opacity: 1,
  items,
})

/** A dimmed and locked layer for a pencil sketch. */
export const newSketchLayer = (sketch: Sketch): SketchLayer => ({
  id: newId(),
  name: 'Pencil sketch',
  kind: 'sketch',
  visible: true,
  locked: true,
  opacity: 0.5,
  items: [sketch],
})

/** 120 x 87 mm at 6 px per mm: about the size of a seed packet. */
export const defaultPage = (): Page => ({ width: 720, height: 524, unit: 'mm', pxPerMm: 6 })

/** A fresh drawing on the usual page, with one layer of lines unless `over` says otherwise. */
export function newDrawing(name: string, over: Partial<Drawing> = {}): Drawing {
  return {
    id: newId(),
    name,
    page: defaultPage(),
    layers: [newLinesLayer('Lines')],
    inks: [{ ...BLACK }],
    settings: { shapes: { unite: true, tolerance: 0.05, simplify: 0.15 } },
    ...over,
  }
}
