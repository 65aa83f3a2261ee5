import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { clickAt, drag, enterPass, startDrawing, takeUp } from './support/desk'

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

async function expectOpen(page: Page, where: string): Promise<void> {
  expect(await barriers(page), where).toEqual([])
  expect(await smallTargets(page), where).toEqual([])
}

/** What is done with an instrument in hand before it is looked at. */
type Prepared = [instrument: string, prepare?: (page: Page) => Promise<void>]
const INSTRUMENTS: [pass: string, ...Prepared[]][] = [
  [
    'Lines',
    ['Select', (page) => page.keyboard.press('Control+a')],
    ['Bow'],
    ['Freehand'],
    ['Nodes', (page) => drag(page, 200, 60, 420, 200)],
    ...['Figure', 'Snip', 'Blot', 'Scrape', 'Practice', 'Propose'].map((name): Prepared => [name]),
  ],
  ['Weight', ['Contact'], ['Light'], ['Sweep'], ['Match'], ['Caliper', (page) => clickAt(page, { x: 428, y: 362 })]],
  ['Shapes', ['Trim'], ['Fence'], ['Corner']],
  ['Fill', ['Shade'], ['Flats'], ['Glow']],
]
const MENUS: Record<string, string[]> = {
  Weight: ['Tapers', 'Finish', 'History'],
  Fill: ['Change Black', 'Palettes'],
}

test('no screen has a serious barrier', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByTestId('card').first()).toBeVisible()
  expect(await barriers(page)).toEqual([])
  await startDrawing(page, 'demo-radish-bunch')
  for (const pass of ['Sketch', 'Lines', 'Weight', 'Shapes', 'Fill', 'Deliver']) {
    await enterPass(page, pass)
    await expectOpen(page, pass)
  }
})

for (const [pass, ...instruments] of INSTRUMENTS)
  test(`nor has any instrument or menu of ${pass}`, async ({ page }) => {
    await startDrawing(page, 'demo-radish-bunch')
    await enterPass(page, pass)
    for (const [instrument, prepare] of instruments) {
      await takeUp(page, instrument)
      await prepare?.(page)
      await expectOpen(page, instrument)
    }
    for (const menu of MENUS[pass] ?? []) {
      await page.getByRole('button', { name: menu, exact: true }).click()
      expect(await barriers(page), menu).toEqual([])
      await page.keyboard.press('Escape')
    }
  })

test('nor have Proof, menus, the wipe and the card of keys', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Lines')
  await takeUp(page, 'Bow')
  // Something for Proof, which is opened.
  await drag(page, 30, 40, 120, 44)
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /^Blunt end/ }).click()
  await expectOpen(page, 'proof')
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
  await page.keyboard.press('Escape')
  await enterPass(page, 'Weight')
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
  await expectOpen(page, 'shelves')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  expect(await barriers(page), 'backup').toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Deliver as zip …' }).click()
  expect(await barriers(page), 'many').toEqual([])
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Deliver')
  for (const kind of ['Print', 'Picture', 'Live lines', 'Pen traces', 'Everything']) {
    await page.getByRole('radio', { name: new RegExp(kind) }).click()
    await expectOpen(page, kind)
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

/** Opens each pane that comes up from a button, by key, and looks whether all of it is in the window. */
async function expectPanesInWindow(page: Page, where: string): Promise<void> {
  const openers = page.locator('button[aria-expanded="false"]:not(:disabled):visible')
  for (let i = 0; i < (await openers.count()); i++) {
    const opener = openers.nth(i)
    const name = `${where}: ${(await opener.textContent())!.trim() || (await opener.getAttribute('aria-label'))!}`
    // What is open is no opener any more, and `nth` another one.
    const button = (await opener.elementHandle())!
    await button.press('Enter')
    await expect
      .poll(async () => !(await button.isVisible()) || (await button.getAttribute('aria-expanded')), name)
      .not.toBe('false')
    const pane = page.locator('.pop')
    if (!(await pane.count())) continue
    const { width, height } = page.viewportSize()!
    await expect
      .poll(async () => {
        const box = (await pane.first().boundingBox())!
        return [box.x >= 0, box.y >= 0, box.x + box.width <= width, box.y + box.height <= height]
      }, name)
      .toEqual([true, true, true, true])
    await page.keyboard.press('Escape')
    await expect(pane, name).toHaveCount(0)
  }
}

for (const [width, height] of [
  [820, 1180],
  [640, 480],
  [1024, 640],
  [1366, 625],
  [2560, 1440],
] as const)
  test(`a window of ${width} x ${height} has no barrier, and its Strip comes up and goes by key`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await page.goto('/')
    await expect(page.getByTestId('card').first()).toBeVisible()
    await expectOpen(page, 'the Desk')
    await startDrawing(page, 'demo-radish-bunch')
    await page.getByLabel('Keys on the screen').click()
    for (const pass of ['Lines', 'Weight', 'Shapes', 'Fill', 'Deliver']) {
      await enterPass(page, pass)
      if (pass !== 'Deliver') {
        await page.getByTestId('canvas').focus()
        await page.keyboard.press('s')
        await expect(page.getByTestId('strip')).toBeVisible()
        await expect
          .poll(() =>
            page.evaluate(() => !!document.activeElement?.closest('[data-testid="strip"], [data-testid="tray"]')),
          )
          .toBe(true)
      }
      await expectOpen(page, pass)
      if (pass === 'Deliver') continue
      await expectPanesInWindow(page, pass)
      await page.getByTestId('canvas').focus()
      await page.keyboard.press('s')
      await page.keyboard.press('Escape')
      await expect(page.getByTestId('canvas')).toBeFocused()
      if (height < 700) await expect(page.getByTestId('strip')).toHaveCount(0)
    }
  })
