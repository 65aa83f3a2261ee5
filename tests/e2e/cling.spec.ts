import type { Page } from '@playwright/test'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { arcOfPath } from '#core/geometry/known'
import { dragThrough, enter, enterPass, savedLines, startDrawing, takeUp } from './support/desk'
import { expect, test } from './support/test'

/** The demo's sketch lies a little askew over its lines, by less than a px of the page at most places. */
const NEAR = 1.6

/** A demo drawing's sketch alone, in Lines; answers the lines that were inked over it. */
async function sketchOf(page: Page, demo: string): Promise<Line[]> {
  await startDrawing(page, demo)
  const known = await savedLines(page)
  await enterPass(page, 'Lines')
  await page.keyboard.press('Control+a')
  await takeUp(page, 'Select')
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await savedLines(page)).length).toBe(0)
  return known
}

/** Turns Cling up all the way, and waits until the sketch is read. */
async function clingFully(page: Page): Promise<void> {
  await page.getByTestId('cling').click()
  const strength = page.getByRole('textbox', { name: 'Strength, exactly' })
  await enter(strength, '100')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('cling')).toContainText('100 %', { timeout: 60_000 })
}

const longestOpen = (lines: readonly Line[]): Line =>
  lines.filter((l) => !l.path.closed).toSorted((a, b) => arcOfPath(b.path).total - arcOfPath(a.path).total)[0]!

/** How far a laid line lies from one that is known, px: the mean. */
function apart(laid: Line, known: Line): number {
  const [a, b] = [arcOfPath(laid.path), arcOfPath(known.path)]
  const places = Array.from({ length: 60 }, (_, i) => b.nearest(a.point(((i + 0.5) / 60) * a.total)).distance)
  return places.reduce((x, y) => x + y, 0) / places.length
}

/** Beside a line, now on its one side, now on the other. */
function beside(line: Line, far: number): Vec[] {
  const arc = arcOfPath(line.path)
  return Array.from({ length: 26 }, (_, i) => {
    const s = (0.04 + (0.92 * i) / 25) * arc.total
    const [p, t] = [arc.point(s), arc.tangent(s)!]
    const off = far * Math.sin(i * 0.9)
    return { x: p.x + t.y * off, y: p.y - t.x * off }
  })
}

test('a hand that strays is drawn onto the pencil, unless it is let go free; Cling is remembered', async ({ page }) => {
  const known = longestOpen(await sketchOf(page, 'demo-radish-bunch'))
  await takeUp(page, 'Freehand')
  await clingFully(page)
  await dragThrough(page, beside(known, 6), 4)
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  const [clung] = await savedLines(page)
  expect(apart(clung!, known)).toBeLessThan(NEAR)
  await page.keyboard.press('Control+z')
  await page.keyboard.down('Control')
  await dragThrough(page, beside(known, 6), 4)
  await page.keyboard.up('Control')
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  const [free] = await savedLines(page)
  expect(apart(free!, known)).toBeGreaterThan(2 * apart(clung!, known))
  await page.reload()
  await expect(page.getByTestId('cling')).toContainText('100 %', { timeout: 60_000 })
})

test('a bow laid from end to end of a pencil curve bends itself; lines that lie beside it settle, tried on first', async ({
  page,
}) => {
  const known = longestOpen(await sketchOf(page, 'demo-radish-bunch'))
  const arc = arcOfPath(known.path)
  await takeUp(page, 'Bow')
  await clingFully(page)
  const [a, b] = [arc.point(arc.total * 0.15), arc.point(arc.total * 0.6)]
  await dragThrough(page, [a, b], 8)
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  const bow = (await savedLines(page))[0]!
  expect(apart(bow, known)).toBeLessThan(NEAR)
  await page.keyboard.press('Control+z')
  // Freehand, let go free, then settled.
  await takeUp(page, 'Freehand')
  await page.keyboard.down('Control')
  await dragThrough(page, beside(known, 6), 4)
  await page.keyboard.up('Control')
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  const before = (await savedLines(page))[0]!
  await takeUp(page, 'Settle')
  await expect(page.getByTestId('trial')).toContainText('1 line would move onto the pencil')
  expect((await savedLines(page))[0]).toEqual(before)
  await page.keyboard.press('Enter')
  await expect.poll(async () => apart((await savedLines(page))[0]!, known)).toBeLessThan(NEAR)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await savedLines(page))[0]).toEqual(before)
})
