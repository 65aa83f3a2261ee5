import { arcOfPath } from '#core/geometry/known'
import {
  dragThrough,
  enterPass,
  linesOf,
  onScreen,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
} from './support/desk'
import { expect, test } from './support/test'

test('lines are found in the sketch; a click takes one, a drag several, Alt sweeps away, and all can be taken at once', async ({
  page,
}) => {
  await startDrawing(page, 'demo-pea-pod')
  const drawing = await savedDrawing(page)
  const known = linesOf(drawing)
  // The ink goes: the sketch alone is left to look at.
  await enterPass(page, 'Lines')
  await page.keyboard.press('Control+a')
  await takeUp(page, 'Select')
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await savedLines(page)).length).toBe(0)
  await takeUp(page, 'Propose')
  await page.getByTestId('find-lines').click()
  const told = page.getByTestId('proposals')
  await expect(told).toContainText('proposed', { timeout: 60_000 })
  const count = async (): Promise<number> => Number(/\d+/.exec((await told.textContent())!)![0])
  const all = await count()
  expect(all).toBeGreaterThan(30)
  // A click on the longest line that was drawn takes what was found there.
  const longest = known.toSorted((a, b) => arcOfPath(b.path).total - arcOfPath(a.path).total)[0]!
  const arc = arcOfPath(longest.path)
  const at = await onScreen(page, arc.point(arc.total * 0.4))
  await page.mouse.move(at.x, at.y)
  await page.mouse.click(at.x, at.y)
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  const [taken] = await savedLines(page)
  expect(arcOfPath(taken!.path).nearest(arc.point(arc.total * 0.4)).distance).toBeLessThan(4)
  expect(await count()).toBe(all - 1)
  // What is swept away leaves no line; undo knows only of lines.
  await page.keyboard.down('Alt')
  await dragThrough(
    page,
    [
      { x: 100, y: 120 },
      { x: 100, y: 220 },
    ],
    10,
  )
  await page.keyboard.up('Alt')
  const left = await count()
  await dragThrough(
    page,
    [
      { x: 330, y: 60 },
      { x: 620, y: 180 },
    ],
    20,
  )
  await expect.poll(async () => (await savedLines(page)).length).toBeGreaterThan(1)
  expect(await count()).toBeLessThan(left)
  await page.getByTestId('take-all').click()
  await expect.poll(async () => (await savedLines(page)).length).toBeGreaterThan(all / 2)
  await expect(told).toContainText('0 proposed')
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await savedLines(page)).length).toBeLessThan(all / 2)
})

test('lines are found within a box; taken as the pencil is thick, they swell; undo brings the proposal back', async ({
  page,
}) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Lines')
  await page.keyboard.press('Control+a')
  await takeUp(page, 'Select')
  await page.keyboard.press('Delete')
  await takeUp(page, 'Propose')
  await page.keyboard.down('Shift')
  await dragThrough(
    page,
    [
      { x: 300, y: 70 },
      { x: 640, y: 230 },
    ],
    8,
  )
  await page.keyboard.up('Shift')
  const told = page.getByTestId('proposals')
  await expect(told).toContainText('proposed', { timeout: 60_000 })
  const count = async (): Promise<number> => Number(/\d+/.exec((await told.textContent())!)![0])
  const found = await count()
  expect(found).toBeGreaterThan(3)
  expect(found).toBeLessThan(25)
  await page.getByRole('radio', { name: 'As the pencil' }).click()
  await dragThrough(
    page,
    [
      { x: 320, y: 150 },
      { x: 620, y: 155 },
    ],
    12,
  )
  await expect.poll(async () => (await savedLines(page)).length).toBeGreaterThan(0)
  for (const { path, weight } of await savedLines(page)) {
    expect(weight.stops.length).toBeGreaterThan(1)
    for (const { at } of path.nodes) expect(at.x > 295 && at.x < 645 && at.y > 65 && at.y < 235).toBe(true)
  }
  const left = await count()
  expect(left).toBeLessThan(found)
  await page.keyboard.press('Control+z')
  await expect.poll(count).toBe(found)
})
