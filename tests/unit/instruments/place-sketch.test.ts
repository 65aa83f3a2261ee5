import { describe, expect, it } from 'vitest'
import { newSketchLayer } from '#core/drawing/create'
import type { SketchLayer } from '#core/drawing/model'
import { cornersOf, PlaceSketch } from '~/instruments/place-sketch'
import { drag, hand, TestWorktop } from '../support/desk'

describe('placing the sketch', () => {
  const withSketch = (locked: boolean, angle = 0) => {
    const worktop = new TestWorktop()
    const layer = { ...newSketchLayer({ id: 'sk', image: 'a'.repeat(64), x: 10, y: 20, width: 200, height: 100, angle }), locked }
    worktop.now = { ...worktop.now, layers: [layer, ...worktop.now.layers] }
    const sketch = () => (worktop.now.layers[0] as SketchLayer).items[0]!
    return { worktop, sketch }
  }

  it('moves it, and scales it from the opposite corner with its proportions', () => {
    const { worktop, sketch } = withSketch(false)
    const tool = new PlaceSketch(worktop)
    drag(tool, [[50, 50], [60, 55], [70, 60]])
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 200 })
    drag(tool, [[230, 130], [130, 80]], { mark: { kind: 'corner', index: 2 } })
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 100, height: 50 })
    expect(worktop.labels).toEqual(['Move the sketch', 'Scale the sketch'])
  })

  it('keeps the opposite corner of a turned sketch where it is', () => {
    const { worktop, sketch } = withSketch(false, 30)
    const before = cornersOf(sketch())
    drag(new PlaceSketch(worktop), [[before[1].x, before[1].y], [before[1].x + 40, before[1].y - 10]], { mark: { kind: 'corner', index: 1 } })
    const after = cornersOf(sketch())
    expect(after[3].x).toBeCloseTo(before[3].x, 9)
    expect(after[3].y).toBeCloseTo(before[3].y, 9)
    expect(sketch().width / sketch().height).toBeCloseTo(2, 9)
    expect(sketch().width).not.toBeCloseTo(200, 0)
  })

  it('never scales it away or inside out', () => {
    const { worktop, sketch } = withSketch(false)
    drag(new PlaceSketch(worktop), [[210, 120], [-900, -900]], { mark: { kind: 'corner', index: 2 } })
    expect(sketch().width).toBeGreaterThan(0)
    expect(sketch().height).toBeCloseTo(8, 6)
  })

  it('says why a locked one does not move', () => {
    const { worktop, sketch } = withSketch(true)
    const tool = new PlaceSketch(worktop)
    drag(tool, [[50, 50], [90, 90]])
    expect(sketch().x).toBe(10)
    expect(worktop.said[0]).toContain('is locked. Unlock it')
    expect(tool.marks()).toEqual([])
  })

  it('nudges with the arrows and takes a move back with Escape', () => {
    const { worktop, sketch } = withSketch(false)
    const tool = new PlaceSketch(worktop)
    tool.key('ArrowDown', true)
    expect(sketch().y).toBe(30)
    tool.press(hand(50, 50))
    tool.move(hand(90, 90))
    tool.key('Escape', false)
    tool.release()
    expect(sketch()).toMatchObject({ x: 10, y: 30 })
  })
})
