import { expect, test } from './support/test'
import { sampleCount } from '#core/model/line-trace'
import type { KeptTrace } from '#core/model/model'
import { parseInkml } from '../../core/formats/inkml/parse-inkml'
import {
  deliver,
  dragThrough,
  dropFile,
  enterPass,
  linesOf,
  onScreen,
  penStroke,
  rest,
  savedDrawing,
  startDrawing,
  takeUp,
  textOf,
} from './support/desk'

const wave = Array.from({ length: 60 }, (_, i) => ({ x: 120 + i * 7, y: 220 + 60 * Math.sin(i / 9) + (i % 2) * 1.5 }))

test.describe('Drawing by hand', () => {
  test('a line is drawn anew at another steadiness, its ends where they were; many at once too, and undone in one step', async ({
    page,
  }) => {
    await startDrawing(page, 'demo-pea-pod')
    await takeUp(page, 'Freehand')
    await dragThrough(page, wave, 1)
    const before = linesOf(await savedDrawing(page)).at(-1)!
    await expect(page.getByTestId('strip')).toContainText('samples')
    const steadiness = page.getByLabel('Steadiness, exactly')
    await steadiness.fill('100')
    await steadiness.press('Enter')
    await expect.poll(async () => linesOf(await savedDrawing(page)).at(-1)!.trace!.steadiness).toBe(1)
    const steady = linesOf(await savedDrawing(page)).at(-1)!
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
    await page.getByLabel('Steadiness, exactly').fill('0')
    await page.getByLabel('Steadiness, exactly').press('Enter')
    const drawn = async () =>
      linesOf(await savedDrawing(page))
        .filter((l) => l.trace)
        .map((l) => l.trace!.steadiness)
    await expect.poll(drawn).toEqual([0, 0])
    await page.keyboard.press('Control+z')
    await expect.poll(drawn).toEqual([1, 0.4])
  })

  test('says how many nodes there are while drawing, and a stroke near a chosen line leaves it alone', async ({
    page,
  }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    const screen = await Promise.all(wave.map((p) => onScreen(page, p)))
    await page.mouse.move(screen[0]!.x, screen[0]!.y)
    await page.mouse.down()
    for (const p of screen.slice(1)) await page.mouse.move(p.x, p.y)
    await expect(page.getByTestId('hint')).toHaveText(/\d+ nodes/)
    await page.mouse.up()
    const [first] = linesOf(await savedDrawing(page))
    await dragThrough(
      page,
      wave.map((p) => ({ x: p.x + 3, y: p.y + 3 })),
      1,
    )
    const lines = linesOf(await savedDrawing(page))
    expect(lines).toHaveLength(2)
    expect(lines[0]).toEqual(first)
  })

  test('goes on with a line only from its end mark', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await dragThrough(page, [
      { x: 100, y: 200 },
      { x: 180, y: 200 },
      { x: 260, y: 200 },
    ])
    await expect(page.getByTestId('hint')).toContainText('From an end mark')
    const zoom = Number((await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ')[0])
    await dragThrough(page, [
      { x: 260 + 9 / zoom, y: 200 },
      { x: 300, y: 240 },
      { x: 340, y: 300 },
    ])
    const lines = linesOf(await savedDrawing(page))
    expect(lines).toHaveLength(1)
    expect(lines[0]!.path.nodes[0]!.at.x).toBeCloseTo(100, 0)
    expect(lines[0]!.path.nodes.at(-1)!.at.y).toBeCloseTo(300, 0)
    expect(lines[0]!.path.nodes.some((n) => Math.hypot(n.at.x - 260, n.at.y - 200) < 1.5)).toBe(true)
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
    let [line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes).toHaveLength(4)
    expect(line!.path.nodes.every((n) => !n.in && !n.out)).toBe(true)
    await page.getByLabel('Square up').uncheck()
    await expect.poll(async () => linesOf(await savedDrawing(page))[0]!.trace!.squared).toBe(false)
    ;[line] = linesOf(await savedDrawing(page))
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
    const [line] = linesOf(await savedDrawing(page))
    const widest = (l = line!): number => Math.max(...l.weight.stops.map((s) => s.left))
    const thinnest = (l = line!): number => Math.min(...l.weight.stops.map((s) => s.left))
    expect(line!.trace!.device).toBe('pen')
    expect(thinnest()).toBeLessThan(0.55)
    expect(widest()).toBeGreaterThan(0.85)
    await page.getByLabel('Variation, exactly').fill('80')
    await page.getByLabel('Variation, exactly').press('Enter')
    await expect(page.getByTestId('strip')).toContainText('Past two thirds')
    await expect.poll(async () => thinnest(linesOf(await savedDrawing(page))[0]!)).toBeLessThan(0.35)
    await expect(page.getByTestId('strip')).toContainText('5 : 1')
    const even = linesOf(await savedDrawing(page))[0]!.weight.stops
    await page.getByRole('group', { name: 'Pressure curve', exact: true }).getByRole('button', { name: 'Soft' }).click()
    await expect.poll(async () => linesOf(await savedDrawing(page))[0]!.trace!.response).toBe(0.6)
    expect(linesOf(await savedDrawing(page))[0]!.weight.stops).not.toEqual(even)
    // The curve's middle by hand: its own response.
    const middle = page.getByRole('slider', { name: 'Width at middle pressure' })
    await middle.focus()
    await middle.press('ArrowDown')
    await middle.press('ArrowDown')
    await expect(page.getByTestId('strip')).toContainText('Own')
    await expect.poll(async () => linesOf(await savedDrawing(page))[0]!.trace!.response).toBeGreaterThan(0.65)
  })

  test('a mouse has width from its speed where that is wanted, and unevenness', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    await page.getByLabel('Speed makes the width').check()
    // Ten long steps, then forty short ones with a rest after each.
    const points = await Promise.all(
      Array.from({ length: 50 }, (_, i) => onScreen(page, { x: i < 10 ? 60 + i * 40 : 420 + (i - 9) * 4, y: 200 })),
    )
    await page.mouse.move(points[0]!.x, points[0]!.y)
    await page.mouse.down()
    for (const [i, p] of points.entries()) {
      await page.mouse.move(p.x, p.y)
      if (i > 9) await rest(page, 30)
    }
    await page.mouse.up()
    const [line] = linesOf(await savedDrawing(page))
    const { stops } = line!.weight
    expect(stops.at(-1)!.left).toBeGreaterThan(Math.min(...stops.map((s) => s.left)) + 0.15)
    await page.getByLabel('Unevenness, exactly').fill('40')
    await page.getByLabel('Unevenness, exactly').press('Enter')
    await expect
      .poll(async () => linesOf(await savedDrawing(page))[0]!.weight.stops.length)
      .toBeGreaterThan(stops.length)
  })

  test('nibs are taken, duplicated, tuned with decimals, renamed, restored and removed; the broad edge draws with its ellipse', async ({
    page,
  }) => {
    await startDrawing(page)
    await takeUp(page, 'Freehand')
    const nib = page.getByRole('button', { name: 'Nib', exact: true })
    await nib.click()
    await page.getByRole('option', { name: /Broad edge/ }).click()
    await dragThrough(page, [
      { x: 100, y: 150 },
      { x: 300, y: 150 },
    ])
    expect(linesOf(await savedDrawing(page))[0]!.weight).toMatchObject({
      size: 10,
      nib: { width: 1, height: 0.25, angle: -40 },
    })
    await takeUp(page, 'Select')
    await page.keyboard.press('Escape')
    await takeUp(page, 'Freehand')
    await page.getByLabel('Size, exactly').fill('7.25')
    await page.getByLabel('Size, exactly').press('Enter')
    await page.getByRole('button', { name: 'Duplicate this nib' }).click()
    await expect(nib).toContainText('Broad edge copy')
    await page.getByRole('button', { name: 'Rename this nib' }).click()
    await page.getByLabel('Name of the nib').fill('Seed quill')
    await page.getByLabel('Name of the nib').press('Enter')
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
  test('plays a shipped trace onto the demo drawing, with its pressure', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const before = linesOf(await savedDrawing(page)).length
    await takeUp(page, 'Practice')
    await page.getByRole('group', { name: 'Traces' }).getByRole('button', { name: 'Horn' }).click()
    const start = await onScreen(page, { x: 60, y: 160 })
    await page.mouse.click(start.x, start.y)
    await expect.poll(async () => linesOf(await savedDrawing(page)).length, { timeout: 8000 }).toBe(before + 1)
    const line = linesOf(await savedDrawing(page)).at(-1)!
    expect(line.trace!.device).toBe('practice')
    expect(line.path.nodes[0]!.at.x).toBeCloseTo(60, 0)
    expect(line.weight.stops.length).toBeGreaterThan(2)
    // A second click while it plays draws it to its end at once.
    await page.getByRole('group', { name: 'Traces' }).getByRole('button', { name: 'Snail shell' }).click()
    await page.mouse.click(start.x, start.y + 200)
    await rest(page, 120)
    await page.mouse.click(start.x, start.y + 200)
    await expect.poll(async () => linesOf(await savedDrawing(page)).length).toBe(before + 2)
    expect(sampleCount(linesOf(await savedDrawing(page)).at(-1)!.trace!)).toBeGreaterThan(400)
  })

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
    const [line] = linesOf(await savedDrawing(page))
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
    const lines = linesOf(await savedDrawing(page))
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
    expect(linesOf(await savedDrawing(page))).toHaveLength(0)
    await enterPass(page, 'Deliver')
    await page.getByRole('radio', { name: /Pen traces/ }).click()
    // An empty drawing offers no file, and leads to where it is drawn.
    await expect(page.getByTestId('deliver')).toHaveCount(0)
    await page.getByRole('contentinfo').getByRole('button', { name: 'Lines', exact: true }).click()
    await expect(page.getByTestId('tray')).toBeVisible()
  })
})
