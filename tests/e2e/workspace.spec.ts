import { expect, test } from './support/test'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import {
  clickAt,
  dragThrough,
  enterPass,
  linesOf,
  onScreen,
  penStroke,
  rest,
  savedDrawing,
  startDrawing,
  takeUp,
} from './support/desk'

test.describe('Sketch', () => {
  test('lies dimmed and locked under the ink; can be dimmed, hidden, unlocked, moved and scaled, and all of it undone', async ({
    page,
  }) => {
    await startDrawing(page, 'demo-pea-pod')
    await enterPass(page, 'Sketch')
    const sketch = page.getByTestId('sketch')
    await expect(sketch).toHaveCSS('opacity', '0.5')
    await dragThrough(page, [
      { x: 300, y: 300 },
      { x: 340, y: 320 },
    ])
    await expect(page.getByTestId('notice')).toContainText('is locked. Unlock it')
    await page.getByLabel('Strength, exactly').fill('30')
    await page.getByLabel('Strength, exactly').press('Enter')
    await expect(sketch).toHaveCSS('opacity', '0.3')
    await page.getByTestId('strip').getByRole('button', { name: 'Unlock' }).click()
    await dragThrough(page, [
      { x: 300, y: 300 },
      { x: 340, y: 320 },
    ])
    let [item] = (await savedDrawing(page)).layers[0]!.items as {
      x: number
      y: number
      width: number
      height: number
    }[]
    expect(item!.x).toBeCloseTo(40, 0)
    await dragThrough(page, [
      { x: 760, y: 544 },
      { x: 400, y: 282 },
    ])
    ;[item] = (await savedDrawing(page)).layers[0]!.items as { x: number; y: number; width: number; height: number }[]
    expect(item!.width).toBeLessThan(420)
    expect(item!.width / item!.height).toBeCloseTo(720 / 524, 3)
    await page.getByTestId('strip').getByRole('button', { name: 'Hide' }).click()
    await expect(sketch).toHaveCount(0)
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
    expect((await savedDrawing(page)).layers[0]).toMatchObject({
      visible: true,
      locked: true,
      opacity: 0.5,
      items: [{ x: 0, y: 0, width: 720 }],
    })
  })
})

test.describe('Lines', () => {
  test('a pressure pen makes the width', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await penStroke(
      page,
      Array.from({ length: 60 }, (_, i) => ({
        x: 100 + i * 8,
        y: 260 + 60 * Math.sin(i / 9),
        pressure: 0.1 + 0.85 * (i / 59),
      })),
    )
    const [line] = linesOf(await savedDrawing(page))
    expect(line!.trace!.device).toBe('pen')
    expect(line!.weight.stops[0]!.left).toBeLessThan(0.5)
    expect(line!.weight.stops.at(-1)!.left).toBeGreaterThan(0.8)
    expect(line!.path.nodes.length).toBeLessThanOrEqual(9)
  })

  test('a chosen line moves, is copied, pasted, nudged and deleted by keys', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 100 })
    await clickAt(page, { x: 300, y: 100 })
    await page.keyboard.press('Enter')
    await takeUp(page, 'Select')
    await dragThrough(page, [
      { x: 200, y: 100 },
      { x: 200, y: 180 },
    ])
    await page.keyboard.press('Control+c')
    await page.keyboard.press('Control+v')
    await page.keyboard.press('Shift+ArrowRight')
    let lines = linesOf(await savedDrawing(page))
    expect(lines.map((l) => Math.round(l.path.nodes[0]!.at.x))).toEqual([100, 122])
    expect(Math.round(lines[0]!.path.nodes[0]!.at.y)).toBe(180)
    await page.keyboard.press('Delete')
    lines = linesOf(await savedDrawing(page))
    expect(lines).toHaveLength(1)
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
    expect(linesOf(await savedDrawing(page))).toHaveLength(0)
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+Shift+z')
    expect(linesOf(await savedDrawing(page))).toHaveLength(2)
  })
})

test.describe('Weight', () => {
  test('shelf, size, flips and the graph by keyboard', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await enterPass(page, 'Weight')
    const line = linesOf(await savedDrawing(page)).find((l) => !l.path.closed && l.path.nodes.length > 3)!
    const middle = new ArcLength(cubicsOfPath(line.path))
    await clickAt(page, middle.point(middle.total * 0.47))
    const now = async () => linesOf(await savedDrawing(page)).find((l) => l.id === line.id)!.weight
    await page.getByRole('button', { name: 'End tapered', exact: true }).click()
    expect((await now()).stops.at(-1)).toMatchObject({ at: 1, left: 0 })
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('f')
    expect((await now()).stops[0]).toMatchObject({ at: 0, left: 0 })
    await page.getByTestId('size').fill('9.5')
    await page.getByTestId('size').press('Enter')
    expect((await now()).size).toBe(9.5)
    await page.getByTestId('size').fill('NaN')
    await page.getByTestId('size').press('Enter')
    expect((await now()).size).toBe(9.5)
    await page.getByTestId('stop-1').focus()
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowRight')
    const { stops } = await now()
    expect(stops).toHaveLength(3)
    expect(stops[1]!.left).toBeCloseTo(0.88, 6)
    await page.keyboard.press('Delete')
    expect((await now()).stops).toHaveLength(2)
  })
})

test('arrow keys on a slider move the slider, not the chosen line', async ({ page }) => {
  await startDrawing(page)
  await clickAt(page, { x: 100, y: 100 })
  await clickAt(page, { x: 300, y: 100 })
  await page.keyboard.press('Enter')
  await takeUp(page, 'Select')
  await page.getByLabel('Size', { exact: true }).focus()
  await page.keyboard.press('ArrowRight')
  const [line] = linesOf(await savedDrawing(page))
  expect(line!.weight.size).toBe(6.5)
  expect(Math.round(line!.path.nodes[0]!.at.x)).toBe(100)
})

test('keys: passes, zoom, bare centrelines, held instrument, and the card of keys', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await page.keyboard.press('3')
  await expect(page.getByRole('button', { name: /3 Weight/ })).toHaveAttribute('aria-current', 'step')
  const zoom = page.getByTestId('zoom')
  const before = await zoom.inputValue()
  const middle = await onScreen(page, { x: 360, y: 260 })
  await page.mouse.move(middle.x, middle.y)
  await page.mouse.wheel(0, -400)
  await expect(zoom).not.toHaveValue(before)
  const still = await onScreen(page, { x: 360, y: 260 })
  expect(Math.hypot(still.x - middle.x, still.y - middle.y)).toBeLessThan(1)
  await page.keyboard.press('0')
  await expect(zoom).toHaveValue(before)
  await page.keyboard.down('q')
  await expect(page.getByRole('button', { name: 'Q Select' })).toHaveAttribute('aria-pressed', 'true')
  await rest(page, 300)
  await page.keyboard.up('q')
  await expect(page.getByRole('button', { name: 'W Caliper' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Whole page')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})
