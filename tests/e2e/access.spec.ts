import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { clickAt, dragThrough, enterPass, startDrawing, takeUp } from './support/desk'

/** What a check of the page finds that keeps people out, in words. */
async function barriers(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze()
  return violations.flatMap((v) =>
    v.impact === 'serious' || v.impact === 'critical' ? v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 120)}`) : [],
  )
}

/** Controls in sight that are narrower or lower than 24 px, other than words within a sentence. A tick is as large as its label. */
const smallTargets = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        'button, a, input:not([type="file"]), select, [role="slider"], [role="radio"]',
      ),
    ]
      .filter((e) => e.checkVisibility() && !e.closest('p'))
      .map((e) => ({ e, box: (e.closest('label:has(> input[type="checkbox"])') ?? e).getBoundingClientRect() }))
      .filter(({ box }) => box.width > 0 && (box.width < 23.5 || box.height < 23.5) && box.width !== 1)
      .map(
        ({ e, box }) =>
          `${e.getAttribute('aria-label') ?? e.textContent?.trim()} ${box.width.toFixed()} x ${box.height.toFixed()}`,
      ),
  )

test('no screen has a serious barrier', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByTestId('card').first()).toBeVisible()
  expect(await barriers(page)).toEqual([])
  await startDrawing(page, 'demo-radish-bunch')
  for (const pass of ['Sketch', 'Lines', 'Weight', 'Shapes', 'Fill', 'Deliver']) {
    await enterPass(page, pass)
    if (pass === 'Weight') await clickAt(page, { x: 428, y: 362 })
    expect(await barriers(page), pass).toEqual([])
    expect(await smallTargets(page), pass).toEqual([])
  }
})

test('nor has any instrument of Lines', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Lines')
  for (const instrument of [
    'Select',
    'Bow',
    'Freehand',
    'Nodes',
    'Figure',
    'Snip',
    'Blot',
    'Scrape',
    'Practice',
    'Propose',
  ]) {
    await takeUp(page, instrument)
    // Nodes chosen, or a line, where the instrument shows something of its own for them.
    if (instrument === 'Select') await page.keyboard.press('Control+a')
    if (instrument === 'Nodes')
      await dragThrough(page, [
        { x: 200, y: 60 },
        { x: 420, y: 200 },
      ])
    expect(await barriers(page), instrument).toEqual([])
    expect(await smallTargets(page), instrument).toEqual([])
  }
})

test('nor has any instrument of Shapes and Fill', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Shapes')
  for (const instrument of ['Trim', 'Fence', 'Corner']) {
    await takeUp(page, instrument)
    expect(await barriers(page), instrument).toEqual([])
    expect(await smallTargets(page), instrument).toEqual([])
  }
  await enterPass(page, 'Fill')
  for (const instrument of ['Shade', 'Flats', 'Glow']) {
    await takeUp(page, instrument)
    expect(await barriers(page), instrument).toEqual([])
    expect(await smallTargets(page), instrument).toEqual([])
  }
  for (const menu of ['Change Black', 'Palettes']) {
    await page.getByRole('button', { name: menu }).click()
    expect(await barriers(page), menu).toEqual([])
    await page.keyboard.press('Escape')
  }
})

test('nor have Proof, menus and the card of keys', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Lines')
  await takeUp(page, 'Bow')
  // Something for Proof, which is opened.
  await dragThrough(page, [
    { x: 30, y: 40 },
    { x: 120, y: 44 },
  ])
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /^Blunt end/ }).click()
  expect(await barriers(page), 'proof').toEqual([])
  expect(await smallTargets(page), 'proof').toEqual([])
  await page.getByRole('button', { name: /Snapping/ }).click()
  expect(await barriers(page), 'snapping').toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Roots', exact: true }).hover()
  await page.getByRole('button', { name: 'More of Roots' }).click()
  expect(await barriers(page), 'layer').toEqual([])
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible()
  expect(await barriers(page), 'keys').toEqual([])
})

test('nor have the rules, the menus and the wipe of the Weight pass', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Weight')
  for (const instrument of ['Contact', 'Light', 'Sweep', 'Match']) {
    await takeUp(page, instrument)
    expect(await barriers(page), instrument).toEqual([])
  }
  await takeUp(page, 'Caliper')
  await clickAt(page, { x: 428, y: 362 })
  for (const menu of ['Tapers', 'Finish', 'History']) {
    await page.getByRole('button', { name: menu, exact: true }).click()
    expect(await barriers(page), menu).toEqual([])
    await page.keyboard.press('Escape')
  }
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Compare with before this visit' }).click()
  expect(await barriers(page), 'wipe').toEqual([])
})

test('nor have the Desk with drawings chosen, its dialogs, ways to deliver, and moments that are looked at', async ({
  page,
}) => {
  await page.goto('/')
  const cards = page.getByTestId('card')
  await expect(cards.first()).toBeVisible()
  await cards.first().getByRole('link').first().focus()
  await page.keyboard.press('Space')
  await page.getByRole('button', { name: 'Shelf', exact: true }).click()
  expect(await barriers(page), 'shelves').toEqual([])
  expect(await smallTargets(page), 'shelves').toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Backup', exact: true }).click()
  expect(await barriers(page), 'backup').toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Deliver as zip …' }).click()
  expect(await barriers(page), 'many').toEqual([])
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Deliver')
  for (const kind of ['Print', 'Picture', 'Live lines', 'Pen traces', 'Everything']) {
    await page.getByRole('radio', { name: new RegExp(kind) }).click()
    expect(await barriers(page), kind).toEqual([])
    expect(await smallTargets(page), kind).toEqual([])
  }
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByTestId('history').getByRole('button', { name: 'Before Deliver' }).first().click()
  await expect(page.getByTestId('look').getByRole('img')).toBeVisible()
  expect(await barriers(page), 'look').toEqual([])
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  await page.getByRole('button', { name: 'Change keys …' }).click()
  expect(await barriers(page), 'own keys').toEqual([])
})
