import { describe, expect, it } from 'vitest'
import { alignedWith, movedToAlign } from '#core/geometry/align'
import { polyline } from './support/paths'

const paths = [polyline(100, 100, 160, 140), polyline(250, 100, 260, 60)]
const near = { reach: 4, span: 400 }

describe('a point is drawn', () => {
  it('level with an end, and as far from it as that is from another', () => {
    const made = alignedWith({ x: 330, y: 102 }, paths, near)!
    expect(made.at).toEqual({ x: 330, y: 100 })
    expect(made.guides).toEqual([{ from: expect.objectContaining({ y: 100 }) as unknown, at: made.at }])
    // 100 and 250 lie 150 px apart.
    expect(alignedWith({ x: 397, y: 99 }, paths, near)!.at).toEqual({ x: 400, y: 100 })
  })

  it('upright below a node and level with another at once', () => {
    expect(alignedWith({ x: 158, y: 61 }, paths, near)).toEqual({
      at: { x: 160, y: 60 },
      guides: [
        { from: { x: 260, y: 60 }, at: { x: 160, y: 60 } },
        { from: { x: 160, y: 140 }, at: { x: 160, y: 60 } },
      ],
    })
  })

  it('in line with the end of a line, and to nothing that is far', () => {
    const made = alignedWith({ x: 222, y: 180 }, paths, near)!
    // On from (160, 140) by (60, 40).
    expect((made.at.x - 160) / (made.at.y - 140)).toBeCloseTo(1.5, 9)
    expect(made.guides[0]!.from).toEqual({ x: 160, y: 140 })
    expect(alignedWith({ x: 330, y: 102 }, paths, { reach: 4, span: 50 })).toBeNull()
    expect(alignedWith({ x: 330, y: 111 }, paths, near)).toBeNull()
  })
})

it('moved things come level by one of their points and upright by another', () => {
  // By 2 px up the first comes level with (100, 100); by 3 px to the right the other one comes upright below (160, 140).
  const made = movedToAlign(
    [
      { x: 40, y: 102 },
      { x: 157, y: 230 },
    ],
    paths,
    near,
  )!
  expect(made.by).toEqual({ x: 3, y: -2 })
  expect(made.guides).toEqual([
    { from: { x: 100, y: 100 }, at: { x: 43, y: 100 } },
    { from: { x: 160, y: 140 }, at: { x: 160, y: 228 } },
  ])
  expect(movedToAlign([{ x: 40, y: 107 }], paths, near)).toBeNull()
  expect(movedToAlign([{ x: 40, y: 102 }], paths, { reach: 4, span: 30 })).toBeNull()
})
