import type { Page } from '@playwright/test'
import { newLine, newDrawing, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import { enterPass, linesOf, savedDrawing, startDrawing, takeUp } from './support/desk'
import { expect, test } from './support/test'

const bar = (id: string, ...points: [number, number][]): Line =>
  newLine(
    { nodes: points.map(([x, y]) => ({ at: { x, y }, in: null, out: null, joint: 'corner' as const })), closed: true },
    { id },
  )
const boxes = (): Drawing =>
  newDrawing('Boxes', {
    layers: [
      newLinesLayer('Lines', [
        bar('a', [100, 100], [260, 110], [250, 260], [90, 240]),
        bar('b', [340, 90], [520, 120], [480, 300]),
      ]),
    ],
  })

/** Whether some button has the keyboard. */
const heldByButton = (page: Page): Promise<boolean> => page.evaluate(() => !!document.activeElement?.matches('button'))

test('after a menu was closed with Esc, Enter pours what Flats announces', async ({ page }) => {
  await startDrawing(page, boxes())
  await enterPass(page, 'Fill')
  await takeUp(page, 'Flats')
  // Only the lines' ink is there: inks to begin with, in one press.
  await expect(page.getByTestId('trial')).toContainText('Take starter inks')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('starter-inks')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await page.getByTestId('starter-inks').click()
  await expect(page.getByTestId('starter-inks')).toHaveCount(0)
  await expect(page.getByTestId('trial')).toContainText('2 regions would be poured')
  await page.getByRole('button', { name: 'Palettes' }).click()
  await page.getByRole('button', { name: 'Keep these inks' }).waitFor()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Keep these inks' })).toHaveCount(0)
  await expect.poll(() => heldByButton(page)).toBe(false)
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await savedDrawing(page)).fills?.length).toBe(2)
  await page.keyboard.press('Control+Z')
  await page.keyboard.press('Control+Z')
  const back = await savedDrawing(page)
  expect([back.fills, back.inks.length, linesOf(back).length]).toEqual([undefined, 1, 2])
})

test('no menu, popover or dialog of any pass keeps the keyboard once it is closed, nor does a button that was pressed', async ({
  page,
}) => {
  await startDrawing(page, boxes())
  for (const pass of ['Sketch', 'Lines', 'Weight', 'Shapes', 'Fill', 'Deliver']) {
    await enterPass(page, pass)
    const openers = page.locator('[aria-haspopup]:visible, [aria-expanded]:visible')
    const count = await openers.count()
    for (let i = 0; i < count; i++) {
      const opener = openers.nth(i)
      if (!(await opener.isEnabled()) || !(await opener.evaluate((e) => e.matches('button')))) continue
      const name = `${pass}: ${(await opener.getAttribute('aria-label')) ?? (await opener.textContent())}`
      await opener.click()
      await page.keyboard.press('Escape')
      await expect.poll(() => heldByButton(page), { message: name }).toBe(false)
      if ((await opener.getAttribute('aria-expanded')) === 'true') await opener.click()
    }
  }
  // By keys alone a button keeps it, and Esc gives it to the drawing.
  await enterPass(page, 'Fill')
  const palettes = page.getByRole('button', { name: 'Palettes' })
  await page.getByTestId('strip').getByRole('button').first().focus()
  await page.keyboard.press('Tab')
  await palettes.focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Keep these inks' }).waitFor()
  await page.keyboard.press('Escape')
  await expect(palettes).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('canvas')).toBeFocused()
  // Also where the key comes within the frame of a press of the pointer, which takes its keyboard back a little later.
  const held = await page.evaluate(async () => {
    const of = (test: string): HTMLElement => document.querySelector(`[data-testid="${test}"]`)!
    of('strip').dispatchEvent(new MouseEvent('mousedown', { bubbles: true }))
    of('strip').click()
    of('canvas').dispatchEvent(new KeyboardEvent('keydown', { key: 's', bubbles: true }))
    for (let i = 0; i < 4; i++) await new Promise(requestAnimationFrame)
    return of('strip').contains(document.activeElement)
  })
  expect(held).toBe(true)
})

test('what the hand can do now fits below the tray, for every instrument', async ({ page }) => {
  await startDrawing(page, boxes())
  for (const size of [
    { width: 1280, height: 800 },
    { width: 1024, height: 700 },
  ]) {
    await page.setViewportSize(size)
    for (const pass of ['Sketch', 'Lines', 'Weight', 'Shapes', 'Fill']) {
      await enterPass(page, pass)
      const tools = page.getByTestId('tray').getByRole('toolbar').getByRole('button')
      for (let i = 0; i < (await tools.count()); i++) {
        await tools.nth(i).click()
        const fits = await page
          .getByTestId('hint')
          .evaluate((e) => e.scrollHeight <= e.clientHeight && e.getBoundingClientRect().bottom <= innerHeight)
        expect(
          fits,
          `${pass}: ${await tools.nth(i).textContent()}: ${await page.getByTestId('hint').textContent()}`,
        ).toBe(true)
      }
    }
  }
})

test('the picture of a checkpoint that could not be had at once is asked for again', async ({ page }) => {
  await startDrawing(page, boxes())
  let asked = 0
  await page.route('**/checkpoints/*/picture*', (route) => (asked++ ? route.continue() : route.abort()))
  await enterPass(page, 'Deliver')
  await page.getByRole('button', { name: 'History' }).click()
  const picture = page.getByTestId('history').locator('img').first()
  await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth > 0).catch(() => false)).toBe(true)
  expect(asked).toBeGreaterThan(1)
})

test('word of long work stands below the guide, not beneath it', async ({ page }) => {
  await startDrawing(page)
  await expect(page.getByTestId('guide')).toBeVisible()
  // Nothing is drawn over the sentence of the guide, and it takes a row of its own.
  const rows = await page
    .getByTestId('guide')
    .evaluate((e) => [...e.parentElement!.children].map((c) => c.getBoundingClientRect().toJSON() as DOMRect))
  for (const [i, r] of rows.entries())
    for (const other of rows.slice(i + 1)) expect(r.bottom).toBeLessThanOrEqual(other.top)
  expect(await page.getByTestId('guide').evaluate((e) => getComputedStyle(e.parentElement!).flexDirection)).toBe(
    'column',
  )
})
