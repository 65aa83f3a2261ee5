import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { afterAll, describe, expect, it } from 'vitest'

const ICONS = 'node_modules/lucide-static/icons'
const SIZE = 512

interface FileReport {
  file: string
  nodes: number
  strokes: number
  error?: string
}

/** Rendered pixels: red, green, blue and coverage, 0..255. */
const pixelsOf = (svg: string): Uint8Array => new Resvg(svg, { fitTo: { mode: 'width', value: SIZE } }).render().pixels

/** Tests that every `every`-th icon of a large set goes through the command line and looks as it did. */
export function judgeIcons(every: number): void {
  describe('the stroked icons of a large set through the command line', () => {
    const folder = mkdtempSync(join(tmpdir(), 'icons-'))
    const icons = readdirSync(ICONS)
      .filter((n) => n.endsWith('.svg'))
      .filter((_, i) => i % every === 0)
      .map((n) => join(ICONS, n))
    afterAll(() => rmSync(folder, { recursive: true }))
    const report = join(folder, 'report.json')

    it('all expand', { timeout: 400_000 }, () => {
      const run = spawnSync(process.execPath, [
        '--import',
        'tsx',
        'cli/bellatrait.ts',
        'expand',
        ...icons,
        '--out-dir',
        folder,
        '--tolerance',
        '0.01',
        '--report',
        report,
      ])
      expect(run.stderr.toString()).not.toMatch(/\.svg:/)
      expect(run.status).toBe(0)
      const files = JSON.parse(readFileSync(report, 'utf8')) as FileReport[]
      expect(files.length).toBe(icons.length)
      // About 43 nodes to an icon of three strokes.
      expect(files.reduce((n, f) => n + f.nodes, 0) / files.length).toBeLessThan(50)
    })

    it(
      'look like the strokes: mean difference in coverage under 0.15 %, worst icon under 1 %',
      { timeout: 400_000 },
      () => {
        const files = JSON.parse(readFileSync(report, 'utf8')) as FileReport[]
        let sum = 0
        let worst = { share: 0, file: '' }
        for (const { file } of files) {
          const a = pixelsOf(readFileSync(file, 'utf8').replaceAll('currentColor', '#000'))
          const b = pixelsOf(readFileSync(join(folder, basename(file)), 'utf8'))
          let off = 0
          for (let i = 3; i < a.length; i += 4) off += Math.abs(a[i]! - b[i]!)
          const share = off / 255 / (a.length / 4)
          sum += share
          if (share > worst.share) worst = { share, file }
        }
        const nodes = files.reduce((n, f) => n + f.nodes, 0)
        const percent = (share: number): string => `${(100 * share).toFixed(4)} %`
        console.info(
          `${files.length} icons, ${nodes} nodes, mean difference ${percent(sum / files.length)}, worst ${percent(worst.share)} (${basename(worst.file)})`,
        )
        expect(sum / files.length).toBeLessThan(0.0015)
        expect(worst.share, worst.file).toBeLessThan(0.01)
      },
    )
  })
}
