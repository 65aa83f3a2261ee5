import { readFileSync } from 'node:fs'
import type { Browser, Page } from '@playwright/test'
import type { Belongings } from '../../core/formats/studio/belongings'
import { NIBS } from '../../core/weight/nibs'
import type { DrawingCard } from '../../shared/desk'
import type { Seat } from '../../shared/seats'
import { expect, test } from './support/test'
import { drag, enterPass, openDrawing, savedLines, startDrawing, takeUp } from './support/desk'

const seatOf = (page: Page): Promise<string> => page.evaluate(() => localStorage.getItem('bellatrait:seat') ?? '')
const belongings = async (page: Page, seat: string): Promise<Belongings> =>
  (await (await page.request.get(`/api/seats/${seat}/belongings`)).json()) as Belongings

/** Another machine: a browser that remembers nothing. */
async function elsewhere(browser: Browser, page: Page): Promise<Page> {
  const { origin } = new URL(page.url())
  const other = await browser.newPage({ baseURL: origin, serviceWorkers: 'block' })
  await other.goto('/')
  return other
}

async function setSize(page: Page, size: string): Promise<void> {
  await enterPass(page, 'Lines')
  await takeUp(page, 'Freehand')
  const field = page.getByLabel('Size, exactly')
  await field.fill(size)
  await field.press('Enter')
  await page.getByRole('button', { name: 'Keep in this nib' }).click()
}
const expectSize = async (page: Page, size: string): Promise<void> => {
  await enterPass(page, 'Lines')
  await takeUp(page, 'Freehand')
  await expect(page.getByLabel('Size, exactly')).toHaveValue(size)
}

test('what is chosen at a seat is there on another machine, and at no other seat', async ({ page, browser }) => {
  const id = await startDrawing(page)
  const mine = await seatOf(page)
  await setSize(page, '7.25')
  await page.keyboard.press('?')
  const card = page.getByRole('dialog')
  await card.getByRole('button', { name: 'Change keys …' }).click()
  await card.getByRole('button', { name: 'Key for Weight' }).click()
  await page.keyboard.press('j')
  await card.getByRole('button', { name: 'Close' }).click()
  await expect.poll(async () => (await belongings(page, mine)).own).toContain('nibs')
  await expect.poll(async () => (await belongings(page, mine)).keys).toContainEqual({ was: '3', is: 'j' })

  const other = await elsewhere(browser, page)
  // Where there are several and nobody sits, it is asked; nothing of anybody is changed until then.
  const dialog = other.getByTestId('seats')
  await expect(dialog).toContainText('Who sits here?')
  const { name } = ((await (await page.request.get('/api/seats')).json()) as Seat[]).find((s) => s.id === mine)!
  await dialog
    .getByRole('listitem')
    .filter({ has: other.getByLabel(`Name of the seat ${name}`) })
    .getByRole('button', { name: 'Sit here' })
    .click()
  await expect(other.getByTestId('seat')).toContainText(name)
  await openDrawing(other, id)
  await expectSize(other, '7.25')
  await other.keyboard.press('j')
  await expect(other.getByRole('navigation', { name: 'Passes' }).locator('[aria-current]')).toContainText('Weight')
  // Somebody else on this machine has their own, and leaves mine alone.
  await other.goto('/')
  await other.getByTestId('seat').click()
  await other.getByLabel('Name of a new seat').fill(`Bramwell ${mine.slice(0, 6)}`)
  await other.getByRole('button', { name: 'Set it up' }).click()
  await dialog
    .getByRole('listitem')
    .filter({ has: other.getByLabel(/^Name of the seat Bramwell/) })
    .last()
    .getByRole('button', { name: 'Sit here' })
    .click()
  await expect(other.getByTestId('seat')).toContainText('Bramwell')
  await openDrawing(other, id)
  await expectSize(other, '6.00')
  await setSize(other, '3.00')
  await other.waitForRequest((r) => r.method() === 'PATCH' && r.url().includes('/belongings'))
  await page.reload()
  await expectSize(page, '7.25')
  await other.context().close()
})

test('what a browser remembered before there were seats comes over once, and writes over nothing', async ({ page }) => {
  const nib = { id: 'quill', name: 'Seed quill', size: 4.5, variation: 0.2, roundness: 0.5, angle: 12 }
  const palette = { name: 'Hedge row', inks: [{ name: 'Leaf', colour: '#3a5a2a' }] }
  await page.addInitScript(
    ([studio, keys]) => {
      if (location.origin === 'null' || localStorage.getItem('bellatrait:moved')) return
      localStorage.setItem('bellatrait:studio', studio!)
      localStorage.setItem('bellatrait:keys', keys!)
      localStorage.setItem('bellatrait:desk-order', 'name')
      localStorage.setItem('bellatrait:own-page', '{"width":91,"height":40}')
    },
    [
      JSON.stringify({
        ...{ size: 4.5, nib: 'quill', nibs: [nib], palettes: [palette], gridSize: 31 },
        // What no seat may keep takes nothing else along.
        deliveries: [{ name: 'odd', settings: {} }],
      }),
      JSON.stringify({ own: [{ was: 'f', is: 'j' }] }),
    ],
  )
  await startDrawing(page)
  const mine = await seatOf(page)
  expect(await belongings(page, mine)).toMatchObject({
    nibs: [nib],
    palettes: [palette],
    keys: [{ was: 'f', is: 'j' }],
    choices: {
      studio: { gridSize: 31, nib: 'quill' },
      'desk-list': { order: 'name' },
      'desk-start': { own: { width: 91, height: 40 } },
    },
  })
  await expectSize(page, '4.50')
  await setSize(page, '5.50')
  await expect.poll(async () => (await belongings(page, mine)).nibs[0]?.size).toBe(5.5)
  // An old browser that comes to the seat later brings what the seat lacks.
  await page.evaluate(() => {
    localStorage.removeItem('bellatrait:moved')
  })
  await page.reload()
  await expectSize(page, '5.50')
})

test('a choice that the server did not get is sent once it answers, over a reload', async ({ page }) => {
  // What a page sends while it is left cannot be intercepted.
  await page.addInitScript(() => {
    const { fetch } = window
    window.fetch = (to, init) =>
      localStorage.getItem('cut') && String(to).includes('/api/seats')
        ? Promise.reject(new TypeError('cut'))
        : fetch(to, init)
  })
  await startDrawing(page)
  const mine = await seatOf(page)
  await page.evaluate(() => localStorage.setItem('cut', 'yes'))
  await setSize(page, '9.00')
  await page.reload()
  await expectSize(page, '9.00')
  await drag(page, 100, 150, 300, 150)
  expect((await savedLines(page))[0]!.weight.size).toBe(9)
  expect((await belongings(page, mine)).own).toEqual([])
  await page.evaluate(() => localStorage.removeItem('cut'))
  await page.reload()
  await expectSize(page, '9.00')
  expect((await belongings(page, mine)).nibs.find((n) => n.id === 'middle')!.size).toBe(9)
})

test('a drawing is handed out as a task, drawn on by another seat, and seen on the page of all copies', async ({
  page,
}) => {
  const teacher = await seatOf((await page.goto('/'), page))
  const origin = new URL(page.url()).origin
  const tag = teacher.slice(0, 6)
  const pupils: string[] = []
  for (const name of [`Ash ${tag}`, `Beech ${tag}`])
    pupils.push(
      (
        (await (
          await page.request.post('/api/seats', { data: { name, colour: '#4a6a3a' }, headers: { origin } })
        ).json()) as Seat
      ).id,
    )
  const from = await startDrawing(page, 'demo-pea-pod')
  await page.request.patch(`/api/drawings/${from}`, { data: { name: `Pods ${tag}` }, headers: { origin } })
  await page.goto('/')
  await page.getByTestId('find-drawings').fill(`Pods ${tag}`)
  await page
    .getByTestId('card')
    .getByRole('button', { name: /More for/ })
    .click()
  await page.getByRole('menuitem', { name: /Hand out/ }).click()
  const dialog = page.getByTestId('hand-out')
  // Nobody but these two.
  await dialog.getByRole('button', { name: 'Everybody' }).click()
  await dialog.getByRole('button', { name: 'Nobody' }).click()
  for (const name of [`Ash ${tag}`, `Beech ${tag}`]) await dialog.getByLabel(name).check()
  await dialog.getByRole('button', { name: 'Hand out 2' }).click()
  const copies = page.getByTestId('copy')
  await expect(copies).toHaveCount(2)
  await expect(copies.first()).toContainText('Not begun yet')
  const task = page.url()

  // One of them draws on theirs, on another day, on this machine.
  await page.evaluate((seat) => localStorage.setItem('bellatrait:seat', seat), pupils[1]!)
  await page.goto('/')
  await page.getByTestId('find-drawings').fill(tag)
  await expect(page.getByTestId('card').filter({ hasText: `Ash ${tag}` })).toHaveCount(0)
  await page
    .getByTestId('card')
    .filter({ hasText: `Beech ${tag}` })
    .getByRole('link')
    .first()
    .click()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await enterPass(page, 'Lines')
  await takeUp(page, 'Freehand')
  await drag(page, 120, 60, 320, 80)
  await savedLines(page)

  await page.goto(task)
  await expect(copies.filter({ hasText: 'Beech' })).toContainText('Drawn on')
  await expect(copies.filter({ hasText: 'Beech' })).toContainText('53 lines')
  await expect(copies.filter({ hasText: 'Ash' })).toContainText('Not begun yet')
  await copies.filter({ hasText: 'Beech' }).getByRole('link').click()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await page.goto(task)
  await page.getByRole('button', { name: 'Take the task down' }).click()
  await page.getByRole('button', { name: 'Take it down', exact: true }).click()
  await expect(page.getByTestId('card').first()).toBeVisible()
  const cards = (await (await page.request.get('/api/drawings')).json()) as DrawingCard[]
  expect(cards.filter((c) => c.seat === pupils[0])).toHaveLength(1)
})

test('a studio file is saved, looked at and brought in at another seat; a drawing is handed over', async ({ page }) => {
  const id = await startDrawing(page)
  const mine = await seatOf(page)
  await setSize(page, '7.25')
  await expect.poll(async () => (await belongings(page, mine)).own).toContain('nibs')
  await page.goto('/')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /Studio file/ }).click()
  const dialog = page.getByTestId('studio')
  await dialog.getByLabel('Templates').uncheck()
  const download = page.waitForEvent('download')
  await dialog.getByRole('link', { name: 'Save the file' }).click()
  const file = await (await download).path()
  expect(readFileSync(file).subarray(0, 2).toString()).toBe('PK')
  await page.keyboard.press('Escape')

  await page.getByTestId('seat').click()
  await page.getByLabel('Name of a new seat').fill(`Ida ${mine.slice(0, 6)}`)
  await page.getByRole('button', { name: 'Set it up' }).click()
  await page
    .getByTestId('seats')
    .getByRole('listitem')
    .filter({ has: page.getByLabel(`Name of the seat Ida ${mine.slice(0, 6)}`) })
    .getByRole('button', { name: 'Sit here' })
    .click()
  await expect(page.getByTestId('seat')).toContainText('Ida')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('menuitem', { name: /Studio file/ }).click()
  await page
    .getByTestId('studio-file')
    .setInputFiles({ name: 'wrong.zip', mimeType: 'application/zip', buffer: Buffer.from('no') })
  await expect(dialog.getByRole('alert')).toBeVisible()
  await page.getByTestId('studio-file').setInputFiles(file)
  await expect(dialog).toContainText('Nothing is brought in until you say so')
  // What would write over something is taken only when it is ticked; what ships with the application stays.
  await expect(dialog.getByLabel(/^Middle/)).not.toBeChecked()
  await expect(dialog.getByLabel(/^Hair/)).toBeDisabled()
  await dialog.getByLabel(/^Middle/).check()
  await dialog.getByRole('button', { name: /^Bring in/ }).click()
  await expect(dialog).toBeHidden()
  const theirs = await seatOf(page)
  const { nibs } = await belongings(page, theirs)
  expect(nibs.map((n) => [n.id, n.size])).toEqual(NIBS.map((n) => [n.id, n.id === 'middle' ? 7.25 : n.size]))

  const card = page.locator(`[data-id="${id}"]`)
  await card.hover()
  await card.getByRole('checkbox').click()
  const name = ((await (await page.request.get('/api/seats')).json()) as Seat[]).find((s) => s.id === theirs)!.name
  await page.getByLabel('Hand the chosen drawings over to a seat').selectOption({ label: name })
  await expect(card.getByTestId('whose')).toHaveText(name)
})
