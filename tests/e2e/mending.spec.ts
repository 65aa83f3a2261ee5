import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Drawing, Line, ShapesLayer } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { areaOfCubics } from '../../core/geometry/area'
import { cubicsOfPath } from '../../core/geometry/path'
import {
  clickAt,
  contoursOf,
  deliver,
  drag,
  enter,
  enterPass,
  linesOf,
  rest,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
  undo,
} from './support/desk'

/** A straight line from click to click. */
async function lay(page: Page, ...points: Vec[]): Promise<void> {
  await takeUp(page, 'Pen')
  await page.getByRole('radio', { name: 'Straight' }).click()
  for (const p of points) await clickAt(page, p)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
}

const noSnaps = async (page: Page): Promise<void> => {
  await page.evaluate(() =>
    fetch(`/api/seats/${localStorage.getItem('bellatrait:seat')}/belongings`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        choices: { studio: { snaps: { end: false, node: false, crossing: false, line: false } } },
      }),
    }),
  )
  await page.reload()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await enterPass(page, 'Lines')
}

const button = (page: Page, name: string) => page.getByTestId('strip').getByRole('button', { name, exact: true })
const solidsOf = (d: Drawing) => d.layers.filter((l): l is ShapesLayer => l.kind === 'fills').flatMap((l) => l.items)
const ends = (l: Line): number[] =>
  [l.path.nodes[0]!.at, l.path.nodes.at(-1)!.at].flatMap((p) => [Math.round(p.x), Math.round(p.y)])

/** Area of the delivered outlines, px squared. */
async function deliveredArea(page: Page): Promise<number> {
  await enterPass(page, 'Deliver')
  const svg = await textOf(await deliver(page, 'Outlines'))
  await enterPass(page, 'Lines')
  return contoursOf(svg).reduce((sum, c) => sum + areaOfCubics(cubicsOfPath({ ...c, closed: true })), 0)
}

test.describe('Nodes', () => {
  test('of several lines are gathered, scaled in their frame, aligned, placed by number; undo restores exactly', async ({
    page,
  }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 100 }, { x: 200, y: 120 })
    await lay(page, { x: 100, y: 200 }, { x: 210, y: 220 })
    const before = await savedLines(page)
    await takeUp(page, 'Nodes')
    await drag(page, 170, 80, 260, 260)
    await expect(page.getByTestId('strip')).toContainText('2 lines')
    await button(page, 'Align right').click()
    expect((await savedLines(page)).map((l) => Math.round(l.path.nodes[1]!.at.x))).toEqual([210, 210])
    await enter(page.getByLabel('x', { exact: true }), '240')
    expect((await savedLines(page)).map((l) => Math.round(l.path.nodes[1]!.at.x))).toEqual([240, 240])
    expect((await savedLines(page)).map((l) => l.path.nodes[0]!.at)).toEqual(before.map((l) => l.path.nodes[0]!.at))
    // The frame's lower corners are 10 screen px beyond the nodes; scaled from the upper ones, the nodes spread.
    const zoom = Number((await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ')[0])
    await drag(page, 240 + 10 / zoom, 220 + 10 / zoom, 240 + 10 / zoom, 320 + 10 / zoom)
    const [a, b] = await savedLines(page)
    expect(b!.path.nodes[1]!.at.y - a!.path.nodes[1]!.at.y).toBeGreaterThan(150)
    await undo(page, 3)
    expect(await savedLines(page)).toEqual(before)
  })

  test('handles are linked, freed and drawn in; lines are turned round', async ({ page }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 200, y: 120 }, { x: 300, y: 200 })
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 150, y: 160 })
    await clickAt(page, { x: 200, y: 120 })
    await page.getByRole('radio', { name: 'Linked' }).click()
    expect((await savedLines(page))[0]!.path.nodes[1]).toMatchObject({ joint: 'smooth' })
    await page.getByRole('radio', { name: 'Free' }).click()
    const free = (await savedLines(page))[0]!.path.nodes[1]!
    expect(free.joint).toBe('corner')
    expect(free.in).not.toBeNull()
    await page.getByRole('radio', { name: 'Drawn in' }).click()
    expect((await savedLines(page))[0]!.path.nodes[1]).toMatchObject({ in: null, out: null })
    await button(page, 'Turn round').click()
    expect(ends((await savedLines(page))[0]!)).toEqual([300, 200, 100, 200])
  })

  test('of a line are moved with Shapes open, and its shape follows', async ({ page }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 300, y: 200 })
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('shape-count')).toHaveText('1')
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 180, y: 200 })
    await rest(page, 500)
    await drag(page, 300, 200, 330, 250, 360, 300)
    await expect.poll(async () => (await savedLines(page))[0]!.path.nodes[1]!.at.y).toBeGreaterThan(280)
    const end = (await savedLines(page))[0]!.path.nodes[1]!.at
    await enterPass(page, 'Deliver')
    const xs = contoursOf(await textOf(await deliver(page, 'Outlines'))).flatMap((c) => c.nodes.map((n) => n.at.x))
    expect(Math.max(...xs)).toBeGreaterThan(end.x)
    expect(Math.max(...xs)).toBeLessThan(end.x + 3.1)
  })

  test('of outlines are moved in Shapes; the retouch is put on anew and can be taken back, the lines stay', async ({
    page,
  }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 300, y: 200 })
    const lines = await savedLines(page)
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('shape-count')).toHaveText('1')
    await takeUp(page, 'Retouch')
    await clickAt(page, { x: 180, y: 197 })
    await drag(page, 100, 192, 100, 165)
    await expect.poll(async () => (await savedDrawing(page)).amendments?.length).toBeGreaterThan(0)
    const saved = await savedDrawing(page)
    expect(linesOf(saved)).toEqual(lines)
    await takeUp(page, 'Inspect')
    await expect(page.getByTestId('strip')).toContainText('retouch')
    await enterPass(page, 'Deliver')
    const top = async (): Promise<number> =>
      Math.min(...contoursOf(await textOf(await deliver(page, 'Outlines'))).flatMap((c) => c.nodes.map((n) => n.at.y)))
    expect(await top()).toBeLessThan(175)
    await enterPass(page, 'Shapes')
    await page.getByRole('button', { name: 'Take retouches back' }).click()
    await enterPass(page, 'Deliver')
    expect(await top()).toBeCloseTo(197, 0)
  })
})

test.describe('Ends and crossings', () => {
  test('lines are split, joined, extended, tucked under and closed', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 200, y: 200 }, { x: 300, y: 200 })
    await lay(page, { x: 400, y: 100 }, { x: 400, y: 300 })
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 150, y: 200 })
    await clickAt(page, { x: 200, y: 200 })
    await button(page, 'Split here').click()
    expect(await savedLines(page)).toHaveLength(3)
    await drag(page, 190, 190, 210, 210)
    await button(page, 'Join ends').click()
    expect((await savedLines(page)).map(ends)).toEqual([
      [100, 200, 300, 200],
      [400, 100, 400, 300],
    ])
    await drag(page, 280, 180, 320, 220)
    await button(page, 'Extend to a line').click()
    expect(ends((await savedLines(page))[0]!)).toEqual([100, 200, 400, 200])
    await drag(page, 385, 180, 420, 220)
    await enter(page.getByLabel('x', { exact: true }), '407')
    await button(page, 'Tuck under').click()
    await expect.poll(async () => ends((await savedLines(page))[0]!)).toEqual([100, 200, 400, 200])
    await lay(page, { x: 100, y: 350 }, { x: 200, y: 350 }, { x: 150, y: 420 })
    await takeUp(page, 'Nodes')
    await drag(page, 85, 335, 160, 440)
    await button(page, 'Close the gap').click()
    expect((await savedLines(page)).at(-1)!.path.closed).toBe(true)
  })
})

test.describe('Covering and solid marks', () => {
  test('a line is scraped and taken back; strokes close into a fill', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 400, y: 200 })
    const whole = await deliveredArea(page)
    await takeUp(page, 'Select')
    await clickAt(page, { x: 200, y: 200 })
    await takeUp(page, 'Scrape')
    await drag(page, 250, 150, 250, 250)
    expect((await savedLines(page))[0]!.scrapes).toHaveLength(1)
    expect(await deliveredArea(page)).toBeLessThan(whole - 80)
    await takeUp(page, 'Select')
    await button(page, 'Take scrapings back').click()
    expect(await deliveredArea(page)).toBeCloseTo(whole, -1)
    await lay(page, { x: 400, y: 210 }, { x: 400, y: 350 })
    await lay(page, { x: 100, y: 345 }, { x: 395, y: 350 })
    await lay(page, { x: 100, y: 340 }, { x: 100, y: 205 })
    await takeUp(page, 'Select')
    await page.keyboard.press('Control+a')
    await button(page, 'Close into a fill').click()
    const saved = await savedDrawing(page)
    const [fill] = solidsOf(saved)
    expect(fill!.from).toHaveLength(4)
    expect(Math.abs(areaOfCubics(cubicsOfPath(fill!.contours[0]!)))).toBeGreaterThan(40_000)
    // Below the strokes, so that these stay in sight.
    expect(saved.layers.map((l) => l.kind)).toEqual(['fills', 'lines'])
  })
})
