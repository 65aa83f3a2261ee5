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
  test('the pen closes on its start, steps back, drops, and finishes with a double-click', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 100 })
    await clickAt(page, { x: 300, y: 100 })
    await clickAt(page, { x: 500, y: 400 })
    await page.keyboard.press('Backspace')
    await clickAt(page, { x: 200, y: 250 })
    await clickAt(page, { x: 100, y: 100 })
    let [line] = linesOf(await savedDrawing(page))
    expect(line!.path.closed).toBe(true)
    expect(line!.path.nodes.map((n) => Math.round(n.at.y))).toEqual([100, 100, 250])
    await clickAt(page, { x: 400, y: 300 })
    await clickAt(page, { x: 500, y: 300 })
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 400, y: 400 })
    const end = await onScreen(page, { x: 600, y: 420 })
    await page.mouse.dblclick(end.x, end.y)
    const lines = linesOf(await savedDrawing(page))
    expect(lines).toHaveLength(2)
    ;[, line] = lines
    expect(line!.path).toMatchObject({ closed: false })
    expect(line!.path.nodes).toHaveLength(2)
  })

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

  test('nodes and handles are moved; a locked layer says what to do', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 100 })
    await dragThrough(page, [
      { x: 300, y: 200 },
      { x: 360, y: 200 },
    ])
    await clickAt(page, { x: 500, y: 100 })
    await page.keyboard.press('Enter')
    await takeUp(page, 'Nodes')
    await dragThrough(page, [
      { x: 300, y: 200 },
      { x: 300, y: 260 },
    ])
    await dragThrough(page, [
      { x: 360, y: 260 },
      { x: 360, y: 300 },
    ])
    const [line] = linesOf(await savedDrawing(page))
    const [, node] = line!.path.nodes
    expect(node!.at.y).toBeCloseTo(260, 0)
    expect(node!.out!.y).toBeCloseTo(300, 0)
    expect(node!.in!.y).toBeLessThan(250)
    await page.getByRole('button', { name: 'Lock Lines', exact: true }).click()
    await takeUp(page, 'Pen')
    await clickAt(page, { x: 50, y: 50 })
    await expect(page.getByTestId('notice')).toContainText('Layer "Lines" is locked. Unlock it')
    expect(linesOf(await savedDrawing(page))).toHaveLength(1)
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

  test('a drag on the ribbon adds a stop; Alt takes one side', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 200 })
    await clickAt(page, { x: 600, y: 200 })
    await page.keyboard.press('Enter')
    await enterPass(page, 'Weight')
    const box = (await page.getByTestId('ribbon').boundingBox())!
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.3)
    await page.keyboard.down('Alt')
    await page.mouse.down()
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.3 - 10, { steps: 4 })
    await page.mouse.up()
    await page.keyboard.up('Alt')
    const [line] = linesOf(await savedDrawing(page))
    expect(line!.weight.stops).toHaveLength(4)
    expect(line!.weight.stops[2]!.at).toBeCloseTo(0.5, 1)
    expect(line!.weight.stops[2]!.left).toBeGreaterThan(1.1)
    expect(line!.weight.stops[2]!.right).toBe(1)
    expect([line!.weight.stops[1], line!.weight.stops[3]]).toMatchObject([{ left: 1 }, { left: 1 }])
    // Without a mouse: a stop beside the chosen one, taken on by the arrow keys.
    await page.getByRole('button', { name: 'Add stop' }).click()
    await page.getByTestId('stop-3').focus()
    await page.keyboard.press('Shift+ArrowUp')
    const [after] = linesOf(await savedDrawing(page))
    expect(after!.weight.stops).toHaveLength(5)
    expect(after!.weight.stops[3]!.at).toBeCloseTo((after!.weight.stops[2]!.at + after!.weight.stops[4]!.at) / 2, 6)
    expect(after!.weight.stops[3]!.left).toBeGreaterThan(1.1)
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

test('undo while the pen lays a line takes back its last node, then the step before', async ({ page }) => {
  await startDrawing(page)
  await clickAt(page, { x: 100, y: 100 })
  await clickAt(page, { x: 300, y: 100 })
  await page.keyboard.press('Enter')
  for (const x of [100, 300, 500]) await clickAt(page, { x, y: 300 })
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Enter')
  expect(linesOf(await savedDrawing(page)).map((l) => l.path.nodes.length)).toEqual([2, 2])
  await page.keyboard.press('Control+z')
  expect(linesOf(await savedDrawing(page))).toHaveLength(1)
})
