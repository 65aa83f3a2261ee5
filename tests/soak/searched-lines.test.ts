import { expect, it } from 'vitest'
import { proposeLines } from '#core/sketch/propose-lines'
import { judged } from '../unit/support/judge-proposals'
import { searchedSketch } from '../unit/support/searched-sketch'

it('a hundred pencil pictures of one to four strokes a line, 0 to 8 px apart, are found without a setting', () => {
  const rows = [1, 2, 3, 4].flatMap((strokes) =>
    [0, 2, 4, 6, 8].flatMap((apart) =>
      [0, 1, 2, 3, 4].map((k) => {
        const { image, paths } = searchedSketch(strokes, apart, 11 * strokes + apart + 1000 * k)
        const found = proposeLines(image)
          .filter((p) => p.confidence > 0.3)
          .map((p) => p.path)
        return {
          picture: `${strokes} x ${apart} px, ${k}`,
          ...judged(found, paths),
          lines: found.length / paths.length,
        }
      }),
    ),
  )
  const mean = (of: 'recall' | 'precision' | 'lines' | 'nodes'): number =>
    rows.reduce((n, r) => n + r[of], 0) / rows.length
  const worst = (of: 'recall' | 'precision'): string =>
    rows
      .toSorted((a, b) => a[of] - b[of])
      .slice(0, 5)
      .map((r) => `${r.picture}: ${(100 * r[of]).toFixed(1)}`)
      .join('; ')
  console.info({
    recall: mean('recall'),
    precision: mean('precision'),
    lines: mean('lines'),
    nodes: mean('nodes'),
    'least recall': worst('recall'),
    'least precision': worst('precision'),
  })
  expect(mean('recall')).toBeGreaterThan(0.97)
  expect(mean('precision')).toBeGreaterThan(0.97)
  expect(mean('lines')).toBeLessThan(1.2)
  expect(mean('nodes')).toBeLessThan(1.4)
  for (const r of rows) expect([r.picture, r.recall > 0.94, r.precision > 0.94]).toEqual([r.picture, true, true])
})
