import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { beforeAndAfter } from './before-and-after'

const folder = (path: string, every = 1): [string, string][] =>
  readdirSync(path)
    .filter((n) => n.endsWith('.svg'))
    .filter((_, i) => i % every === 0)
    .map((n) => [n, readFileSync(join(path, n), 'utf8')])

interface Bodies {
  width?: number
  height?: number
  icons: Record<string, { body: string; width?: number; height?: number }>
}
/** A set that comes as one file of the insides of its pictures. */
function bodies(path: string, every: number): [string, string][] {
  const set = JSON.parse(readFileSync(path, 'utf8')) as Bodies
  return Object.entries(set.icons)
    .filter((_, i) => i % every === 0)
    .map(([name, { body, width, height }]) => [
      name,
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width ?? set.width ?? 16} ${height ?? set.height ?? 16}">${body}</svg>`,
    ])
}

/** Flags reuse, clip and transform; file types have style sheets and gradients; the last was looked at only once all was done. */
const setsOf = (share: number): [string, () => [string, string][]][] => [
  ['flags', () => folder('node_modules/flag-icons/flags/4x3', share)],
  [
    'file types',
    () =>
      ['vivid', 'square-o', 'classic'].flatMap((f) =>
        folder(`node_modules/file-icon-vectors/dist/icons/${f}`, 3 * share),
      ),
  ],
  ['faces and things', () => bodies('node_modules/@iconify-json/fxemoji/icons.json', 2 * share)],
]

/** Tests that sets of pictures look the same once they have come in; one in `share` of those that all are. */
export const judgeSets = (share: number): unknown =>
  describe('pictures by other hands look the same once they have come in', () => {
    it.each(setsOf(share))('%s', { timeout: 400_000 }, (_, files) => {
      const plain: number[] = []
      for (const [name, text] of files()) {
        const { difference, warnings } = beforeAndAfter(text)
        if (warnings.length) continue
        plain.push(difference)
        expect(difference, name).toBeLessThan(0.01)
      }
      // Of what nothing needed to be told.
      expect(plain.length).toBeGreaterThan(200 / share)
      expect(plain.reduce((a, b) => a + b, 0) / plain.length).toBeLessThan(0.0006)
    })
  })
