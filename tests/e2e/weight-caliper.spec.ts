import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  contoursOf,
  deliver,
  dragThrough,
  enterPass,
  layLine,
  linesOf,
  onScreen,
  penStroke,
  rest,
  savedDrawing,
  startDrawing,
  takeUp,
  textOf,
  widthAcross,
} from './support/desk'

const UP: Vec = { x: 0, y: 1 }

/** Level lines 400 px long, one below the other, and the Caliper in hand. */
async function layLines(page: Page, count: number): Promise<void> {
  for (let i = 0; i < count; i++) await layLine(page, { x: 100, y: 100 + i * 100 }, { x: 500, y: 100 + i * 100 })
  await enterPass(page, 'Weight')
}

const lines = async (page: Page): Promise<Line[]> => linesOf(await savedDrawing(page))
const graph = (page: Page) => page.getByTestId('weight-graph')

/** Drags from the middle of an element of the graph, by screen px. */

test.describe('Caliper', () => {
  test('an end is dragged to a point in one gesture, made full again, and its taper measured on the outline', async ({
    page,
  }) => {
    await startDrawing(page)
    await layLines(page, 1)
    await clickAt(page, { x: 300, y: 100 })
    await page.keyboard.press('Escape')
    // Close to the end, the end wins over the body.
    await dragThrough(page, [
      { x: 497, y: 100 },
      { x: 450, y: 101 },
      { x: 400, y: 101 },
    ])
    const [line] = await lines(page)
    expect(line!.weight.end).toMatchObject({ unit: 'px', tip: 0 })
    expect(line!.weight.end!.length).toBeCloseTo(100, 0)
    expect(line!.weight).toMatchObject({ start: null, pinned: true, stops: [{ left: 1, right: 1 }] })
    // The taper's own mark lies off the line where it begins.
    await dragThrough(page, [await offLine(page, { x: 400, y: 100 }, 21), { x: 380, y: 100 }, { x: 300, y: 100 }])
    expect((await lines(page))[0]!.weight.end!.length).toBeCloseTo(200, 0)
    await enterPass(page, 'Deliver')
    const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
    expect(widthAcross(contours, { x: 250, y: 100 }, UP)).toBeCloseTo(6, 1)
    expect(widthAcross(contours, { x: 450, y: 100 }, UP)).toBeLessThan(4.2)
    await enterPass(page, 'Weight')
    await dragThrough(page, [
      { x: 500 + 14, y: 100 },
      { x: 530, y: 100 },
      { x: 540, y: 100 },
    ])
    expect((await lines(page))[0]!.weight.end).toBeNull()
  })

  test('undo while a stop is dragged in the graph drops that alone', async ({ page }) => {
    await startDrawing(page)
    await layLines(page, 1)
    await dragThrough(page, [
      { x: 300, y: 103 },
      { x: 300, y: 106 },
      { x: 300, y: 109 },
    ])
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
    await page.getByTestId('stop-fields').getByLabel('At').fill('50')
    await page.getByTestId('stop-fields').getByLabel('At').press('Enter')
    await page.getByRole('button', { name: 'Add stop' }).click()
    await page.getByTestId('stop-fields').getByLabel('At').fill('51')
    await page.getByTestId('stop-fields').getByLabel('At').press('Enter')
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
    await page.getByLabel('Tolerance, exactly').fill('2')
    await page.getByLabel('Tolerance, exactly').press('Enter')
    await expect.poll(off).toBeLessThanOrEqual(2)
    const [finer] = await lines(page)
    expect(finer!.trace!.widthTolerance).toBe(0.02)
    expect(finer!.weight.stops.length).toBeGreaterThan(drawn!.weight.stops.length)
    await page.getByLabel('Response, exactly').fill('2')
    await page.getByLabel('Response, exactly').press('Enter')
    await expect.poll(async () => (await lines(page))[0]!.trace!.response).toBe(2)
    expect((await lines(page))[0]!.weight.stops[0]!.left).toBeLessThanOrEqual(finer!.weight.stops[0]!.left)
  })
})

/** The point of the page that lies `px` of the screen above a point of it. */
async function offLine(page: Page, p: Vec, px: number): Promise<Vec> {
  const [a, b] = [await onScreen(page, p), await onScreen(page, { x: p.x, y: p.y + 1 })]
  return { x: p.x, y: p.y - px / (b.y - a.y) }
}
