import { execFileSync } from 'node:child_process'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { newDrawing, newSketchLayer } from '#core/model/create'
import { pencilSketch } from '../demo/kit/pencil'
import { SCENARIO } from '../demo/scenario'
import { ADDRESS, countedFrames, countFrames, openDrawing, withApplication } from './application'

/** A scan in the built application: how long its lines take to find, what a hand feels meanwhile, and what memory it takes. */
export interface SketchRow {
  megapixels: number
  /** ms until the sketch is seen, and until its lines are found. */
  seen: number
  found: number
  lines: number
  /** Time between two frames while lines are found and a hand moves over the drawing, ms. */
  frame: number
  worst: number
  /** Most that the browser and the server took at once beyond what they took with an empty drawing, MB. */
  memory: number
}

const SCANS = [{ width: 3000 }, { width: 9060 }]

/** Scans of a demo sketch, of 3,000 x 2,000 px and of 60 megapixels. */
export const sketchRows = (): Promise<SketchRow[]> =>
  withApplication(async (page) => {
    const png = await pencilSketch(
      SCENARIO[4]!().layers.flatMap((l) => l.lines),
      newDrawing('').page,
      45,
    )
    const rows: SketchRow[] = []
    for (const { width } of SCANS) {
      const { data, info } = await sharp(png).resize(width).jpeg({ quality: 90 }).toBuffer({ resolveWithObject: true })
      const { sha256 } = (await (
        await page.request.post(`${ADDRESS}/api/images`, { data, headers: { origin: ADDRESS } })
      ).json()) as { sha256: string }
      await openDrawing(page, newDrawing('Empty'))
      await page.waitForTimeout(1500)
      const before = taken()
      let most = before
      const watching = setInterval(() => (most = Math.max(most, taken())), 250)
      const began = performance.now()
      const drawing = newDrawing('Scan')
      drawing.layers.unshift(
        newSketchLayer({
          id: 'scan',
          image: sha256,
          x: 0,
          y: 0,
          width: drawing.page.width,
          height: drawing.page.height,
          angle: 0,
        }),
      )
      await openDrawing(page, drawing)
      await page.waitForFunction(
        () => (document.querySelector<HTMLImageElement>('[data-testid=sketch]')?.naturalWidth ?? 0) > 0,
      )
      const seen = performance.now() - began
      const { found, lines, frames } = await lookedFor(page)
      clearInterval(watching)
      rows.push({
        megapixels: (info.width * info.height) / 1e6,
        seen,
        found,
        lines,
        frame: frames[Math.floor(0.95 * frames.length)]!,
        worst: frames.at(-1)!,
        memory: most - before,
      })
    }
    return rows
  })

/** Lines are found while a hand moves over the drawing. */
async function lookedFor(page: Page): Promise<{ found: number; lines: number; frames: number[] }> {
  await page.keyboard.press('2')
  await page
    .getByTestId('tray')
    .getByRole('button', { name: /^\w Propose/ })
    .click()
  await page.getByTestId('find-lines').click()
  const began = performance.now()
  await countFrames(page)
  let stop = false
  const moving = (async () => {
    for (let i = 0; !stop; i++) await page.mouse.move(300 + 200 * Math.sin(i / 20), 300 + 100 * Math.cos(i / 13))
  })()
  const told = page.getByTestId('proposals')
  await told.waitFor({ timeout: 120_000 })
  const found = performance.now() - began
  stop = true
  await moving
  const frames = (await countedFrames(page)).toSorted((a, b) => a - b)
  return { found, lines: Number.parseInt((await told.textContent())!), frames }
}

/** Memory of the browser and of what runs beside it, MB. */
function taken(): number {
  const rows = execFileSync('ps', ['-eo', 'rss=,args='], { encoding: 'utf8' }).split('\n')
  return rows.reduce(
    (sum, row) => (/chromium|scripts\/start\.mjs|\.output\/server/.test(row) ? sum + Number.parseInt(row) / 1024 : sum),
    0,
  )
}
