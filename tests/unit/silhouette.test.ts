import { expect, it } from 'vitest'
import { fillSilhouette } from '~/painting/silhouette'

it('a silhouette is all that ink closes off, not what an open bay holds', () => {
  const rows = ['.........', '.####.##.', '.#..#.#..', '.####.##.', '......#..', '.........']
  const [width, height] = [rows[0]!.length, rows.length]
  const data = new Uint8ClampedArray(width * height * 4)
  rows
    .join('')
    .split('')
    .forEach((c, i) => data.set(c === '#' ? [40, 10, 10, 200] : [90, 90, 90, 30], i * 4))
  fillSilhouette(data, width, height)
  const seen = Array.from({ length: height }, (_, y) =>
    Array.from({ length: width }, (_, x) => (data[(y * width + x) * 4 + 3] ? '#' : '.')).join(''),
  )
  expect(seen).toEqual(['.........', '.####.##.', '.####.#..', '.####.##.', '......#..', '.........'])
  expect([...data.subarray(40, 43)]).toEqual([0, 0, 0])
})
