import { describe, expect, it } from 'vitest'
import { boxOfCubics } from '#core/geometry/bounds'
import { cubicsOfPath } from '#core/geometry/path'
import { Figure } from '~/instruments/figure'
import { click, drag, hand, TestWorktop } from '../support/desk'

const boxOf = (worktop: TestWorktop) => boxOfCubics(cubicsOfPath(worktop.lines[0]!.path))

describe('the figure', () => {
  it('is drawn in the box of a drag, as a line that is chosen and can be undone in one step', () => {
    const worktop = new TestWorktop()
    drag(new Figure(worktop), [10, 10, 30, 30, 90, 50])
    expect(boxOf(worktop)).toMatchObject({ minX: 10, minY: 10, maxX: 90, maxY: 50 })
    expect(worktop.labels).toEqual(['Draw an ellipse'])
    expect(worktop.chosen).toEqual([worktop.lines[0]!.id])
  })

  it('is as wide as high with Shift, about its beginning with Alt', () => {
    const square = new TestWorktop()
    drag(new Figure(square), [10, 10, 40, 20, 70, 30], { shift: true })
    expect(boxOf(square)).toMatchObject({ minX: 10, minY: 10, maxX: 70, maxY: 70 })
    const centred = new TestWorktop()
    drag(new Figure(centred), [50, 50, 60, 60, 80, 60], { alt: true })
    expect(boxOf(centred)).toMatchObject({ minX: 20, minY: 40, maxX: 80, maxY: 60 })
  })

  it('a click draws nothing and says what to do', () => {
    const worktop = new TestWorktop()
    click(new Figure(worktop), 10, 10)
    expect(worktop.lines).toHaveLength(0)
    expect(worktop.said).toEqual(['Drag to give the figure its size.'])
  })

  it('that shrinks back to nothing is a slip', () => {
    const worktop = new TestWorktop()
    drag(new Figure(worktop), [10, 10, 60, 60, 11, 11])
    expect(worktop.lines).toHaveLength(0)
  })

  it('is dropped with Escape and kept when another instrument is taken up', () => {
    const worktop = new TestWorktop()
    const figure = new Figure(worktop)
    const begin = () => {
      figure.press(hand(0, 0))
      figure.move(hand(40, 40))
    }
    begin()
    expect(figure.key('Escape')).toBe(true)
    figure.leave()
    expect(worktop.lines).toHaveLength(0)
    begin()
    figure.leave()
    expect(worktop.lines).toHaveLength(1)
  })

  it('does not begin where no layer takes ink', () => {
    const worktop = new TestWorktop()
    worktop.locked = true
    drag(new Figure(worktop), [0, 0, 20, 20, 40, 40])
    expect(worktop.lines).toHaveLength(0)
  })
})
