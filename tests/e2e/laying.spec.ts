import { expect, test } from './support/test'
import { boxOfCubics } from '../../core/geometry/bounds'
import { pointAt } from '../../core/geometry/cubic'
import { cubicsOfPath } from '../../core/geometry/path'
import { clickAt, dragThrough, linesOf, onScreen, savedDrawing, startDrawing, takeUp } from './support/desk'

test.describe('Laying lines', () => {
  test('the bow draws a chord, bends it, and goes on into an S over the demo sketch', async ({ page }) => {
    await startDrawing(page, 'demo-pea-pod')
    const before = linesOf(await savedDrawing(page)).length
    await takeUp(page, 'Bow')
    await dragThrough(page, [
      { x: 100, y: 450 },
      { x: 220, y: 450 },
    ])
    await expect(page.getByTestId('hint')).toContainText('Pull: bow it')
    await dragThrough(page, [
      { x: 160, y: 450 },
      { x: 160, y: 490 },
    ])
    await dragThrough(page, [
      { x: 220, y: 450 },
      { x: 340, y: 450 },
    ])
    await dragThrough(page, [
      { x: 280, y: 450 },
      { x: 280, y: 410 },
    ])
    await page.keyboard.press('Enter')
    let line = linesOf(await savedDrawing(page)).at(-1)!
    expect(linesOf(await savedDrawing(page))).toHaveLength(before + 1)
    const [a, b] = cubicsOfPath(line.path)
    expect(pointAt(a!, 0.5).y).toBeCloseTo(490, -0.5)
    expect(pointAt(b!, 0.5).y).toBeCloseTo(410, -0.5)
    expect(line.path.nodes[1]!.joint).toBe('smooth')
    await page.keyboard.press('Control+z')
    expect(linesOf(await savedDrawing(page))).toHaveLength(before)
    await page.getByLabel('A bow goes on smoothly from the one before').uncheck()
    await dragThrough(page, [
      { x: 100, y: 450 },
      { x: 220, y: 450 },
    ])
    await dragThrough(page, [
      { x: 160, y: 450 },
      { x: 160, y: 490 },
    ])
    await dragThrough(page, [
      { x: 220, y: 450 },
      { x: 340, y: 450 },
    ])
    await dragThrough(page, [
      { x: 280, y: 450 },
      { x: 280, y: 410 },
    ])
    await takeUp(page, 'Select')
    line = linesOf(await savedDrawing(page)).at(-1)!
    expect(line.path.nodes[1]!.joint).toBe('corner')
  })

  test('the pen joins clicks smoothly or straight, and goes on only from an end mark', async ({ page }) => {
    await startDrawing(page)
    await page.getByRole('radio', { name: 'Smoothly' }).click()
    for (const [x, y] of [
      [100, 200],
      [200, 120],
      [300, 200],
    ] as const)
      await clickAt(page, { x, y })
    await page.keyboard.press('Enter')
    let [line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes[1]!.joint).toBe('smooth')
    await expect(page.getByTestId('hint')).toContainText('Press an end mark')
    await page.getByRole('radio', { name: 'Straight' }).click()
    // The end itself begins another line; the mark beyond it goes on with this one.
    const tip = line!.path.nodes.at(-1)!
    const back = tip.in!
    const l = Math.hypot(tip.at.x - back.x, tip.at.y - back.y)
    const zoom = Number((await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ')[0])
    const beyond = {
      x: tip.at.x + ((tip.at.x - back.x) / l) * (9 / zoom),
      y: tip.at.y + ((tip.at.y - back.y) / l) * (9 / zoom),
    }
    await clickAt(page, beyond)
    await clickAt(page, { x: 420, y: 300 })
    await page.keyboard.press('Enter')
    ;[line] = linesOf(await savedDrawing(page))
    expect(linesOf(await savedDrawing(page))).toHaveLength(1)
    expect(line!.path.nodes).toHaveLength(4)
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 420, y: 300 })
    await clickAt(page, { x: 500, y: 300 })
    await page.keyboard.press('Enter')
    const lines = linesOf(await savedDrawing(page))
    expect(lines).toHaveLength(2)
    expect(lines[0]!.path.nodes).toHaveLength(4)
  })

  test('the pen breaks a handle with Alt while placing, and undo takes nodes back one by one', async ({ page }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 200 })
    const [at, to] = [await onScreen(page, { x: 200, y: 120 }), await onScreen(page, { x: 240, y: 120 })]
    await page.mouse.move(at.x, at.y)
    await page.mouse.down()
    await page.mouse.move(to.x, to.y, { steps: 4 })
    await page.keyboard.down('Alt')
    const up = await onScreen(page, { x: 200, y: 60 })
    await page.mouse.move(up.x, up.y, { steps: 4 })
    await page.mouse.up()
    await page.keyboard.up('Alt')
    await clickAt(page, { x: 320, y: 200 })
    await page.keyboard.press('Enter')
    const node = linesOf(await savedDrawing(page))[0]!.path.nodes[1]!
    expect(node.joint).toBe('corner')
    expect(node.out!.y).toBeCloseTo(60, 0)
    expect(node.in!.x).toBeLessThan(170)
    expect(node.in!.y).toBeCloseTo(120, 0)
  })

  test('figures are drawn in their box, square with Shift, and can be edited as lines', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Figure')
    await dragThrough(page, [
      { x: 100, y: 100 },
      { x: 300, y: 200 },
    ])
    await page.getByRole('radio', { name: 'Star' }).click()
    await page.getByLabel('Points, exactly', { exact: true }).fill('7')
    await page.getByLabel('Points, exactly', { exact: true }).press('Enter')
    await page.keyboard.down('Shift')
    await dragThrough(page, [
      { x: 400, y: 100 },
      { x: 560, y: 180 },
    ])
    await page.keyboard.up('Shift')
    const [ellipse, star] = linesOf(await savedDrawing(page))
    const box = boxOfCubics(cubicsOfPath(ellipse!.path))
    expect([box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v))).toEqual([100, 100, 300, 200])
    expect(star!.path.nodes).toHaveLength(14)
    expect(star!.path.nodes[0]!.at.y).toBeCloseTo(100, 0)
    await takeUp(page, 'Nodes')
    const top = star!.path.nodes[0]!.at
    await dragThrough(page, [top, { x: top.x, y: top.y - 40 }])
    expect(linesOf(await savedDrawing(page))[1]!.path.nodes[0]!.at.y).toBeCloseTo(60, 0)
  })

  test('in Nodes a line is bent where it is pulled, gets a node by a double-click and loses it again', async ({
    page,
  }) => {
    await startDrawing(page)
    await clickAt(page, { x: 100, y: 200 })
    await clickAt(page, { x: 400, y: 200 })
    await page.keyboard.press('Enter')
    await takeUp(page, 'Nodes')
    await dragThrough(page, [
      { x: 250, y: 200 },
      { x: 250, y: 280 },
    ])
    let [line] = linesOf(await savedDrawing(page))
    expect(pointAt(cubicsOfPath(line!.path)[0]!, 0.5).y).toBeCloseTo(280, -0.5)
    const middle = await onScreen(page, { x: 250, y: 280 })
    await page.mouse.dblclick(middle.x, middle.y)
    ;[line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes.map((n) => n.joint)).toEqual(['corner', 'smooth', 'corner'])
    await page.keyboard.press('Delete')
    ;[line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes).toHaveLength(2)
    expect(pointAt(cubicsOfPath(line!.path)[0]!, 0.5).y).toBeCloseTo(280, -0.5)
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
    ;[line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes.every((n) => !n.in && !n.out)).toBe(true)
  })
})
