import { describe, expect, it } from 'vitest'
import type { Line } from '#core/model/model'
import { touchesOf } from '#core/relations/touches'
import { plainLine } from './support/desk'

const named = (id: string, ax: number, ay: number, bx: number, by: number): Line => ({
  ...plainLine({ x: ax, y: ay }, { x: bx, y: by }, 4),
  id,
})
const at = { reach: 1, overshoot: 6 }

describe('touches along a line', () => {
  const floor = named('floor', 0, 0, 100, 0)

  it('are its own ends on others, others’ ends on it, and crossings, in order and each once', () => {
    const lines = [
      floor,
      named('wall', 0, -40, 0, 40),
      named('post', 30, -50, 30, 0),
      named('cut', 70, -30, 70, 30),
      named('far', 0, 80, 100, 80),
    ]
    expect(touchesOf(floor, lines, at)).toEqual([
      { at: 0, by: 'wall', how: 'meets' },
      { at: 0.3, by: 'post', how: 'met' },
      { at: expect.closeTo(0.7, 6), by: 'cut', how: 'crosses' },
    ])
  })

  it('are none for a line alone, or one without length', () => {
    expect(touchesOf(floor, [floor], at)).toEqual([])
    expect(touchesOf(named('dot', 5, 0, 5, 0), [floor, named('dot', 5, 0, 5, 0)], at)).toEqual([])
  })
})
