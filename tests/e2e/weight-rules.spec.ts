import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  contoursOf,
  deliver,
  drag,
  enterPass,
  linesOf,
  onScreen,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
  widthAcross,
} from './support/desk'
import { polyline } from '../unit/support/paths'

const UP: Vec = { x: 0, y: 1 }
const RIGHT: Vec = { x: 1, y: 0 }

const straight = (id: string, a: [number, number], b: [number, number], over: Partial<Line['weight']> = {}): Line => {
  const line = newLine(polyline(...a, ...b))
  return { ...line, id, weight: { ...line.weight, size: 10, ...over } }
}

/** A square of four sides, clockwise from its top left. */
const square = (x: number, y: number, side: number): Line[] => [
  straight('top', [x, y], [x + side, y]),
  straight('right', [x + side, y], [x + side, y + side]),
  straight('bottom', [x + side, y + side], [x, y + side]),
  straight('left', [x, y + side], [x, y]),
]

/** Opens a drawing of these lines in the Weight pass. */
async function weigh(page: Page, lines: Line[], over: Partial<Drawing> = {}): Promise<void> {
  await startDrawing(page, newDrawing('Rules', { layers: [newLinesLayer('Lines', lines)], ...over }))
  await enterPass(page, 'Weight')
}

const saved = async (page: Page): Promise<Record<string, Line>> =>
  Object.fromEntries((await savedLines(page)).map((l) => [l.id, l]))
const trial = (page: Page) => page.getByTestId('trial')

test.describe('By contact', () => {
  const lines = () => [
    straight('floor', [100, 300], [500, 300]),
    straight('post', [300, 100], [300, 300]),
    straight('held', [150, 100], [150, 200], { pinned: true }),
  ]

  test('proposes, shows, changes single ends and is accepted and undone in one step', async ({ page }) => {
    await weigh(page, lines())
    await takeUp(page, 'Contact')
    await expect(trial(page)).toContainText(
      'Of the whole drawing: 4 ends, 3 to taper, 1 to be full. 1 pinned line is left alone.',
    )
    // It shows, and nothing is saved yet.
    await expect.poll(() => inkAt(page, { x: 300, y: 104 })).toBe(false)
    expect((await saved(page)).post!.weight.start).toBeNull()
    // The floor's left end stays as it is: taper, full, leave.
    await clickAt(page, { x: 100, y: 300 })
    await clickAt(page, { x: 100, y: 300 })
    await expect(trial(page)).toContainText('2 to taper, 1 to be full, 1 to stay')
    await page.keyboard.press('Enter')
    const after = await saved(page)
    expect(after.floor!.weight.start).toBeNull()
    expect(after.floor!.weight.end).toMatchObject({ tip: 0, length: 40, unit: '%' })
    expect(after.post!.weight).toMatchObject({ start: { tip: 0 }, end: null })
    expect(after.held!.weight).toEqual(lines()[2]!.weight)
    // What was decided for the single end stays decided.
    await page.reload()
    await enterPass(page, 'Weight')
    await takeUp(page, 'Contact')
    await expect(trial(page)).toContainText('1 to stay')
    await takeUp(page, 'Select')
    await enterPass(page, 'Deliver')
    const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
    expect(widthAcross(contours, { x: 105, y: 300 }, UP)).toBeCloseTo(10, 0)
    expect(widthAcross(contours, { x: 480, y: 300 }, UP)).toBeCloseTo(10 * (20 / 160), 0)
    expect(widthAcross(contours, { x: 300, y: 120 }, RIGHT)).toBeCloseTo(10 * (20 / 80), 0)
    await enterPass(page, 'Weight')
    await page.keyboard.press('Control+z')
    expect((await saved(page)).floor!.weight.end).toBeNull()
    expect((await saved(page)).post!.weight.start).toBeNull()
    // Enter accepts straight after the instrument was taken from the tray, and after a setting was typed.
    await takeUp(page, 'Select')
    await takeUp(page, 'Contact')
    await page.keyboard.press('Enter')
    expect((await saved(page)).post!.weight.start).toMatchObject({ tip: 0 })
    await page.keyboard.press('Control+z')
    await page.getByTestId('strip').getByLabel('Taper').last().fill('30')
    await takeUp(page, 'Contact')
    await page.keyboard.press('Enter')
    expect((await saved(page)).post!.weight.start).toMatchObject({ length: 30 })
  })
})

test.describe('By light', () => {
  test('is dragged, shows, turns an outside, and is accepted; pinned lines stay', async ({ page }) => {
    await weigh(page, [...square(200, 150, 200), straight('held', [500, 100], [600, 200], { pinned: true })])
    await takeUp(page, 'Light')
    await drag(page, 600, 60, 300, 30, 300, 20)
    await expect(trial(page)).toContainText('4 lines have an outside')
    expect((await saved(page)).top!.weight.unlit).toBeUndefined()
    await page.keyboard.press('Enter')
    const lit = await saved(page)
    expect(lit.held!.weight).toMatchObject({ pinned: true, stops: [{ at: 0, left: 1, right: 1 }] })
    await enterPass(page, 'Deliver')
    const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
    const top = widthAcross(contours, { x: 300, y: 150 }, UP)
    const bottom = widthAcross(contours, { x: 300, y: 350 }, UP)
    expect(top).toBeLessThan(7)
    expect(bottom).toBeGreaterThan(12)
    await enterPass(page, 'Weight')
    // The top's outside turned: it faces away now.
    await clickAt(page, { x: 320, y: 150 })
    await page.keyboard.press('Enter')
    expect((await saved(page)).top!.outside).toBe('right')
    expect((await saved(page)).top!.weight.stops[0]!.left).toBeGreaterThan(1)
    await page.getByRole('button', { name: 'Take the light off' }).click()
    const off = await savedDrawing(page)
    expect(off.settings.light).toBeUndefined()
    expect(linesOf(off).every((l) => l.weight.stops.length === 1 && !l.weight.unlit)).toBe(true)
  })
})

/** Whether the canvas shows dark ink at a point of the page, 3 px beside it across. */
async function inkAt(page: Page, p: Vec): Promise<boolean> {
  const s = await onScreen(page, { x: p.x + 3.2, y: p.y })
  const shot = await page.screenshot({ clip: { x: Math.round(s.x), y: Math.round(s.y), width: 1, height: 1 } })
  const { default: sharp } = await import('sharp')
  const [r] = await sharp(shot).raw().toBuffer()
  return r! < 90
}
