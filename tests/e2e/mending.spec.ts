import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Drawing, Line, ShapesLayer } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { areaOfCubics } from '../../core/geometry/area'
import { arcOfPath } from '../../core/geometry/known'
import { cubicsOfPath } from '../../core/geometry/path'
import {
  clickAt,
  contoursOf,
  deliver,
  dragThrough,
  enterPass,
  linesOf,
  onScreen,
  rest,
  savedDrawing,
  startDrawing,
  takeUp,
  textOf,
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
    localStorage.setItem(
      'bellatrait:studio',
      JSON.stringify({ snaps: { end: false, node: false, crossing: false, line: false } }),
    ),
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
    const before = linesOf(await savedDrawing(page))
    await takeUp(page, 'Nodes')
    await dragThrough(page, [
      { x: 170, y: 80 },
      { x: 260, y: 260 },
    ])
    await expect(page.getByTestId('strip')).toContainText('2 lines')
    await button(page, 'Align right').click()
    expect(linesOf(await savedDrawing(page)).map((l) => Math.round(l.path.nodes[1]!.at.x))).toEqual([210, 210])
    await page.getByLabel('x', { exact: true }).fill('240')
    await page.getByLabel('x', { exact: true }).press('Enter')
    expect(linesOf(await savedDrawing(page)).map((l) => Math.round(l.path.nodes[1]!.at.x))).toEqual([240, 240])
    expect(linesOf(await savedDrawing(page)).map((l) => l.path.nodes[0]!.at)).toEqual(
      before.map((l) => l.path.nodes[0]!.at),
    )
    // The frame's lower corners are 10 screen px beyond the nodes; scaled from the upper ones, the nodes spread.
    const zoom = Number((await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ')[0])
    await dragThrough(page, [
      { x: 240 + 10 / zoom, y: 220 + 10 / zoom },
      { x: 240 + 10 / zoom, y: 320 + 10 / zoom },
    ])
    const [a, b] = linesOf(await savedDrawing(page))
    expect(b!.path.nodes[1]!.at.y - a!.path.nodes[1]!.at.y).toBeGreaterThan(150)
    for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
    expect(linesOf(await savedDrawing(page))).toEqual(before)
  })

  test('a hundred of them go off the page and come back by undo', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const before = linesOf(await savedDrawing(page))
    await takeUp(page, 'Nodes')
    await dragThrough(page, [
      { x: 5, y: 5 },
      { x: 700, y: 510 },
    ])
    const middle = await page.getByLabel('x', { exact: true }).inputValue()
    await page.getByTestId('canvas').focus()
    await page.getByLabel('x', { exact: true }).fill('-4000')
    await page.getByLabel('x', { exact: true }).press('Enter')
    const away = linesOf(await savedDrawing(page))
    expect(away.flatMap((l) => l.path.nodes).filter((n) => n.at.x < 0).length).toBeGreaterThan(100)
    await page.getByLabel('x', { exact: true }).fill(middle)
    await page.getByLabel('x', { exact: true }).press('Enter')
    await savedDrawing(page)
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+z')
    expect(linesOf(await savedDrawing(page))).toEqual(before)
  })

  test('handles are linked, freed and drawn in; lines are turned round', async ({ page }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 200, y: 120 }, { x: 300, y: 200 })
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 150, y: 160 })
    await clickAt(page, { x: 200, y: 120 })
    await page.getByRole('radio', { name: 'Linked' }).click()
    expect(linesOf(await savedDrawing(page))[0]!.path.nodes[1]).toMatchObject({ joint: 'smooth' })
    await page.getByRole('radio', { name: 'Free' }).click()
    const free = linesOf(await savedDrawing(page))[0]!.path.nodes[1]!
    expect(free.joint).toBe('corner')
    expect(free.in).not.toBeNull()
    await page.getByRole('radio', { name: 'Drawn in' }).click()
    expect(linesOf(await savedDrawing(page))[0]!.path.nodes[1]).toMatchObject({ in: null, out: null })
    await button(page, 'Turn round').click()
    expect(ends(linesOf(await savedDrawing(page))[0]!)).toEqual([300, 200, 100, 200])
  })

  test('of a line are moved with Shapes open, and its shape follows', async ({ page }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 300, y: 200 })
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('shape-count')).toHaveText('1')
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 180, y: 200 })
    await rest(page, 500)
    await dragThrough(page, [
      { x: 300, y: 200 },
      { x: 330, y: 250 },
      { x: 360, y: 300 },
    ])
    await expect.poll(async () => linesOf(await savedDrawing(page))[0]!.path.nodes[1]!.at.y).toBeGreaterThan(280)
    const end = linesOf(await savedDrawing(page))[0]!.path.nodes[1]!.at
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
    const lines = linesOf(await savedDrawing(page))
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('shape-count')).toHaveText('1')
    await takeUp(page, 'Retouch')
    await clickAt(page, { x: 180, y: 197 })
    await dragThrough(page, [
      { x: 100, y: 192 },
      { x: 100, y: 165 },
    ])
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
  test('the pen is drawn to an end with a mark and the distance, and goes free with Ctrl', async ({ page }) => {
    await startDrawing(page)
    await lay(page, { x: 100, y: 200 }, { x: 300, y: 200 })
    await takeUp(page, 'Pen')
    await clickAt(page, { x: 200, y: 400 })
    await clickAt(page, { x: 303, y: 203 })
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    expect(ends(linesOf(await savedDrawing(page))[1]!).slice(2)).toEqual([300, 200])
    expect(linesOf(await savedDrawing(page))[1]!.path.nodes[1]!.at).toEqual({
      x: linesOf(await savedDrawing(page))[0]!.path.nodes[1]!.at.x,
      y: linesOf(await savedDrawing(page))[0]!.path.nodes[1]!.at.y,
    })
    await page.keyboard.down('Control')
    await clickAt(page, { x: 97, y: 203 })
    await clickAt(page, { x: 60, y: 300 })
    await page.keyboard.up('Control')
    await page.keyboard.press('Enter')
    const free = linesOf(await savedDrawing(page))[2]!.path.nodes[0]!.at
    expect(Math.hypot(free.x - 97, free.y - 203)).toBeLessThan(0.6)
    // Nothing near: the point is where the hand is.
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 500, y: 90 })
    await clickAt(page, { x: 560, y: 90 })
    await page.keyboard.press('Enter')
    expect(ends(linesOf(await savedDrawing(page))[3]!)).toEqual([500, 90, 560, 90])
  })

  test('a snip hides what lies beyond a crossing, follows it, and comes back', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 400, y: 200 })
    await lay(page, { x: 300, y: 100 }, { x: 300, y: 300 })
    const whole = await deliveredArea(page)
    await takeUp(page, 'Snip')
    const beyond = await onScreen(page, { x: 360, y: 200 })
    await page.mouse.move(beyond.x, beyond.y)
    await expect(page.getByTestId('hint')).toContainText('hide this part')
    await page.mouse.click(beyond.x, beyond.y)
    const [line] = linesOf(await savedDrawing(page))
    expect(line!.path.nodes.map((n) => Math.round(n.at.x))).toEqual([100, 400])
    expect(line!.snips[0]!.from).toBeCloseTo(2 / 3, 2)
    expect(await deliveredArea(page)).toBeCloseTo(whole - 100 * 6 - 3 * 6 + 3 * 6, -2)
    await takeUp(page, 'Select')
    await dragThrough(page, [
      { x: 300, y: 130 },
      { x: 250, y: 130 },
    ])
    await expect.poll(async () => linesOf(await savedDrawing(page))[0]!.snips[0]!.from).toBeCloseTo(0.5, 2)
    await takeUp(page, 'Snip')
    await clickAt(page, { x: 360, y: 200 })
    expect(linesOf(await savedDrawing(page))[0]!.snips).toEqual([])
    expect(await deliveredArea(page)).toBeCloseTo(whole, -1)
  })

  test('lines are split, joined, extended, tucked under and closed', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 200, y: 200 }, { x: 300, y: 200 })
    await lay(page, { x: 400, y: 100 }, { x: 400, y: 300 })
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 150, y: 200 })
    await clickAt(page, { x: 200, y: 200 })
    await button(page, 'Split here').click()
    expect(linesOf(await savedDrawing(page))).toHaveLength(3)
    await dragThrough(page, [
      { x: 190, y: 190 },
      { x: 210, y: 210 },
    ])
    await button(page, 'Join ends').click()
    expect(linesOf(await savedDrawing(page)).map(ends)).toEqual([
      [100, 200, 300, 200],
      [400, 100, 400, 300],
    ])
    await dragThrough(page, [
      { x: 280, y: 180 },
      { x: 320, y: 220 },
    ])
    await button(page, 'Extend to a line').click()
    expect(ends(linesOf(await savedDrawing(page))[0]!)).toEqual([100, 200, 400, 200])
    await dragThrough(page, [
      { x: 385, y: 180 },
      { x: 420, y: 220 },
    ])
    await page.getByLabel('x', { exact: true }).fill('407')
    await page.getByLabel('x', { exact: true }).press('Enter')
    await button(page, 'Tuck under').click()
    await expect.poll(async () => ends(linesOf(await savedDrawing(page))[0]!)).toEqual([100, 200, 400, 200])
    await lay(page, { x: 100, y: 350 }, { x: 200, y: 350 }, { x: 150, y: 420 })
    await takeUp(page, 'Nodes')
    await dragThrough(page, [
      { x: 85, y: 335 },
      { x: 160, y: 440 },
    ])
    await button(page, 'Close the gap').click()
    expect(linesOf(await savedDrawing(page)).at(-1)!.path.closed).toBe(true)
  })
})

test.describe('Covering and solid marks', () => {
  test('a closed line covers what lies behind it, and lets it come back when it moves', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 500, y: 200 })
    const bare = await deliveredArea(page)
    await takeUp(page, 'Figure')
    await dragThrough(page, [
      { x: 200, y: 140 },
      { x: 300, y: 260 },
    ])
    const ring = (await deliveredArea(page)) - bare
    await takeUp(page, 'Select')
    await page.getByLabel('Covers what lies behind it').check()
    const covered = await deliveredArea(page)
    // The 6 px line is hidden for the 94 px inside the ellipse's own ink.
    expect(bare + ring - covered).toBeGreaterThan(94 * 6 - 30)
    expect(bare + ring - covered).toBeLessThan(100 * 6 + 10)
    await dragThrough(page, [
      { x: 200, y: 200 },
      { x: 200, y: 360 },
    ])
    expect(await deliveredArea(page)).toBeGreaterThan(covered + 94 * 6 - 30)
    const path = linesOf(await savedDrawing(page))[0]!.path
    expect(arcOfPath(path).total).toBeCloseTo(400, 0)
  })

  test('a blot is painted and grows together, and is scraped only when chosen', async ({ page }) => {
    await startDrawing(page, 'demo-pea-pod')
    const before = await savedDrawing(page)
    await takeUp(page, 'Blot')
    await dragThrough(page, [
      { x: 560, y: 60 },
      { x: 660, y: 60 },
    ])
    await dragThrough(page, [
      { x: 610, y: 40 },
      { x: 610, y: 110 },
    ])
    let solids = solidsOf(await savedDrawing(page))
    expect(solids).toHaveLength(1)
    const area = (c: typeof solids): number =>
      c.flatMap((s) => s.contours).reduce((sum, p) => sum + areaOfCubics(cubicsOfPath({ ...p, closed: true })), 0)
    const full = area(solids)
    expect(full).toBeGreaterThan(3500)
    await takeUp(page, 'Scrape')
    await dragThrough(page, [
      { x: 585, y: 30 },
      { x: 585, y: 90 },
    ])
    solids = solidsOf(await savedDrawing(page))
    expect(area(solids)).toBeLessThan(full - 300)
    await page.keyboard.press('Control+z')
    await takeUp(page, 'Select')
    await page.keyboard.press('Escape')
    await takeUp(page, 'Scrape')
    await dragThrough(page, [
      { x: 585, y: 30 },
      { x: 585, y: 90 },
    ])
    await expect(page.getByTestId('notice')).toContainText('Nothing is chosen')
    expect(area(solidsOf(await savedDrawing(page)))).toBeCloseTo(full, 6)
    expect(linesOf(await savedDrawing(page))).toEqual(linesOf(before))
  })

  test('a line is scraped and taken back; strokes close into a fill', async ({ page }) => {
    await startDrawing(page)
    await noSnaps(page)
    await lay(page, { x: 100, y: 200 }, { x: 400, y: 200 })
    const whole = await deliveredArea(page)
    await takeUp(page, 'Select')
    await clickAt(page, { x: 200, y: 200 })
    await takeUp(page, 'Scrape')
    await dragThrough(page, [
      { x: 250, y: 150 },
      { x: 250, y: 250 },
    ])
    expect(linesOf(await savedDrawing(page))[0]!.scrapes).toHaveLength(1)
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
