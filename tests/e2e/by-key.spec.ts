import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { savedDrawing, savedLines, startDrawing, textOf } from './support/desk'

/** Presses keys one after another, "n x Key" for several of the same. */
async function keys(page: Page, text: string): Promise<void> {
  for (const word of text.split(' ')) {
    const [, times, key] = /^(?:(\d+)x)?(.+)$/.exec(word)!
    for (let i = 0; i < Number(times ?? 1); i++) await page.keyboard.press(key!)
  }
}

/** Holds Space, the press of the hand that keys move, over other keys. */
async function dragging(page: Page, text: string): Promise<void> {
  await page.keyboard.down('Space')
  await keys(page, text)
  await page.keyboard.up('Space')
}

/** Takes the hand on keys to the next thing of a kind. */
async function goTo(page: Page, what: RegExp): Promise<void> {
  for (let i = 0; i < 40; i++) {
    await page.keyboard.press('o')
    if (what.test((await page.getByTestId('spoken').textContent())!)) return
  }
  throw new Error(`There is no ${String(what)}`)
}

const lines = async (page: Page) => await savedLines(page)

test('every instrument of Lines does its work by keys alone', async ({ page }) => {
  await startDrawing(page)
  // Pen: two clicks; P takes the hand up in the middle of the view.
  await keys(page, 'w p 4xShift+ArrowLeft Space 8xShift+ArrowRight Space Enter')
  await expect(page.getByTestId('key-hand')).toBeVisible()
  expect((await lines(page)).map((l) => l.path.nodes.length)).toEqual([2])
  // Bow: a chord across, pulled at its middle, which O finds.
  await keys(page, 'e 4xShift+ArrowLeft 4xShift+ArrowUp')
  await dragging(page, '6xShift+ArrowDown')
  await goTo(page, /bow/)
  await dragging(page, '8xArrowRight')
  await keys(page, 'Enter Escape')
  const bowed = (await lines(page))[1]!
  expect(bowed.path.nodes.some((n) => n.out)).toBe(true)
  // Freehand: Space is the pen on the paper.
  await keys(page, 'r p 3xShift+ArrowDown')
  await dragging(page, '6xArrowRight 4xArrowDown 6xArrowRight')
  await expect.poll(async () => (await lines(page)).length).toBe(3)
  // Nodes: J chooses a line, O goes to its nodes.
  await keys(page, 'Escape j t p o')
  const before = await lines(page)
  await dragging(page, '3xArrowUp')
  const after = await lines(page)
  expect(after.filter((l, i) => JSON.stringify(l.path) !== JSON.stringify(before[i]!.path))).toHaveLength(1)
  // Figure.
  await keys(page, 'y 4xShift+ArrowUp')
  await dragging(page, '3xShift+ArrowRight 2xShift+ArrowDown')
  expect(await lines(page)).toHaveLength(4)
  // Snip: the end beyond the crossing of the first two lines.
  await keys(page, 'p Shift+Q p')
  await goTo(page, /line, 1 of/)
  await keys(page, '3xShift+ArrowRight Space')
  expect((await lines(page)).flatMap((l) => l.snips)).toHaveLength(1)
  // Blot, and Scrape over it.
  await keys(page, 'Shift+W 4xShift+ArrowDown')
  await dragging(page, '5xArrowRight')
  const blots = (d: Awaited<ReturnType<typeof savedDrawing>>) =>
    d.layers.flatMap((l) => (l.kind === 'fills' || l.kind === 'shapes' ? l.items : []))
  const [blot] = blots(await savedDrawing(page))
  await keys(page, 'Shift+E')
  await dragging(page, '8xArrowLeft')
  expect(blots(await savedDrawing(page))[0]?.contours).not.toEqual(blot!.contours)
  // Undo with Space down drops only what is under the hand.
  const steps = await savedDrawing(page)
  await keys(page, 'r')
  await page.keyboard.down('Space')
  await keys(page, '4xArrowRight Control+z')
  await page.keyboard.up('Space')
  expect(await savedDrawing(page)).toEqual(steps)
  // Practice draws where its pen is.
  await keys(page, 'Shift+R')
  await expect(page.getByTestId('hint')).toContainText('in its own place')
  await keys(page, 'Enter')
  await expect.poll(async () => (await lines(page)).length).toBe(5)
})

test('every instrument of Weight does its work by keys alone', async ({ page }) => {
  await startDrawing(page)
  await keys(page, 'w p 4xShift+ArrowLeft Space 8xShift+ArrowRight Space Enter Escape')
  await keys(page, 'p 3xShift+ArrowUp 4xShift+ArrowLeft Space 6xShift+ArrowDown Space Enter Escape')
  // An ellipse has an outside, which light needs.
  await keys(page, 'y p 2xShift+ArrowRight')
  await dragging(page, '2xShift+ArrowRight 2xShift+ArrowDown')
  await keys(page, 'Escape Escape')
  const weights = async () => (await lines(page)).map((l) => l.weight)
  await keys(page, '3 w j p')
  // Caliper: the line is pulled wider where the hand is; the mark at an end is pulled inwards for a taper.
  await goTo(page, /start without a taper/)
  await keys(page, '9xArrowRight')
  await dragging(page, '4xArrowUp')
  expect(Math.max(...(await weights())[0]!.stops.map((s) => s.left))).toBeGreaterThan(1.5)
  await goTo(page, /start without a taper/)
  await dragging(page, '2xShift+ArrowRight')
  expect((await weights())[0]!.start?.length).toBeGreaterThan(50)
  // Contact: Enter accepts what it found.
  await keys(page, 'p Escape Escape r Enter')
  expect((await weights())[1]!.start?.length).toBeGreaterThan(0)
  // Light: arrows move it, Enter takes it.
  const dull = await weights()
  await keys(page, 'Escape t 30xShift+ArrowLeft Enter')
  expect(await weights()).not.toEqual(dull)
  // Sweep: a weight is copied from the first line and painted on the second.
  await keys(page, 'q j Shift+C Escape y p')
  await keys(page, 'o o')
  await dragging(page, '4xArrowDown 4xArrowUp')
  const [first, second] = await weights()
  expect(second!.stops.length).toBe(first!.stops.length)
})

test('from an empty Desk to a file with the keyboard, by Tab, Enter and the keys', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible()
  await tabTo(page, 'New drawing')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('canvas')).toBeVisible()
  await keys(page, '2 w p 4xShift+ArrowLeft Space 8xShift+ArrowRight Space Enter Escape Escape')
  // The taper of the line, from the strip and back.
  await keys(page, '3 j s')
  await tabTo(page, 'Tapers')
  await page.keyboard.press('Enter')
  // The menu has the keyboard at its first tick.
  await tabTo(page, 'End')
  await page.keyboard.press('Space')
  await keys(page, 'Escape Escape')
  expect((await lines(page))[0]!.weight.end).not.toBeNull()
  // A width stop in the graph.
  await page.keyboard.press('s')
  await tabTo(page, 'Add stop')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await page.keyboard.press('s')
  await tabTo(page, /^Width stop 2/)
  await keys(page, '5xShift+ArrowUp Escape Escape')
  expect((await lines(page))[0]!.weight.stops[1]!.left).toBeGreaterThan(1.4)
  await keys(page, '6')
  await tabTo(page, /^Download/)
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')])
  expect(await textOf(download)).toContain('<path')
})

/** Presses Tab until what has the focus is called so. */
async function tabTo(page: Page, name: string | RegExp, most = 60): Promise<number> {
  for (let n = 1; n <= most; n++) {
    await page.keyboard.press('Tab')
    const label = await page.evaluate(() => {
      const el = document.activeElement as HTMLInputElement
      return (el.getAttribute('aria-label') ?? el.labels?.[0]?.textContent ?? el.textContent ?? '').trim()
    })
    if (typeof name === 'string' ? label === name : name.test(label)) return n
  }
  throw new Error(`${String(name)} is not reached by Tab`)
}
