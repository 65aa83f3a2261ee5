import { describe, expect, it } from 'vitest'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { openInk } from '#core/ink/open-ink'
import { bandsOf, bandsWorth, pageOfBand } from '#core/ink/session/bands'
import { shapesOf } from '#core/ink/shapes-of'
import { Book } from '#core/recall/book'
import { atOnce } from '#core/turns'
import { strokes } from '../../bench/strokes'

describe('the bands of a drawing', () => {
  const page = { width: 725, height: 711, unit: 'px', pxPerMm: 10 } as const
  const drawing = newDrawing('Bands', { page, layers: [newLinesLayer('Ink', strokes(260))] })

  it('make what the whole needs, which is the same with them as without', { timeout: 120_000 }, () => {
    const book = new Book('test')
    const bands = bandsOf(drawing, 2)
    const sizes = bands.map((b) => b.drawing.layers.reduce((n, l) => n + l.items.length, 0))
    expect(Math.max(...sizes)).toBeLessThan(200)
    for (const band of bands) book.read(atOnce(pageOfBand(band, 'test')))
    let [found, missed] = [0, 0]
    const find = book.find.bind(book)
    book.find = (key) => {
      const numbers = find(key)
      if (numbers) found++
      else missed++
      return numbers
    }
    expect(atOnce(openInk(drawing, book).shapes())).toEqual(shapesOf(drawing))
    expect(found).toBeGreaterThan(800)
    expect(missed).toBeLessThan(found / 50)
  })

  it('are as many as there are threads, and none where they are not worth it', () => {
    const many = { ...drawing, layers: [newLinesLayer('Ink', strokes(1100))] }
    expect([bandsWorth(many, 8), bandsWorth(many, 3), bandsWorth(many, 1), bandsWorth(drawing, 8)]).toEqual([
      4, 3, 1, 1,
    ])
  })
})
