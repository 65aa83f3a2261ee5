import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { MOVES, restacked } from '#core/editing/stack-order'

const stack = [...'abcdef'].map((id) => ({ id }))
const moved = (ids: string, move: (typeof MOVES)[number]): string =>
  restacked(stack, new Set(ids), move)
    .map((i) => i.id)
    .join('')

describe('the order within a layer', () => {
  it('goes to the front and the back, and past one other up or down, what moves staying in its order', () => {
    expect(moved('b', 'front')).toBe('acdefb')
    expect(moved('db', 'front')).toBe('acefbd')
    expect(moved('e', 'back')).toBe('eabcdf')
    expect(moved('b', 'up')).toBe('acbdef')
    expect(moved('bc', 'up')).toBe('adbcef')
    expect(moved('bc', 'down')).toBe('bcadef')
    expect(moved('ef', 'up')).toBe('abcdef')
  })

  it('keeps every item, and is the same array where nothing moves', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...'abcdef')), fc.constantFrom(...MOVES), (ids, move) => {
        const after = restacked(stack, new Set(ids), move)
        expect(after.map((i) => i.id).sort()).toEqual([...'abcdef'])
        const rest = (all: readonly { id: string }[]): string =>
          all
            .filter((i) => !ids.includes(i.id))
            .map((i) => i.id)
            .join('')
        expect(rest(after)).toBe(rest(stack))
        if (after.every((i, k) => i === stack[k])) expect(after).toBe(stack)
      }),
      { seed: 3 },
    )
  })
})
