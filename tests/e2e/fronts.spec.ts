import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import {
  clickAt,
  dragThrough,
  enterPass,
  inkAt,
  onScreen,
  openDrawing,
  savedDrawing,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'
import { expect, test } from './support/test'
import { polyline } from '../unit/support/paths'

/** A closed line, cornered, no two of its sides alike. */
const box = (id: string, x: number, y: number, w: number, h: number): Line =>
  newLine(
    { ...polyline(x, y, x + w, y + 3, x + w - 4, y + h, x + 2, y + h - 5), closed: true },
    { id, weight: evenWeight(5) },
  )

/** A head with an eye, a hat over both, and a cup of two lines beside it. */
const head = box('head', 100, 150, 220, 170)
const eye = box('eye', 150, 165, 60, 50)
const hat = box('hat', 130, 90, 150, 100)
const cup = [
  newLine(polyline(290, 240, 420, 250, 425, 330), { id: 'cup-1', weight: evenWeight(5) }),
  newLine(polyline(425, 330, 295, 340, 290, 240), { id: 'cup-2', weight: evenWeight(5) }),
]
const scene = newDrawing('Fronts', {
  layers: [newLinesLayer('Head', [head, eye]), newLinesLayer('Hat', [hat]), newLinesLayer('Cup', cup)],
})
/** The head's upper edge in the hat, the hat's lower edge in the head, the eye in the hat, the head's side in the cup. */
const places: [number, number][] = [
  [240, 151.9],
  [230, 188.7],
  [180, 166.4],
  [317.5, 300],
]

test('a click brings a form in front, another sends it behind, Alt shows both; all of it undone', async ({ page }) => {
  await openDrawing(page, await startDrawing(page, scene))
  await enterPass(page, 'Shapes')
  await takeUp(page, 'Front')
  await expect(page.getByTestId('overlaps')).toContainText('2 overlaps to decide')
  await clickAt(page, { x: 200, y: 110 })
  await expect(page.getByTestId('overlaps')).toContainText('1 overlap to decide')
  expect(await inkAt(page, ...places)).toEqual([false, true, false, true])
  await enterPass(page, 'Shapes')
  await expect(page.getByTestId('overlaps')).toContainText('1 overlap to decide')
  await clickAt(page, { x: 200, y: 110 })
  await expect
    .poll(async () => (await savedDrawing(page)).amendments?.map((a) => a.kind === 'front' && a.back))
    .toEqual([['hat'], ['hat']])
  expect(await inkAt(page, ...places)).toEqual([true, false, true, true])
  await enterPass(page, 'Shapes')
  await page.keyboard.down('Alt')
  await clickAt(page, { x: 200, y: 110 })
  await page.keyboard.up('Alt')
  expect(await inkAt(page, ...places)).toEqual([true, true, true, true])
  await undo(page, 2)
  expect(await inkAt(page, ...places)).toEqual([false, true, false, true])
  await undo(page, 1)
  expect(await inkAt(page, ...places)).toEqual([true, true, true, true])
})

test('overlaps are gone through by keys alone, likely ones taken at once, or the order decides', async ({ page }) => {
  await openDrawing(page, await startDrawing(page, scene))
  await enterPass(page, 'Shapes')
  await takeUp(page, 'Front')
  await expect(page.getByTestId('overlaps')).toContainText('2 overlaps to decide')
  const on = await onScreen(page, { x: 600, y: 400 })
  await page.mouse.move(on.x, on.y)
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(/lies in front\.$/)).toBeVisible()
  // The lower form of each pair comes first: the head behind the hat, with its eye, then the head before the cup.
  await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('overlaps')).toContainText('1 overlap to decide')
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByTestId('overlaps')).toContainText('No overlap is left')
  await undo(page, 2)
  await expect(page.getByTestId('overlaps')).toContainText('2 overlaps to decide')
  await page.keyboard.press('Escape')
  // Whether the cup, whose outline is of two lines, lies before the head is not likely enough to be taken with the rest.
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('overlaps')).toContainText('1 overlap to decide')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('overlaps')).toContainText('No overlap is left')
  expect(await inkAt(page, ...places)).toEqual([false, true, false, false])
  await undo(page, 2)
  await enterPass(page, 'Shapes')
  await page.getByLabel('By order of layers and lines').check()
  await expect(page.getByTestId('overlaps')).toContainText('No overlap is left')
  expect(await inkAt(page, ...places)).toEqual([false, true, false, false])
})

test('from Lines, with the lines still soft: what is hidden is not there for the hand, a bridge is bent, black is thrown', async ({
  page,
}) => {
  const neck = [
    newLine(polyline(180, 318, 172, 400), { id: 'neck-1', weight: evenWeight(5) }),
    newLine(polyline(172, 400, 250, 405, 246, 318), { id: 'neck-2', weight: evenWeight(5) }),
  ]
  const layers = [newLinesLayer('Neck', neck), newLinesLayer('Head', [head]), newLinesLayer('Hat', [hat])]
  await openDrawing(page, await startDrawing(page, newDrawing('Soft', { layers })))
  await page.keyboard.press('Shift+x')
  // The neck only touches the head, until its bridge is drawn up into that.
  await expect(page.getByTestId('overlap-count')).toContainText('1 to decide')
  expect(await inkAt(page, [214, 316])).toEqual([true])
  await page.keyboard.press('2')
  const middle = { x: 213, y: 318 }
  const on = await onScreen(page, middle)
  await page.mouse.move(on.x + 2, on.y)
  await page.mouse.move(on.x, on.y)
  await dragThrough(page, [middle, { x: 213, y: 308 }, { x: 212, y: 290 }])
  await expect(page.getByTestId('overlap-count')).toContainText('2 to decide')
  // In front, the neck opens into the head.
  await clickAt(page, { x: 210, y: 370 })
  await expect(page.getByTestId('overlap-count')).toContainText('1 to decide')
  expect(await inkAt(page, [214, 316])).toEqual([false])
  await undo(page, 2)
  await expect.poll(async () => (await savedDrawing(page)).amendments ?? []).toEqual([])
  expect(await inkAt(page, [214, 316])).toEqual([true])
  await page.keyboard.press('2')
  await clickAt(page, { x: 200, y: 110 })
  await expect(page.getByTestId('overlap-count')).toContainText('nothing to decide')
  // The form in hand throws black on the head, which lies behind it.
  const below: [number, number] = [230, 192]
  expect(await inkAt(page, below)).toEqual([false])
  await page.keyboard.press('2')
  await page.keyboard.press('Shift+x')
  await page.keyboard.press('Shift+x')
  await clickAt(page, { x: 200, y: 110 })
  await clickAt(page, { x: 200, y: 110 })
  await page.getByRole('radio', { name: 'Black' }).click()
  expect(await inkAt(page, below)).toEqual([true])
  // What lies behind the hat cannot be taken hold of.
  await page.keyboard.press('2')
  await takeUp(page, 'Select')
  await page.keyboard.press('Escape')
  await clickAt(page, { x: 150, y: 151 })
  await expect(page.getByRole('button', { name: 'Ink', exact: true })).toHaveCount(0)
  await clickAt(page, { x: 318, y: 240 })
  await expect(page.getByRole('button', { name: 'Ink', exact: true })).toBeVisible()
})

test('a pile of twenty-three overlaps is decided by keys alone, and looks as it was drawn to look', async ({
  page,
}) => {
  const made = await page.request.get('/api/drawings/demo-potting-bench')
  const { drawing } = (await made.json()) as { drawing: Drawing }
  await startDrawing(page, 'demo-potting-bench')
  const probe: [number, number][] = [
    [206, 395],
    [318, 330],
    [560, 372],
    [380, 300],
  ]
  const wanted = await inkAt(page, ...probe)
  await startDrawing(page, { ...drawing, amendments: [] })
  await enterPass(page, 'Shapes')
  await takeUp(page, 'Front')
  await expect(page.getByTestId('overlap-count')).toContainText('23 to decide')
  await page.keyboard.press('ArrowUp')
  for (let left = 22; left >= 0; left--) {
    await page.keyboard.press('ArrowRight')
    await expect(page.getByTestId('overlap-count')).toContainText(left ? `${left} to decide` : 'nothing to decide')
  }
  expect(await inkAt(page, ...probe)).toEqual(wanted)
})
