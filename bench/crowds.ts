import type { Page } from '@playwright/test'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { ADDRESS, countedFrames, countFrames, openDrawing, withApplication } from './application'
import type { Spread } from './spread'
import { spread } from './spread'
import { strokes } from './strokes'

/** A drawing of very many lines in the built application. */
export interface CrowdRows {
  lines: number
  /** From opening its page to the first ink on the canvas, and to all of it, ms. */
  firstInk: number
  allInk: number
  /** Time between two frames while it is moved about, ms. */
  frames: { work: string; spread: Spread }[]
}

const LINES = 10_000

export const crowdRows = (): Promise<CrowdRows> =>
  withApplication(async (page) => {
    const side = Math.sqrt(LINES) * 45
    const id = await openDrawing(
      page,
      newDrawing('Crowd', {
        page: { width: side, height: side * 0.6, unit: 'px', pxPerMm: 10 },
        layers: [newLinesLayer('Lines', strokes(LINES))],
      }),
    )
    await page.waitForTimeout(20_000)
    await page.addInitScript(() => {
      const { drawImage } = CanvasRenderingContext2D.prototype
      CanvasRenderingContext2D.prototype.drawImage = function (this: CanvasRenderingContext2D, ...a: unknown[]) {
        const all = window as unknown as { inked: number[] }
        ;(all.inked ??= []).push(performance.now())
        Reflect.apply(drawImage, this, a)
      }
    })
    await page.goto(`${ADDRESS}/drawings/${id}`)
    await page.waitForTimeout(25_000)
    const inked = await page.evaluate(() => (window as unknown as { inked: number[] }).inked)
    const frames = [
      await moved(
        page,
        'panned',
        async (i) => page.mouse.move(640 + 120 * Math.sin(i / 12), 400 + 60 * Math.cos(i / 9)),
        { before: () => page.mouse.down({ button: 'middle' }), after: () => page.mouse.up({ button: 'middle' }) },
      ),
      await moved(page, 'zoomed by wheel', (i) => page.mouse.wheel(0, i % 40 < 20 ? -60 : 60)),
      await moved(page, 'turned', (i) => page.keyboard.press(i % 20 < 10 ? ',' : '.')),
    ]
    return { lines: LINES, firstInk: inked[0]!, allInk: inked.at(-1)!, frames }
  })

async function moved(
  page: Page,
  work: string,
  step: (i: number) => Promise<void>,
  { before, after }: { before?: () => Promise<void>; after?: () => Promise<void> } = {},
): Promise<{ work: string; spread: Spread }> {
  await page.getByTestId('canvas').focus()
  await page.mouse.move(640, 400)
  await before?.()
  await countFrames(page)
  for (let i = 0; i < 120; i++) await step(i)
  const times = await countedFrames(page)
  await after?.()
  await page.waitForTimeout(1500)
  return { work, spread: spread(times) }
}
