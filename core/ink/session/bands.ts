import { shownItems } from '../../model/queries'
import type { Box } from '../../geometry/bounds'
import { emptyBox, uniteBoxes } from '../../geometry/bounds'
import { boxOfPath } from '../../geometry/known'
import type { Drawing, Line, Shape } from '../../model/model'
import { Book } from '../../recall/book'
import { cellsFor } from '../stack/all-ink'
import { Session } from './session'

/** A part of a drawing of which a session somewhere else can make what the whole will need. */
export interface Band {
  /** What lies in the band and about it; what is poured is left to the whole. */
  drawing: Drawing
  /** How many parts the whole has, by which it is cut into cells. */
  parts: number
}

/** A band takes in so many cells beyond its sides: what ends there and what they meet, and the cells that it only half has. */
const BEYOND = 1.5

/** With so many items a band more than pays for its thread. */
const LEAST = 250

/**
 * How many bands are worth it for a drawing and a number of threads that are free; below two, none is.
 *
 * @param least so many items a band has, at least: more where a thread takes longer until it is there
 */
export const bandsWorth = (drawing: Drawing, threads: number, least = LEAST): number =>
  Math.min(threads, Math.floor(itemsOf(drawing).length / least))

/**
 * A drawing cut along its longer side into bands with about as many items each. What follows from a band, put into a book,
 * is found there by the whole as far as it is the same, which it is but for what reaches over the sides.
 */
export function bandsOf(drawing: Drawing, count: number): Band[] {
  const items = itemsOf(drawing)
  const boxes = new Map(items.map((item) => [item, boxOfItem(item)]))
  const all = [...boxes.values()].reduce(uniteBoxes, emptyBox())
  const isWide = all.maxX - all.minX >= all.maxY - all.minY
  const spanOf = (b: Box): [number, number] => (isWide ? [b.minX, b.maxX] : [b.minY, b.maxY])
  const middles = [...boxes.values()]
    .map((b) => (spanOf(b)[0] + spanOf(b)[1]) / 2)
    .filter(Number.isFinite)
    .sort((a, b) => a - b)
  const beyond = BEYOND * cellsFor(drawing.page, items.length)
  const sideAt = (i: number): number =>
    i <= 0 ? -Infinity : i >= count ? Infinity : middles[Math.floor((i * middles.length) / count)]!
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [sideAt(i) - beyond, sideAt(i + 1) + beyond]
    const isIn = (item: Line | Shape): boolean => {
      const [low, high] = spanOf(boxes.get(item)!)
      return high >= from && low <= to
    }
    return { parts: items.length, drawing: only(drawing, isIn) }
  })
}

/** Makes what follows from a band; answers it as a page of a book, to be read by the book of the whole. */
export function* pageOfBand({ drawing, parts }: Band, engine: string): Generator<number, Uint8Array> {
  const book = new Book(engine)
  yield* new Session(drawing, { recall: book, parts }).shapes()
  return book.everything()
}

const itemsOf = ({ layers }: Drawing): (Line | Shape)[] => layers.flatMap(shownItems)

const boxOfItem = (item: Line | Shape): Box =>
  ('path' in item ? [item.path] : item.contours).map(boxOfPath).reduce(uniteBoxes, emptyBox())

const only = (drawing: Drawing, isIn: (item: Line | Shape) => boolean): Drawing => ({
  ...drawing,
  fills: [],
  layers: drawing.layers.map((l) =>
    l.kind === 'lines'
      ? { ...l, items: l.items.filter(isIn) }
      : l.kind === 'sketch'
        ? l
        : { ...l, items: l.items.filter(isIn) },
  ),
})
