import type { Page } from '@playwright/test'
import type { Mirror, Repeat } from '#core/model/model'
import {
  clickAt,
  dragThrough,
  inkAt,
  penStroke,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'
import { expect, test } from './support/test'

const ruleOf = async (page: Page): Promise<Mirror | Repeat> =>
  (await savedDrawing(page)).amendments!.find((a): a is Mirror | Repeat => a.kind === 'mirror' || a.kind === 'repeat')!
const toLines = (page: Page) => page.keyboard.press('2')

/** A wing left of the middle of the page, which is at 360. */
const WING = [
  { x: 330, y: 180, pressure: 0.5 },
  { x: 240, y: 130, pressure: 0.5 },
  { x: 180, y: 200, pressure: 0.5 },
  { x: 250, y: 270, pressure: 0.5 },
  { x: 326, y: 240, pressure: 0.5 },
]

test('half of a moth is drawn, the other half follows; nodes, undo, reload; then it is set free', async ({ page }) => {
  await startDrawing(page)
  await page.keyboard.press('Shift+m')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('rule')).toContainText('0 lines go along')
  await takeUp(page, 'Freehand')
  await penStroke(page, WING)
  await takeUp(page, 'Pen')
  for (const p of [
    { x: 360, y: 150 },
    { x: 340, y: 210 },
    { x: 360, y: 300 },
  ])
    await clickAt(page, p)
  await page.keyboard.press('Enter')
  const lines = await savedLines(page)
  expect(lines).toHaveLength(2)
  expect((await ruleOf(page)).lines).toEqual(lines.map((l) => l.id))
  const node = lines[0]!.path.nodes[Math.floor(lines[0]!.path.nodes.length / 2)]!.at
  const at: [number, number][] = [
    [node.x, node.y],
    [720 - node.x, node.y],
    [340, 210],
    [380, 210],
    [360, 225],
  ]
  expect(await inkAt(page, ...at)).toEqual([true, true, true, true, false])
  // A node is moved: its twin goes along.
  await toLines(page)
  await takeUp(page, 'Nodes')
  await clickAt(page, { x: 340, y: 210 })
  await dragThrough(page, [
    { x: 340, y: 210 },
    { x: 320, y: 220 },
    { x: 310, y: 225 },
  ])
  const moved: [number, number][] = [
    [310, 225],
    [410, 225],
  ]
  expect(await inkAt(page, ...moved)).toEqual([true, true])
  await undo(page, 1)
  expect(await inkAt(page, ...moved)).toEqual([false, false])
  await page.reload()
  expect(await inkAt(page, ...at)).toEqual([true, true, true, true, false])
  await toLines(page)
  await page.keyboard.press('Shift+m')
  await page.getByRole('button', { name: 'Set all free' }).click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(3)
  expect((await savedDrawing(page)).amendments ?? []).toEqual([])
  expect(await inkAt(page, ...at)).toEqual([true, true, true, true, false])
  await undo(page, 1)
  await expect.poll(async () => (await savedLines(page)).length).toBe(2)
})

test('chosen lines are repeated about a point, one of them set free by a click, the axis of a mirror dragged', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  for (const p of [
    { x: 300, y: 120 },
    { x: 330, y: 100 },
    { x: 360, y: 124 },
  ])
    await clickAt(page, p)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Shift+m')
  await page.getByRole('radio', { name: 'Repeat' }).click()
  await clickAt(page, { x: 330, y: 240 })
  await expect(page.getByTestId('rule')).toContainText('1 line goes along')
  // Six times about the point: half a turn on it stands at the other side.
  const across: [number, number] = [330, 380]
  expect(await inkAt(page, [330, 100], across)).toEqual([true, true])
  await toLines(page)
  await clickAt(page, { x: 330, y: 380 })
  await expect.poll(async () => (await savedLines(page)).length).toBe(2)
  expect(await ruleOf(page)).toMatchObject({ times: 6, left: [3] })
  expect(await inkAt(page, across)).toEqual([true])
  await toLines(page)
  await page.getByLabel('What is drawn goes along').uncheck()
  await page.getByRole('button', { name: 'Repeat no more' }).click()
  await expect.poll(async () => (await savedDrawing(page)).amendments ?? []).toEqual([])
  expect(await inkAt(page, [330, 100], across)).toEqual([true, true])
  // An axis that is laid by a drag, and put elsewhere by one of its points.
  await toLines(page)
  await page.keyboard.press('Escape')
  await page.getByRole('radio', { name: 'Mirror' }).click()
  await dragThrough(page, [
    { x: 200, y: 60 },
    { x: 210, y: 200 },
    { x: 200, y: 400 },
  ])
  const before = (await ruleOf(page)) as Mirror
  await dragThrough(page, [before.from, { x: 150, y: 70 }, { x: 120, y: 60 }])
  await expect.poll(async () => Math.round(((await ruleOf(page)) as Mirror).from.x)).toBe(120)
  await undo(page, 1)
  await expect.poll(async () => Math.round(((await ruleOf(page)) as Mirror).from.x)).toBe(Math.round(before.from.x))
})
