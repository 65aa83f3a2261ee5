import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { sampleCount } from '#core/model/line-trace'
import type { KeptTrace } from '#core/model/model'
import { parseInkml } from '../../core/formats/inkml/parse-inkml'
import {
  deliver,
  drag,
  dragThrough,
  dropFile,
  enter,
  enterPass,
  penStroke,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
} from './support/desk'

const wave = Array.from({ length: 60 }, (_, i) => ({ x: 120 + i * 7, y: 220 + 60 * Math.sin(i / 9) + (i % 2) * 1.5 }))

/** What is set goes on to be for the next stroke, until the last one is asked for. */
const askForLast = (page: Page) => page.getByRole('button', { name: 'Last stroke' }).click()

test.describe('Drawing by hand', () => {
  test('a line is drawn anew at another steadiness, its ends where they were; many at once too, and undone in one step', async ({
    page,
  }) => {
    await startDrawing(page, 'demo-pea-pod')
    await takeUp(page, 'Freehand')
    await dragThrough(page, wave, 1)
    const before = (await savedLines(page)).at(-1)!
    await askForLast(page)
    await expect(page.getByTestId('strip')).toContainText('samples')
    const steadiness = page.getByLabel('Steadiness, exactly')
    await enter(steadiness, '100')
    await expect.poll(async () => (await savedLines(page)).at(-1)!.trace!.steadiness).toBe(1)
    const steady = (await savedLines(page)).at(-1)!
    expect(steady.path).not.toEqual(before.path)
    expect([steady.path.nodes[0]!.at, steady.path.nodes.at(-1)!.at]).toEqual([
      before.path.nodes[0]!.at,
      before.path.nodes.at(-1)!.at,
    ])
    expect(steady.trace).toMatchObject({ of: (before.trace as KeptTrace).of, at: (before.trace as KeptTrace).at })
    await page.keyboard.press('Escape')
    await takeUp(page, 'Select')
    await page.keyboard.press('Escape')
    await takeUp(page, 'Freehand')
    await dragThrough(
      page,
      wave.map((p) => ({ x: p.x, y: p.y + 180 })),
      1,
    )
    await page.keyboard.press('Control+a')
    await enter(page.getByLabel('Steadiness, exactly'), '0')
    const drawn = async () => (await savedLines(page)).filter((l) => l.trace).map((l) => l.trace!.steadiness)
    await expect.poll(drawn).toEqual([0, 0])
    await page.keyboard.press('Control+z')
    await expect.poll(drawn).toEqual([1, 0.4])
  })

  test('squares up what was drawn, before or afterwards', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await page.getByLabel('Square up').check()
    await dragThrough(
      page,
      [
        { x: 100, y: 100 },
        { x: 300, y: 104 },
        { x: 298, y: 260 },
        { x: 120, y: 258 },
      ],
      14,
    )
    let [line] = await savedLines(page)
    expect(line!.path.nodes).toHaveLength(4)
    expect(line!.path.nodes.every((n) => !n.in && !n.out)).toBe(true)
    await askForLast(page)
    await page.getByLabel('Square up').uncheck()
    await expect.poll(async () => (await savedLines(page))[0]!.trace!.squared).toBe(false)
    ;[line] = await savedLines(page)
    expect(line!.path.nodes[0]!.at.x).toBeCloseTo(100, 0)
  })
})

test.describe('Pressure and nibs', () => {
  const stroke = Array.from({ length: 40 }, (_, i) => ({
    x: 120 + i * 10,
    y: 260,
    pressure: 0.1 + 0.8 * Math.sin((Math.PI * i) / 39),
  }))

  test('a pen makes the width by the curve and the variation, and both can be changed later', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await penStroke(page, stroke)
    const [line] = await savedLines(page)
    const widest = (l = line!): number => Math.max(...l.weight.stops.map((s) => s.left))
    const thinnest = (l = line!): number => Math.min(...l.weight.stops.map((s) => s.left))
    expect(line!.trace!.device).toBe('pen')
    expect(thinnest()).toBeLessThan(0.55)
    expect(widest()).toBeGreaterThan(0.85)
    await askForLast(page)
    await enter(page.getByLabel('Variation, exactly'), '80')
    await expect(page.getByTestId('strip')).toContainText('Past two thirds')
    await expect.poll(async () => thinnest((await savedLines(page))[0]!)).toBeLessThan(0.35)
    await expect(page.getByTestId('strip')).toContainText('5 : 1')
    const even = (await savedLines(page))[0]!.weight.stops
    await page.getByRole('group', { name: 'Pressure curve', exact: true }).getByRole('button', { name: 'Soft' }).click()
    await expect.poll(async () => (await savedLines(page))[0]!.trace!.response).toBe(0.6)
    expect((await savedLines(page))[0]!.weight.stops).not.toEqual(even)
    // The curve's middle by hand: its own response.
    const middle = page.getByRole('slider', { name: 'Width at middle pressure' })
    await middle.focus()
    await middle.press('ArrowDown')
    await middle.press('ArrowDown')
    await expect(page.getByTestId('strip')).toContainText('Own')
    await expect.poll(async () => (await savedLines(page))[0]!.trace!.response).toBeGreaterThan(0.65)
  })

  test('nibs are taken, duplicated, tuned with decimals, renamed, restored and removed; the broad edge draws with its ellipse', async ({
    page,
  }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    const nib = page.getByRole('button', { name: 'Nib', exact: true })
    await nib.click()
    await page.getByRole('option', { name: /Broad edge/ }).click()
    await drag(page, 100, 150, 300, 150)
    expect((await savedLines(page))[0]!.weight).toMatchObject({
      size: 10,
      nib: { width: 1, height: 0.25, angle: -40 },
    })
    await takeUp(page, 'Select')
    await page.keyboard.press('Escape')
    await takeUp(page, 'Freehand')
    await enter(page.getByLabel('Size, exactly'), '7.25')
    // What is set stays with the hand until it is kept, and every nib goes back to what was kept.
    await expect(nib).toContainText('changed')
    await page.getByRole('button', { name: 'Back to what was kept' }).click()
    await expect(page.getByLabel('Size, exactly')).toHaveValue('10.00')
    await page.getByTestId('notice').getByRole('button', { name: 'Undo' }).click()
    await page.getByRole('button', { name: 'Keep in this nib' }).click()
    await expect(nib).not.toContainText('changed')
    await page.getByRole('button', { name: 'Duplicate this nib' }).click()
    await expect(nib).toContainText('Broad edge copy')
    await page.getByRole('button', { name: 'Rename this nib' }).click()
    await enter(page.getByLabel('Name of the nib'), 'Seed quill')
    await expect(nib).toContainText('Seed quill')
    await page.reload()
    await takeUp(page, 'Freehand')
    await expect(nib).toContainText('Seed quill')
    await expect(nib).toContainText('7.25')
    await page.getByRole('button', { name: 'Remove this nib' }).click()
    await nib.click()
    await expect(page.getByRole('option', { name: /Seed quill/ })).toHaveCount(0)
    await page.getByRole('option', { name: /Broad edge/ }).click()
    await expect(page.getByLabel('Size, exactly')).toHaveValue('7.25')
    await page.getByRole('button', { name: 'Restore this nib' }).click()
    await expect(page.getByLabel('Size, exactly')).toHaveValue('10.00')
  })
})

test.describe('Practice pen and InkML', () => {
  test('pen traces leave as InkML and come back as lines', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await penStroke(
      page,
      Array.from({ length: 30 }, (_, i) => ({
        x: 150 + i * 10,
        y: 200 + 40 * Math.sin(i / 5),
        pressure: 0.3 + 0.5 * Math.sin(i / 9),
      })),
    )
    const [line] = await savedLines(page)
    await enterPass(page, 'Deliver')
    const download = await deliver(page, 'Pen traces')
    expect(download.suggestedFilename()).toBe('test-drawing.inkml')
    const text = await textOf(download)
    expect(parseInkml(text)[0]).toHaveLength(sampleCount(line!.trace!))
    await enterPass(page, 'Lines')
    await dropFile(page, '[data-testid="canvas"]', {
      name: 'again.inkml',
      type: 'application/inkml+xml',
      content: Buffer.from(text),
    })
    await expect(page.getByTestId('notice')).toContainText('One line was drawn')
    const lines = await savedLines(page)
    expect(lines).toHaveLength(2)
    expect(lines[1]!.path.nodes[0]!.at.x).toBeCloseTo(line!.path.nodes[0]!.at.x, 1)
    expect(lines[1]!.weight.stops.length).toBeGreaterThan(1)
  })

  test('InkML that is none, and traces of one point, are refused with a sentence and change nothing', async ({
    page,
  }) => {
    await startDrawing(page)
    const drop = (name: string, content: string) =>
      dropFile(page, '[data-testid="canvas"]', { name, type: 'application/inkml+xml', content: Buffer.from(content) })
    await drop('notes.inkml', 'Buy seeds')
    await expect(page.getByTestId('notice')).toContainText('InkML')
    await drop('point.inkml', '<ink xmlns="http://www.w3.org/2003/InkML"><trace>10 10</trace></ink>')
    await expect(page.getByTestId('notice')).toContainText('single point')
    await drop('page.inkml', '<svg xmlns="http://www.w3.org/2000/svg"/>')
    await expect(page.getByTestId('notice')).toContainText('InkML')
    expect(await savedLines(page)).toHaveLength(0)
    await enterPass(page, 'Deliver')
    await page.getByRole('radio', { name: /Pen traces/ }).click()
    // An empty drawing offers no file, and leads to where it is drawn.
    await expect(page.getByTestId('deliver')).toHaveCount(0)
    await page.getByRole('contentinfo').getByRole('button', { name: 'Lines', exact: true }).click()
    await expect(page.getByTestId('tray')).toBeVisible()
  })
})
