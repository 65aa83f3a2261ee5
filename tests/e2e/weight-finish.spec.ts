import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import sharp from 'sharp'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  contoursOf,
  deliver,
  dragThrough,
  enter,
  enterPass,
  layLine,
  onScreen,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
  widthAcross,
} from './support/desk'

const UP: Vec = { x: 0, y: 1 }
const lines = async (page: Page): Promise<Line[]> => await savedLines(page)

async function startWithLine(page: Page): Promise<void> {
  await startDrawing(page)
  await layLine(page, { x: 100, y: 200 }, { x: 500, y: 200 })
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 300, y: 200 })
}

/** Whether there is ink on the screen at a place of the page. */
async function inkedAt(page: Page, p: Vec): Promise<boolean> {
  const s = await onScreen(page, p)
  const shot = await page.screenshot({ clip: { x: Math.round(s.x), y: Math.round(s.y), width: 1, height: 1 } })
  return (await sharp(shot).raw().toBuffer())[0]! < 90
}

const outlines = async (page: Page) => {
  await enterPass(page, 'Deliver')
  const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
  await enterPass(page, 'Weight')
  return contours
}

test('caps, alignment, dashes and rough edges are set, seen in the outline, and refused by a sentence where they make no sense', async ({
  page,
}) => {
  await startWithLine(page)
  await page.getByRole('button', { name: 'Finish' }).click()
  const cap = page.getByRole('radiogroup', { name: 'Start cap' })
  await cap.getByRole('radio', { name: 'Square' }).click()
  await page.getByRole('radiogroup', { name: 'End cap' }).getByRole('radio', { name: 'Flat' }).click()
  await page.getByRole('radiogroup', { name: 'Lies' }).getByRole('radio', { name: 'Left' }).click()
  await enter(page.getByTestId('dash'), '<script>')
  await expect(page.getByTestId('notice')).toContainText('"<script>" is no length')
  await enter(page.getByTestId('dash'), '100 20')
  expect((await lines(page))[0]!.finish).toMatchObject({
    startCap: 'square',
    endCap: 'butt',
    align: 'left',
    dash: [100, 20],
  })
  const dashed = await outlines(page)
  expect(dashed).toHaveLength(4)
  // All of the width lies left of the way, which is up here.
  expect(widthAcross(dashed, { x: 150, y: 197 }, UP)).toBeCloseTo(6, 1)
  expect(widthAcross(dashed, { x: 210, y: 197 }, UP)).toBe(0)
  const xs = dashed.flatMap((c) => c.nodes.map((n) => n.at.x))
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(97, 1), expect.closeTo(500, 1)])
  await page.getByRole('button', { name: 'Finish' }).click()
  await enter(page.getByTestId('dash'), '')
  await page.getByRole('checkbox', { name: 'Rough edges' }).check()
  await enter(page.getByLabel('Amount, exactly'), '2')
  const rough = await outlines(page)
  const widths = [140, 200, 260, 320, 380, 440].map((x) => widthAcross(rough, { x, y: 198 }, UP))
  expect(Math.max(...widths) - Math.min(...widths)).toBeGreaterThan(0.3)
  expect((await lines(page))[0]!.finish.rough).toMatchObject({ amount: 2, seed: 1 })
  // The same edge every time.
  expect(await outlines(page)).toEqual(rough)
})

test('a cap under the pointer is shown on the chosen line, and only a click puts it there', async ({ page }) => {
  await startWithLine(page)
  await enter(page.getByTestId('size'), '40')
  const before = await lines(page)
  await page.getByRole('button', { name: 'Finish' }).click()
  const flat = page.getByRole('radiogroup', { name: 'Start cap' }).getByRole('radio', { name: 'Flat' })
  const beyond = { x: 92, y: 210 }
  await expect.poll(() => inkedAt(page, beyond)).toBe(true)
  await flat.hover()
  await expect.poll(() => inkedAt(page, beyond)).toBe(false)
  await expect(flat).not.toBeChecked()
  await page.mouse.move(640, 150)
  await expect.poll(() => inkedAt(page, beyond)).toBe(true)
  expect(await lines(page)).toEqual(before)
  await flat.hover()
  await page.keyboard.press('Escape')
  await expect.poll(() => inkedAt(page, beyond)).toBe(true)
  await page.getByRole('button', { name: 'Finish' }).click()
  await flat.click()
  await expect(flat).toBeChecked()
  await page.mouse.move(640, 150)
  await expect.poll(() => inkedAt(page, beyond)).toBe(false)
  expect((await lines(page))[0]!.finish.startCap).toBe('butt')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  expect(await lines(page)).toEqual(before)
})

test('scaling what is chosen scales its weights, or leaves them', async ({ page }) => {
  await startWithLine(page)
  await enterPass(page, 'Lines')
  await takeUp(page, 'Select')
  await page.getByRole('checkbox', { name: /Scaling what is chosen/ }).check()
  /** Drags the lower right corner of the frame, 10 px off the line's box, to half as far from the opposite corner. */
  const halve = async (): Promise<void> => {
    const [line] = await lines(page)
    const [a, b] = [line!.path.nodes[0]!.at, line!.path.nodes[1]!.at]
    const per = (await onScreen(page, { x: 1, y: 0 })).x - (await onScreen(page, { x: 0, y: 0 })).x
    const pad = 10 / per
    const corner = { x: b.x + pad, y: b.y + pad }
    const opposite = { x: a.x - pad, y: a.y - pad }
    await dragThrough(page, [
      corner,
      { x: corner.x - 10, y: corner.y - 1 },
      { x: (corner.x + opposite.x) / 2, y: (corner.y + opposite.y) / 2 },
    ])
  }
  await halve()
  const [scaled] = await lines(page)
  expect(scaled!.path.nodes[1]!.at.x - scaled!.path.nodes[0]!.at.x).toBeCloseTo(200, -1)
  expect(scaled!.weight.size).toBeCloseTo(3, 0)
  await page.keyboard.press('Control+z')
  await page.getByRole('checkbox', { name: /Scaling what is chosen/ }).uncheck()
  await halve()
  expect((await lines(page))[0]!.weight.size).toBe(6)
})

test('B shows the lines before this visit, Shift+B even weight, and a wipe two checkpoints', async ({ page }) => {
  await startWithLine(page)
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByLabel('Name of the checkpoint').fill('Plain')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Checkpoints' })).toContainText('Plain')
  await page.keyboard.press('Escape')
  await enter(page.getByTestId('size'), '30')
  await savedDrawing(page)
  const dark = (p: Vec): Promise<boolean> => inkedAt(page, p)
  const off = { x: 240, y: 210 }
  await page.keyboard.press('Escape')
  await page.mouse.move(640, 560)
  await expect.poll(() => dark(off)).toBe(true)
  await page.getByTestId('canvas').focus()
  await page.keyboard.down('b')
  await expect(page.getByTestId('compare')).toContainText('Before this visit')
  await expect.poll(() => dark(off)).toBe(false)
  await page.keyboard.up('b')
  await expect(page.getByTestId('compare')).toHaveCount(0)
  await expect.poll(() => dark(off)).toBe(true)
  // After a reload the checkpoint is still there; the wipe shows it on the left and now on the right.
  await page.reload()
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Compare Plain with now' }).click()
  await expect(page.getByTestId('wipe')).toBeVisible()
  await expect.poll(() => dark(off)).toBe(false)
  await expect.poll(() => dark({ x: 480, y: 210 })).toBe(true)
  await page.getByTestId('wipe').focus()
  await page.keyboard.press('Home')
  await expect.poll(() => dark(off)).toBe(true)
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByTestId('wipe')).toHaveCount(0)
  // Esc leaves it from anywhere: the handle, a field, a button, the drawing.
  for (const from of [
    () => page.getByTestId('wipe').focus(),
    () => page.getByTestId('zoom').focus(),
    () => page.getByRole('button', { name: 'Undo' }).focus(),
    () => page.mouse.click(400, 500),
  ]) {
    await page.getByRole('button', { name: 'History' }).click()
    await page.getByRole('button', { name: 'Compare Plain with now' }).click()
    await expect(page.getByTestId('wipe')).toBeVisible()
    await from()
    await page.keyboard.press('Escape')
    await expect(page.getByTestId('wipe')).toHaveCount(0)
  }
  expect((await lines(page))[0]!.weight.size).toBe(30)
})

test('what is covered stays covered while one looks back', async ({ page }) => {
  const path = (closed: boolean, ...at: [number, number][]): Path => ({
    nodes: at.map(([x, y]) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })),
    closed,
  })
  const stroke = newLine(path(false, [100, 200], [500, 200]))
  const leaf = { ...newLine(path(true, [200, 150], [300, 150], [300, 250], [200, 250])), cover: true }
  await startDrawing(
    page,
    newDrawing('Leaf', {
      layers: [newLinesLayer('Lines', [{ ...stroke, weight: { ...stroke.weight, size: 30 } }, leaf])],
    }),
  )
  await enterPass(page, 'Weight')
  await page.getByTestId('canvas').focus()
  for (const key of ['b', 'B']) {
    if (key === 'B') await page.keyboard.down('Shift')
    await page.keyboard.down(key)
    await expect(page.getByTestId('compare')).toBeVisible()
    await expect.poll(() => inkedAt(page, { x: 400, y: 200 })).toBe(true)
    await expect.poll(() => inkedAt(page, { x: 250, y: 200 })).toBe(false)
    await expect.poll(() => inkedAt(page, { x: 200, y: 180 })).toBe(true)
    await page.keyboard.up(key)
    await expect(page.getByTestId('compare')).toHaveCount(0)
  }
})
