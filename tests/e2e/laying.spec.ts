import type { Page } from '@playwright/test'
import { cubicsOfPath } from '#core/geometry/path'
import { tangentAt } from '#core/geometry/cubic'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { distance } from '#core/geometry/point'
import {
  clickAt,
  dragThrough,
  enterPass,
  inkAt,
  onScreen,
  penStroke,
  rest,
  savedLines,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'
import { expect, test } from './support/test'

/** A head of bows: its outline is drawn round, an ear is left out. */
const HEAD = [
  { x: 180, y: 90 },
  { x: 300, y: 150 },
  { x: 290, y: 290 },
  { x: 150, y: 260 },
]

const chord = (page: Page, from: { x: number; y: number }, to: { x: number; y: number }) =>
  dragThrough(page, [from, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, to])

type Straight = readonly [Vec, Vec]

/** Two straight lines, laid with the Pen, nothing chosen. */
async function layTwo(page: Page, ...lines: [Straight, Straight]): Promise<void> {
  await takeUp(page, 'Pen')
  for (const [from, to] of lines) {
    await clickAt(page, from)
    await clickAt(page, to)
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
  }
}

/** How much a joint turns, as a cosine. */
function turnAt(line: Line, node: number): number {
  const cubics = cubicsOfPath(line.path)
  const [a, b] = [
    tangentAt(cubics[(node + cubics.length - 1) % cubics.length]!, 1)!,
    tangentAt(cubics[node % cubics.length]!, 0)!,
  ]
  return a.x * b.x + a.y * b.y
}

test('four bows round a head close into one line, with a chord taken back and brought again on the way', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Bow')
  await chord(page, HEAD[0]!, HEAD[1]!)
  await dragThrough(page, [
    { x: 240, y: 120 },
    { x: 250, y: 110 },
    { x: 262, y: 96 },
  ])
  await chord(page, HEAD[1]!, HEAD[2]!)
  await dragThrough(page, [
    { x: 295, y: 220 },
    { x: 310, y: 222 },
    { x: 330, y: 224 },
  ])
  await chord(page, HEAD[2]!, { x: 210, y: 330 })
  await page.keyboard.press('Control+z')
  await chord(page, HEAD[2]!, HEAD[3]!)
  await dragThrough(page, [
    { x: 220, y: 275 },
    { x: 214, y: 290 },
    { x: 208, y: 312 },
  ])
  await chord(page, HEAD[3]!, { x: HEAD[0]!.x + 4, y: HEAD[0]!.y - 3 })
  // What closed is a bow like the others.
  await dragThrough(page, [
    { x: 165, y: 175 },
    { x: 140, y: 165 },
    { x: 112, y: 160 },
  ])
  expect(await savedLines(page)).toHaveLength(0)
  await page.keyboard.press('Enter')
  const [line] = await savedLines(page)
  expect(line!.path.closed).toBe(true)
  for (const p of HEAD)
    expect(Math.min(...line!.path.nodes.map((n) => distance(n.at, p))), `${p.x}, ${p.y}`).toBeLessThan(1)
  const first = line!.path.nodes.findIndex((n) => distance(n.at, HEAD[0]!) < 1)
  expect(line!.path.nodes[first]!.joint).toBe('smooth')
  expect(turnAt(line!, first)).toBeGreaterThan(0.999)
  await undo(page, 1)
  expect(await savedLines(page)).toHaveLength(0)
})

test('a bow goes on from the end of a line, whose weight stays where it is', async ({ page }) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  for (const p of [
    { x: 90, y: 200 },
    { x: 160, y: 140 },
    { x: 260, y: 150 },
  ])
    await clickAt(page, p)
  await page.keyboard.press('Enter')
  await enterPass(page, 'Weight')
  await page.keyboard.press('n')
  const [before] = await savedLines(page)
  expect(before!.weight.stops.length).toBeGreaterThan(2)
  await enterPass(page, 'Lines')
  await takeUp(page, 'Bow')
  // The mark stands beyond the end.
  await chord(page, { x: 269, y: 151 }, { x: 420, y: 210 })
  await page.keyboard.press('Enter')
  const [after, none] = await savedLines(page)
  expect(none).toBeUndefined()
  expect(after!.path.nodes.length).toBeGreaterThan(3)
  const lengthOf = (l: Line): number => cubicsOfPath(l.path).reduce((sum, c) => sum + distance(c.p0, c.p3), 0)
  const at = (l: Line, i: number): number => l.weight.stops[i]!.at * lengthOf(l)
  for (const i of before!.weight.stops.keys()) expect(at(after!, i)).toBeCloseTo(at(before!, i), 0)
})

test('a cloud drawn freehand closes, stays open with Ctrl, and is opened and closed again', async ({ page }) => {
  await startDrawing(page)
  await takeUp(page, 'Freehand')
  const cloud = Array.from({ length: 60 }, (_, i) => {
    const a = (i / 59) * 2 * Math.PI
    const r = 80 + 12 * Math.sin(5 * a)
    return { x: 240 + 1.3 * r * Math.cos(a), y: 190 + r * Math.sin(a), pressure: 0.3 + 0.4 * (i / 59) }
  })
  await penStroke(page, cloud)
  const [line] = await savedLines(page)
  expect(line!.path.closed).toBe(true)
  for (const i of line!.path.nodes.keys())
    if (line!.path.nodes[i]!.joint === 'smooth') expect(turnAt(line!, i)).toBeGreaterThan(0.99)
  const stops = [...line!.weight.stops].sort((a, b) => a.at - b.at)
  expect(Math.abs(stops[0]!.left - stops.at(-1)!.left)).toBeLessThan(0.1)
  await page.keyboard.down('Control')
  await dragThrough(
    page,
    cloud.map((p) => ({ ...p, x: p.x + 300 })),
    1,
  )
  await page.keyboard.up('Control')
  expect((await savedLines(page))[1]!.path.closed).toBe(false)
  await page.getByRole('button', { name: 'Last stroke' }).click()
  await page.getByLabel('Closed').check()
  await expect.poll(async () => (await savedLines(page))[1]!.path.closed).toBe(true)
  await undo(page, 1)
  await expect.poll(async () => (await savedLines(page))[1]!.path.closed).toBe(false)
})

test('a line that Escape drops comes back with undo, still under way; mended, and another instrument held meanwhile', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  const at = [
    { x: 100, y: 100 },
    { x: 180, y: 130 },
    { x: 260, y: 90 },
    { x: 300, y: 190 },
  ]
  for (const p of at) await clickAt(page, p)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Enter')
  expect(await savedLines(page)).toHaveLength(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByTestId('hint')).toContainText('Enter: finish')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(page.getByTestId('hint')).not.toContainText('Enter: finish')
  await undo(page, 1)
  await expect(page.getByTestId('hint')).toContainText('Enter: finish')
  // Another instrument, held: the line waits for it.
  await page.keyboard.down('q')
  await rest(page, 320)
  await expect(page.getByTestId('hint')).not.toContainText('Enter: finish')
  await page.keyboard.up('q')
  await expect(page.getByTestId('hint')).toContainText('Enter: finish')
  // A node is moved, another taken out, and the pen goes on from the open end.
  const over = async (p: { x: number; y: number }): Promise<void> => {
    const s = await onScreen(page, p)
    await page.mouse.move(s.x + 1, s.y)
    await page.mouse.move(s.x, s.y)
  }
  await page.keyboard.down('Alt')
  await over(at[1]!)
  await dragThrough(page, [at[1]!, { x: 175, y: 150 }, { x: 170, y: 170 }])
  await over(at[2]!)
  await clickAt(page, at[2]!)
  await page.keyboard.up('Alt')
  await clickAt(page, { x: 400, y: 210 })
  await page.keyboard.press('Enter')
  const [line] = await savedLines(page)
  expect(line!.path.nodes.map((n) => [Math.round(n.at.x), Math.round(n.at.y)])).toEqual([
    [100, 100],
    [170, 170],
    [300, 190],
    [400, 210],
  ])
  // A chain of bows likewise.
  await takeUp(page, 'Bow')
  await chord(page, { x: 100, y: 300 }, { x: 200, y: 320 })
  await chord(page, { x: 200, y: 320 }, { x: 300, y: 300 })
  await page.keyboard.press('Escape')
  await undo(page, 1)
  await page.keyboard.press('Enter')
  expect((await savedLines(page))[1]!.path.nodes).toHaveLength(3)
  // A drag of nodes that Escape drops comes back as the step that it would have been.
  await takeUp(page, 'Nodes')
  const [from, to] = [await onScreen(page, { x: 300, y: 300 }), await onScreen(page, { x: 340, y: 260 })]
  const lastNode = async () => (await savedLines(page))[1]!.path.nodes[2]!.at.x
  await page.mouse.move(from.x + 2, from.y)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + 10, from.y - 10)
  await page.mouse.move(to.x, to.y)
  await page.keyboard.press('Escape')
  await page.mouse.up()
  expect(await lastNode()).toBeCloseTo(300, 0)
  await undo(page, 1)
  await expect.poll(lastNode).toBeGreaterThan(330)
  await undo(page, 1)
  await expect.poll(lastNode).toBeLessThan(301)
})

test('a look from far is over when its key is let go; the view before comes back; the small picture grows', async ({
  page,
}) => {
  await startDrawing(page, 'demo-pea-pod')
  const canvas = page.getByTestId('canvas')
  const view = () => canvas.getAttribute('data-view')
  for (let i = 0; i < 5; i++) await page.keyboard.press('+')
  await page.keyboard.press('.')
  await rest(page, 800)
  const near = await view()
  await page.keyboard.down('0')
  await rest(page, 350)
  expect(await view()).not.toBe(near)
  await page.keyboard.up('0')
  expect(await view()).toBe(near)
  await page.keyboard.press('9')
  await rest(page, 800)
  const far = await view()
  expect(far).not.toBe(near)
  await page.keyboard.press('8')
  expect(await view()).toBe(near)
  await page.keyboard.press('8')
  expect(await view()).toBe(far)
  const size = page.getByTestId('distance-size')
  const picture = page.getByTestId('distance-view')
  const small = (await picture.boundingBox())!
  const corner = (await size.boundingBox())!
  await page.mouse.move(corner.x + 8, corner.y + 16)
  await page.mouse.down()
  await page.mouse.move(corner.x - 150, corner.y + 60, { steps: 5 })
  await page.mouse.up()
  const large = (await picture.boundingBox())!
  expect(large.width).toBeGreaterThan(small.width + 100)
  const dark = () =>
    page.getByRole('img', { name: 'The whole drawing, small' }).evaluate((c: HTMLCanvasElement) => {
      const dots = c.getContext('2d')!.getImageData(0, 0, c.width, c.height).data
      return dots.filter((v, i) => i % 4 === 3 && v > 128).length
    })
  await expect.poll(dark).toBeGreaterThan(1000)
  const ink = await dark()
  await page.getByTestId('distance-ground').click()
  await page.getByTestId('distance-ground').click()
  await expect.poll(dark).toBeGreaterThan(ink * 2)
  await page.reload()
  await expect.poll(async () => (await picture.boundingBox())!.width).toBeCloseTo(large.width, 0)
})

test('a word takes one anywhere; ends of many are joined in one step; a stretch is weighed', async ({ page }) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  for (const [from, to] of [
    [
      { x: 100, y: 100 },
      { x: 220, y: 90 },
    ],
    [
      { x: 300, y: 200 },
      { x: 220.2, y: 90 },
    ],
    [
      { x: 302, y: 204 },
      { x: 120, y: 230 },
    ],
  ] as const) {
    await page.keyboard.down('Control')
    await clickAt(page, from)
    await clickAt(page, to)
    await page.keyboard.up('Control')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
  }
  await page.keyboard.press('i')
  await page.getByTestId('ask').fill('fig')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('i')
  await page.getByTestId('ask').fill('select choose li')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Join', exact: true }).click()
  await expect(page.getByTestId('notice')).toContainText('1 pair of ends joined: 3 lines are 2 now')
  await page.getByRole('button', { name: 'Close small gaps' }).click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  await undo(page, 2)
  await expect.poll(async () => (await savedLines(page)).length).toBe(3)
  await page.keyboard.press('Control+Shift+Z')
  await page.keyboard.press('Control+Shift+Z')
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  // A stretch of it, by hand and by a figure.
  await page.keyboard.press('i')
  await page.getByTestId('ask').fill('caliper')
  await page.keyboard.press('Enter')
  await dragThrough(page, [
    { x: 130, y: 98 },
    { x: 160, y: 96 },
    { x: 200, y: 93 },
  ])
  await expect(page.getByTestId('hint')).toContainText('across')
  const { stops } = (await savedLines(page))[0]!.weight
  await page.keyboard.press('Enter')
  await page.keyboard.type('180')
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await savedLines(page))[0]!.weight.stops.length).toBeGreaterThan(stops.length + 1)
  const now = (await savedLines(page))[0]!.weight.stops
  expect(Math.max(...now.map((s) => s.left))).toBeCloseTo(1.8, 1)
  expect(Math.min(...now.map((s) => s.left))).toBeCloseTo(1, 1)
  await undo(page, 1)
  await expect.poll(async () => (await savedLines(page))[0]!.weight.stops).toEqual(stops)
})

test('what is copied comes in at the pointer, steps on, or exactly in place; a duplicate that was moved goes on', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  await clickAt(page, { x: 100, y: 100 })
  await clickAt(page, { x: 160, y: 120 })
  await page.keyboard.press('Enter')
  await takeUp(page, 'Select')
  await page.keyboard.press('Control+c')
  const s = await onScreen(page, { x: 400, y: 300 })
  await page.mouse.move(s.x, s.y)
  for (const keys of ['Control+v', 'Control+v', 'Control+Shift+V']) await page.keyboard.press(keys)
  const starts = async () =>
    (await savedLines(page)).map((l) => [Math.round(l.path.nodes[0]!.at.x), Math.round(l.path.nodes[0]!.at.y)])
  expect(await starts()).toEqual([
    [100, 100],
    [370, 290],
    [382, 302],
    [100, 100],
  ])
  await undo(page, 3)
  await clickAt(page, { x: 130, y: 110 })
  await page.keyboard.press('Control+d')
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowDown')
  await page.keyboard.press('Control+d')
  expect(await starts()).toEqual([
    [100, 100],
    [112, 152],
    [124, 204],
  ])
})

test('a layer unfolds to its lines: found both ways, named, hidden and locked one by one', async ({ page }) => {
  await startDrawing(page)
  await layTwo(page, [HEAD[0]!, HEAD[1]!], [HEAD[2]!, HEAD[3]!])
  await page.getByRole('button', { name: /^Lines of / }).click()
  const rows = page.getByTestId('layer-lines').locator('[data-line]')
  await expect(rows).toHaveCount(2)
  const [below, above] = await savedLines(page)
  await expect(rows.first()).toHaveAttribute('data-line', above!.id)
  await expect(rows.first()).toContainText('free')
  await rows.nth(1).getByRole('button', { pressed: false }).first().dblclick()
  await page.getByLabel('Name of the line').fill('Brow')
  await page.keyboard.press('Enter')
  await expect(rows.nth(1)).toContainText('Brow')
  await expect(rows.nth(1)).toHaveClass(/bg-blush/)
  // What lies under the pointer on the canvas is pointed out in the list.
  await takeUp(page, 'Select')
  const on = await onScreen(page, { x: 220, y: 275 })
  await page.mouse.move(on.x, on.y)
  await expect(rows.first()).toHaveClass(/bg-panel/)
  // Hidden it leaves no ink; locked it stays where it is. Both are steps.
  await page.getByRole('button', { name: 'Hide Brow' }).click()
  await expect.poll(() => inkAt(page, [240, 120], [220, 275])).toEqual([false, true])
  await undo(page, 1)
  await expect.poll(() => inkAt(page, [240, 120], [220, 275])).toEqual([true, true])
  await enterPass(page, 'Lines')
  await page.getByRole('button', { name: 'Lock Brow' }).click()
  await takeUp(page, 'Select')
  await dragThrough(page, [
    { x: 240, y: 120 },
    { x: 260, y: 160 },
    { x: 280, y: 200 },
  ])
  expect((await savedLines(page)).find((l) => l.id === below!.id)!.path).toEqual(below!.path)
  await undo(page, 1)
  await dragThrough(page, [
    { x: 240, y: 120 },
    { x: 260, y: 160 },
    { x: 280, y: 200 },
  ])
  await expect.poll(async () => (await savedLines(page)).find((l) => l.id === below!.id)!.path).not.toEqual(below!.path)
})

test('what is moved comes in line with an end that lies near, with how far off that is; not while Ctrl is held', async ({
  page,
}) => {
  await startDrawing(page)
  await layTwo(page, [HEAD[0]!, HEAD[1]!], [HEAD[3]!, HEAD[2]!])
  await takeUp(page, 'Select')
  await page.getByRole('button', { name: /^Snapping/ }).click()
  await page.getByLabel('In line with what lies near').check()
  await page.keyboard.press('Escape')
  // By 33 px to the right the left end of the lower line is upright below that of the upper one, at 180, but for 3 px.
  const [grab, to] = [await onScreen(page, { x: 220, y: 275 }), await onScreen(page, { x: 253, y: 285 })]
  await page.mouse.move(grab.x, grab.y)
  await page.mouse.down()
  await page.mouse.move(grab.x + 12, grab.y + 4)
  await page.mouse.move(to.x, to.y)
  await page.mouse.up()
  const end = async () => (await savedLines(page))[1]!.path.nodes[0]!.at
  // The grid of the document is 1e-5 px fine.
  await expect.poll(async () => Math.abs((await end()).x - 180)).toBeLessThan(1e-4)
  await undo(page, 1)
  await expect.poll(async () => Math.abs((await end()).x - 150)).toBeLessThan(1e-4)
  await page.mouse.move(grab.x, grab.y)
  await page.mouse.down()
  await page.keyboard.down('Control')
  await page.mouse.move(grab.x + 12, grab.y + 4)
  await page.mouse.move(to.x, to.y)
  await page.mouse.up()
  await page.keyboard.up('Control')
  await expect.poll(async () => Math.round((await end()).x)).toBe(183)
})
