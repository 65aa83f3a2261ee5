import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Line } from '#core/model/model'
import {
  clickAt,
  drag,
  enter,
  enterPass,
  layLine,
  onScreen,
  penStroke,
  rest,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
} from './support/desk'

/** Level lines 400 px long, one below the other, and the Caliper in hand. */
async function layLines(page: Page, count: number): Promise<void> {
  for (let i = 0; i < count; i++) await layLine(page, { x: 100, y: 100 + i * 100 }, { x: 500, y: 100 + i * 100 })
  await enterPass(page, 'Weight')
}

const lines = async (page: Page): Promise<Line[]> => await savedLines(page)
const graph = (page: Page) => page.getByTestId('weight-graph')

/** Drags from the middle of an element of the graph, by screen px. */

test.describe('Caliper', () => {
  test('undo while a stop is dragged in the graph drops that alone', async ({ page }) => {
    await startDrawing(page)
    await layLines(page, 1)
    await drag(page, 300, 103, 300, 106, 300, 109)
    const before = await savedDrawing(page)
    const stop = (await page.getByTestId('stop-2').boundingBox())!
    await page.mouse.move(stop.x + stop.width / 2, stop.y + stop.height / 2)
    await page.mouse.down()
    await page.mouse.move(stop.x + 40, stop.y - 20, { steps: 4 })
    await page.keyboard.press('Control+z')
    await page.mouse.move(stop.x + 60, stop.y - 20, { steps: 2 })
    await page.mouse.up()
    expect(await savedDrawing(page)).toEqual(before)
    await page.keyboard.press('Control+z')
    await expect.poll(async () => (await lines(page))[0]!.weight.stops.length).toBe(1)
  })

  test('clicks go round stops that lie near each other, and Ctrl mends nodes without leaving', async ({ page }) => {
    await startDrawing(page)
    await layLines(page, 1)
    await clickAt(page, { x: 200, y: 100 })
    await graph(page).getByTestId('stop-0').focus()
    await page.getByRole('button', { name: 'Add stop' }).click()
    await enter(page.getByTestId('stop-fields').getByLabel('At'), '50')
    await page.getByRole('button', { name: 'Add stop' }).click()
    await enter(page.getByTestId('stop-fields').getByLabel('At'), '51')
    const at = page.getByTestId('stop-fields').getByLabel('At')
    await clickAt(page, { x: 302, y: 100 })
    await rest(page, 500)
    const first = Number(await at.inputValue())
    await clickAt(page, { x: 302, y: 100 })
    await rest(page, 500)
    const second = Number(await at.inputValue())
    expect(new Set([first, second])).toEqual(new Set([50, 51]))
    const [before] = await lines(page)
    const node = await onScreen(page, { x: 500, y: 100 })
    await page.keyboard.down('Control')
    await page.mouse.move(node.x - 2, node.y)
    await expect(page.getByTestId('hint')).toContainText('Ctrl held')
    await page.mouse.move(node.x, node.y)
    await page.mouse.down()
    await page.mouse.move(node.x, node.y + 30, { steps: 4 })
    await page.mouse.move(node.x, node.y + 60, { steps: 4 })
    await page.mouse.up()
    await page.keyboard.up('Control')
    const [after] = await lines(page)
    expect(after!.path.nodes[1]!.at.y).toBeGreaterThan(before!.path.nodes[1]!.at.y + 40)
    expect(after!.weight).toEqual(before!.weight)
    await expect(page.getByTestId('tray').getByRole('button', { name: /Caliper/ })).toHaveAttribute(
      'aria-pressed',
      'true',
    )
  })
})

test.describe('The weight graph', () => {
  test('lays chosen lines over each other, tells where others touch, zooms, and measures in px or shares', async ({
    page,
  }) => {
    await startDrawing(page)
    await layLines(page, 2)
    // A third line comes down on the first.
    await enterPass(page, 'Lines')
    await takeUp(page, 'Pen')
    await layLine(page, { x: 300, y: 40 }, { x: 300, y: 100 })
    await enterPass(page, 'Weight')
    await clickAt(page, { x: 200, y: 100 })
    await expect(graph(page).getByTestId('touch')).toHaveText(/met by line 3/)
    await page.keyboard.down('Shift')
    await clickAt(page, { x: 200, y: 200 })
    await page.keyboard.up('Shift')
    await expect(graph(page).getByTestId('laid-over')).toHaveCount(1)
    const ticks = graph(page).locator('text')
    const before = await ticks.allTextContents()
    await page.getByRole('button', { name: 'in px' }).click()
    await expect(ticks.filter({ hasText: '%' }).first()).toBeVisible()
    const box = (await graph(page).boundingBox())!
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
    await page.mouse.wheel(0, -600)
    await expect(page.getByRole('button', { name: 'whole line' })).toBeVisible()
    await page.getByRole('button', { name: 'whole line' }).click()
    await page.getByRole('button', { name: 'in shares' }).click()
    expect(await ticks.allTextContents()).toEqual(before)
  })

  test('shows a pen line beside its pressure, whose tolerance and response change later', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await penStroke(
      page,
      Array.from({ length: 60 }, (_, i) => ({
        x: 100 + i * 6,
        y: 200 + 20 * Math.sin(i / 9),
        pressure: 0.2 + 0.7 * Math.sin((Math.PI * i) / 59) ** 2,
      })),
    )
    await enterPass(page, 'Weight')
    const [drawn] = await lines(page)
    expect(drawn!.weight.stops.length).toBeLessThanOrEqual(8)
    await clickAt(page, drawn!.path.nodes[0]!.at)
    await expect(page.getByTestId('pressure-course')).toBeVisible()
    await page.getByRole('button', { name: 'Pressure', exact: true }).click()
    const off = async (): Promise<number> => Number.parseFloat((await page.getByTestId('pressure-off').textContent())!)
    expect(await off()).toBeLessThan(6.1)
    await enter(page.getByLabel('Tolerance, exactly'), '2')
    await expect.poll(off).toBeLessThanOrEqual(2)
    const [finer] = await lines(page)
    expect(finer!.trace!.widthTolerance).toBe(0.02)
    expect(finer!.weight.stops.length).toBeGreaterThan(drawn!.weight.stops.length)
    await enter(page.getByLabel('Response, exactly'), '2')
    await expect.poll(async () => (await lines(page))[0]!.trace!.response).toBe(2)
    expect((await lines(page))[0]!.weight.stops[0]!.left).toBeLessThanOrEqual(finer!.weight.stops[0]!.left)
  })
})
