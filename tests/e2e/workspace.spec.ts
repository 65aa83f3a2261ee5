import { expect, test } from './support/test'
import { ArcLength } from '../../core/geometry/arc-length'
import { cubicsOfPath } from '../../core/geometry/path'
import {
  clickAt,
  drag,
  enter,
  enterPass,
  onScreen,
  rest,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'

test.describe('Sketch', () => {
  test('lies dimmed and locked under the ink; can be dimmed, hidden, unlocked, moved and scaled, and all of it undone', async ({
    page,
  }) => {
    await startDrawing(page, 'demo-pea-pod')
    await enterPass(page, 'Sketch')
    const sketch = page.getByTestId('sketch')
    await expect(sketch).toHaveCSS('opacity', '0.5')
    await drag(page, 300, 300, 340, 320)
    await expect(page.getByTestId('notice')).toContainText('is locked. Unlock it')
    await enter(page.getByLabel('Strength, exactly'), '30')
    await expect(sketch).toHaveCSS('opacity', '0.3')
    await page.getByTestId('strip').getByRole('button', { name: 'Unlock' }).click()
    await drag(page, 300, 300, 340, 320)
    let [item] = (await savedDrawing(page)).layers[0]!.items as {
      x: number
      y: number
      width: number
      height: number
    }[]
    expect(item!.x).toBeCloseTo(40, 0)
    await drag(page, 760, 544, 400, 282)
    ;[item] = (await savedDrawing(page)).layers[0]!.items as { x: number; y: number; width: number; height: number }[]
    expect(item!.width).toBeLessThan(420)
    expect(item!.width / item!.height).toBeCloseTo(720 / 524, 3)
    await page.getByTestId('strip').getByRole('button', { name: 'Hide' }).click()
    await expect(sketch).toHaveCount(0)
    await undo(page, 5)
    expect((await savedDrawing(page)).layers[0]).toMatchObject({
      visible: true,
      locked: true,
      opacity: 0.5,
      items: [{ x: 0, y: 0, width: 720 }],
    })
  })
})

test.describe('Lines', () => {
  test('a chosen line moves, is copied, pasted, nudged and deleted by keys', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 100 })
    await clickAt(page, { x: 300, y: 100 })
    await page.keyboard.press('Enter')
    await takeUp(page, 'Select')
    await drag(page, 200, 100, 200, 180)
    await page.keyboard.press('Control+c')
    await page.keyboard.press('Control+v')
    await page.keyboard.press('Shift+ArrowRight')
    let lines = await savedLines(page)
    expect(lines.map((l) => Math.round(l.path.nodes[0]!.at.x))).toEqual([100, 122])
    expect(Math.round(lines[0]!.path.nodes[0]!.at.y)).toBe(180)
    await page.keyboard.press('Delete')
    lines = await savedLines(page)
    expect(lines).toHaveLength(1)
    await undo(page, 5)
    expect(await savedLines(page)).toHaveLength(0)
    for (let i = 0; i < 4; i++) await page.keyboard.press('Control+Shift+z')
    expect(await savedLines(page)).toHaveLength(2)
  })
})

test.describe('Weight', () => {
  test('shelf, size, flips and the graph by keyboard', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await enterPass(page, 'Weight')
    const line = (await savedLines(page)).find((l) => !l.path.closed && l.path.nodes.length > 3)!
    const middle = new ArcLength(cubicsOfPath(line.path))
    await clickAt(page, middle.point(middle.total * 0.47))
    const now = async () => (await savedLines(page)).find((l) => l.id === line.id)!.weight
    await page.getByRole('button', { name: 'End tapered', exact: true }).click()
    expect((await now()).stops.at(-1)).toMatchObject({ at: 1, left: 0 })
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('f')
    expect((await now()).stops[0]).toMatchObject({ at: 0, left: 0 })
    await enter(page.getByTestId('size'), '9.5')
    expect((await now()).size).toBe(9.5)
    await enter(page.getByTestId('size'), 'NaN')
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
  const [line] = await savedLines(page)
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
