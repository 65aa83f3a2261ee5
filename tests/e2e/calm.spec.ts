import type { Page } from '@playwright/test'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { strokes } from '../../bench/strokes'
import { enterPass, startDrawing, steady, takeUp } from './support/desk'
import { expect, test } from './support/test'

/** A task of the main thread that is longer holds up the hand, ms. */
const LONG = 50
/** An edit is made so often in each pass: the machine may be busy with something else at one time, not at all of them. */
const TIMES = 6

declare global {
  interface Window {
    longTasks: number[]
  }
}

/** The tasks above `LONG` that an edit among thousands of lines leaves, from when it begins until all has followed. */
async function longTasks(page: Page, edit: () => Promise<void>): Promise<number[]> {
  await page.evaluate(() => void (window.longTasks.length = 0))
  await edit()
  const revision = (): Promise<string | null> => page.getByTestId('save-state').textContent()
  await steady(revision)
  await page.waitForFunction(
    () => new Promise((resolve) => requestIdleCallback(() => setTimeout(() => resolve(true), 900))),
  )
  return page.evaluate(() => window.longTasks.slice())
}

test('an edit among 2,000 lines is no long task in any pass', async ({ page }) => {
  test.setTimeout(400_000)
  await page.addInitScript(() => {
    window.longTasks = []
    new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => window.longTasks.push(Math.round(e.duration))),
    ).observe({ type: 'longtask' })
  })
  await startDrawing(
    page,
    newDrawing('Crowded', {
      page: { width: 900, height: 620, unit: 'px', pxPerMm: 4 },
      layers: [newLinesLayer('Lines', strokes(2000))],
    }),
  )
  const canvas = (await page.getByTestId('canvas').boundingBox())!
  const least: Record<string, number> = {}
  for (const [pass, tool] of [
    ['Lines', 'Nodes'],
    ['Weight', 'Caliper'],
    ['Shapes', 'Nodes'],
    ['Fill', 'Select'],
    ['Sketch', null],
    ['Deliver', null],
  ] as const) {
    await enterPass(page, pass)
    if (pass === 'Shapes') await expect(page.getByTestId('shape-count')).toBeVisible({ timeout: 120_000 })
    await expect(page.getByText(/^(Inking|Making shapes)$/)).toHaveCount(0, { timeout: 120_000 })
    if (tool) await takeUp(page, tool)
    least[pass] = Infinity
    for (let i = 0; i < TIMES && least[pass] > 0; i++) {
      const [x, y] = [canvas.x + canvas.width * (0.3 + 0.07 * i), canvas.y + canvas.height * (0.35 + 0.05 * i)]
      if (tool) await page.mouse.click(x, y)
      const tasks = await longTasks(page, async () => {
        if (!tool) return page.keyboard.press(i % 2 ? 'Control+Shift+Z' : 'Control+Z')
        await page.mouse.move(x + 3, y + 3)
        await page.mouse.down()
        await page.mouse.move(x + 15, y + 9, { steps: 6 })
        await page.mouse.up()
      })
      least[pass] = Math.min(least[pass], Math.max(0, ...tasks.filter((t) => t > LONG)))
    }
  }
  expect(least).toEqual({ Lines: 0, Weight: 0, Shapes: 0, Fill: 0, Sketch: 0, Deliver: 0 })
})
