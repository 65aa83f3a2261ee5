import { describe, expect, it } from 'vitest'
import { evenWeight } from '#core/model/create'
import type { Weight } from '#core/model/model'
import { pastedWeight } from '#core/weight/copy-weight'

const rich: Weight = {
  size: 9,
  stops: [
    { at: 0, left: 0, right: 0.2 },
    { at: 1, left: 1, right: 1, sharp: true },
  ],
  start: { length: 20, unit: '%', tip: 0.1, ease: 'needle' },
  end: null,
  nib: { width: 1, height: 0.4, angle: 30 },
  pinned: true,
}

describe('a copied weight', () => {
  const onto = evenWeight(4)

  it('is put on whole, but what is pinned stays so', () => {
    expect(pastedWeight(onto, rich, 'all')).toEqual({ ...rich, pinned: false })
    expect(pastedWeight({ ...onto, pinned: true }, { ...rich, pinned: false }, 'all').pinned).toBe(true)
  })

  it('or only its profile with the tapers, or only its size', () => {
    expect(pastedWeight(onto, rich, 'profile')).toEqual({ ...onto, stops: rich.stops, start: rich.start, end: null })
    expect(pastedWeight(onto, rich, 'size')).toEqual({ ...onto, size: 9 })
  })

  it('shares nothing with where it came from', () => {
    const pasted = pastedWeight(onto, rich, 'all')
    pasted.stops[0]!.left = 5
    pasted.start!.tip = 1
    expect(rich.stops[0]!.left).toBe(0)
    expect(rich.start!.tip).toBe(0.1)
  })
})
