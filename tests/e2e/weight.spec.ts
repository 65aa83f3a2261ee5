import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  contoursOf,
  deliver,
  enterPass,
  layLine,
  linesOf,
  savedDrawing,
  startDrawing,
  takeUp,
  textOf,
  widthAcross,
} from './support/desk'

/** Level lines 300 px long, one below the other. */
async function layLines(page: Page, count: number): Promise<Line[]> {
  for (let i = 0; i < count; i++) await layLine(page, { x: 100, y: 100 + i * 80 }, { x: 400, y: 100 + i * 80 })
  return linesOf(await savedDrawing(page))
}

const UP: Vec = { x: 0, y: 1 }

test.describe('Tapers', () => {
  test('are set for each end, measured on the delivered outline, and undone', async ({ page }) => {
    await startDrawing(page)
    await layLines(page, 1)
    await enterPass(page, 'Weight')
    await clickAt(page, { x: 250, y: 100 })
    await page.getByRole('button', { name: 'Tapers' }).click()
    const end = page.getByRole('group', { name: 'Taper at the end' })
    await end.getByRole('checkbox').check()
    await end.getByRole('radio', { name: 'px' }).click()
    await end.getByRole('radio', { name: 'Straight' }).click()
    await end.getByLabel('Length, exactly').fill('100')
    await end.getByLabel('Length, exactly').press('Enter')
    await end.getByLabel('Tip, exactly').fill('50')
    await end.getByLabel('Tip, exactly').press('Enter')
    await page.keyboard.press('Escape')
    const [line] = linesOf(await savedDrawing(page))
    expect(line!.weight.end).toEqual({ length: 100, unit: 'px', tip: 0.5, ease: 'straight' })
    expect(line!.weight.start).toBeNull()
    await enterPass(page, 'Deliver')
    const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
    const at = (x: number): number => widthAcross(contours, { x, y: line!.path.nodes[0]!.at.y }, UP)
    expect(at(200)).toBeCloseTo(6, 0)
    expect(at(350)).toBeCloseTo(4.5, 0)
    expect(at(398)).toBeCloseTo(3, 0)
    await enterPass(page, 'Weight')
    for (let i = 0; i < 5; i++) await page.keyboard.press('Control+z')
    expect(linesOf(await savedDrawing(page))[0]!.weight.end).toBeNull()
  })
})

test('Tapers set for one line go on to the next, as the strip says, until they are taken off', async ({ page }) => {
  await startDrawing(page)
  await layLines(page, 1)
  const next = page.getByTestId('next-weight')
  await expect(next).toHaveText('Even, 6 px')
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 250, y: 100 })
  await page.getByRole('button', { name: 'Tapers' }).click()
  const end = page.getByRole('group', { name: 'Taper at the end' })
  await end.getByRole('checkbox').check()
  await end.getByRole('radio', { name: 'Needle' }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(next).toContainText('a taper at the end')
  await enterPass(page, 'Lines')
  await takeUp(page, 'Pen')
  await expect(next).toHaveText('Even, 6 px, a taper at the end')
  await layLine(page, { x: 100, y: 300 }, { x: 400, y: 300 })
  const [first, second] = linesOf(await savedDrawing(page))
  expect(second!.weight.end).toEqual(first!.weight.end)
  expect(second!.weight).toMatchObject({ start: null, end: { ease: 'needle' } })
  // With no line chosen the menu is that of the next line.
  await page.getByRole('button', { name: 'Tapers' }).click()
  await end.getByRole('checkbox').uncheck()
  await page.keyboard.press('Escape')
  await expect(next).toHaveText('Even, 6 px')
  expect(linesOf(await savedDrawing(page))[0]!.weight.end).toEqual(first!.weight.end)
  // A profile has its own tapers with it.
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 250, y: 100 })
  await page.getByRole('button', { name: 'Own profiles' }).click()
  await page.getByRole('button', { name: 'Keep as a profile' }).click()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await expect(next).toContainText(', 6 px, a taper at the end')
  const profiles = page.getByRole('group', { name: 'Profiles' }).getByRole('button')
  await profiles.first().click()
  await expect(next).toContainText('Even, 6 px')
  await expect(next).not.toContainText('taper')
  await profiles.last().click()
  await enterPass(page, 'Lines')
  await layLine(page, { x: 100, y: 400 }, { x: 400, y: 400 })
  expect(linesOf(await savedDrawing(page))[2]!.weight.end).toEqual(first!.weight.end)
  // Taken off by hand, a taper is not put on by a rule again.
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 250, y: 400 })
  await page.getByRole('button', { name: 'Tapers' }).click()
  await end.getByRole('checkbox').uncheck()
  expect(linesOf(await savedDrawing(page))[2]!.weight).toMatchObject({ end: null, pinned: true })
  // The shelf is one for all drawings.
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Own profiles' }).click()
  await page.getByRole('button', { name: 'Delete Own profile' }).click()
  await expect(profiles).toHaveCount(5)
})

test.describe('Copying weight', () => {
  test('from one line to others, whole or in part, by menu and by key; profiles step by key', async ({ page }) => {
    await startDrawing(page)
    await layLines(page, 3)
    await enterPass(page, 'Weight')
    await page.keyboard.press('Shift+V')
    await expect(page.getByTestId('notice')).toContainText('No weight is copied yet')
    await clickAt(page, { x: 250, y: 100 })
    await page.keyboard.press('n')
    await page.getByTestId('size').fill('10')
    await page.getByTestId('size').press('Enter')
    await page.keyboard.press('Shift+C')
    const weights = async () => linesOf(await savedDrawing(page)).map((l) => l.weight)
    const [copied] = await weights()
    expect(copied!.stops).toHaveLength(3)
    await clickAt(page, { x: 250, y: 180 })
    await page.keyboard.press('Shift+V')
    expect((await weights())[1]).toEqual(copied)
    await clickAt(page, { x: 250, y: 260 })
    await page.getByTestId('strip').getByRole('button', { name: 'Copy' }).click()
    await page.getByRole('menuitem', { name: 'Paste only the size' }).click()
    expect((await weights())[2]).toMatchObject({ size: 10, stops: [{ left: 1, right: 1 }] })
    await page.getByTestId('strip').getByRole('button', { name: 'Copy' }).click()
    await page.getByRole('menuitem', { name: 'Paste only the profile' }).click()
    expect((await weights())[2]!.stops).toEqual(copied!.stops)
    await page.keyboard.press('Shift+N')
    expect((await weights())[2]!.stops).toHaveLength(1)
  })
})

test('a profile under the pointer is shown on the chosen line, and only a click puts it there', async ({ page }) => {
  await startDrawing(page)
  const [before] = await layLines(page, 1)
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 250, y: 100 })
  await expect(page.getByTestId('range')).toHaveText('6.0 – 6.0 px')
  const tapered = page.getByRole('group', { name: 'Profiles' }).getByRole('button', { name: 'Both ends tapered' })
  await tapered.hover()
  await expect(page.getByTestId('range')).toHaveText('0.0 – 6.0 px')
  await page.mouse.move(640, 300)
  await expect(page.getByTestId('range')).toHaveText('6.0 – 6.0 px')
  expect(linesOf(await savedDrawing(page))[0]).toEqual(before)
  await tapered.click()
  await page.mouse.move(640, 300)
  await expect(page.getByTestId('range')).toHaveText('0.0 – 6.0 px')
  expect(linesOf(await savedDrawing(page))[0]!.weight.stops).toHaveLength(3)
})

test.describe('Own profiles', () => {
  const menu = (page: Page) => page.getByTestId('shelf-menu')

  test('are kept from a line, renamed, put on another, ordered, shared, brought in, deleted and brought back', async ({
    page,
  }) => {
    await startDrawing(page)
    await layLines(page, 2)
    await enterPass(page, 'Weight')
    await clickAt(page, { x: 250, y: 100 })
    await page.getByRole('group', { name: 'Profiles' }).getByRole('button', { name: 'Swelling' }).click()
    const [first] = linesOf(await savedDrawing(page))
    await page.getByRole('button', { name: 'Own profiles' }).click()
    await menu(page).getByRole('button', { name: 'Keep as a profile' }).click()
    await page.getByLabel('Name of the profile').fill('Seed quill')
    await page.getByLabel('Name of the profile').press('Enter')
    await menu(page).getByRole('button', { name: 'Duplicate Seed quill', exact: true }).click()
    await expect(menu(page).getByRole('listitem')).toHaveText(['Seed quill', 'Seed quill 2'])
    await menu(page).getByRole('button', { name: 'Move Seed quill 2 up' }).click()
    await expect(menu(page).getByRole('listitem')).toHaveText(['Seed quill 2', 'Seed quill'])
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      menu(page).getByRole('button', { name: /Share/ }).click(),
    ])
    const text = await textOf(download)
    // It stays on the shelf after a reload, and can be put on other lines.
    await page.reload()
    await enterPass(page, 'Weight')
    await clickAt(page, { x: 250, y: 180 })
    await page.getByRole('group', { name: 'Profiles' }).getByRole('button', { name: 'Seed quill', exact: true }).click()
    await expect.poll(async () => linesOf(await savedDrawing(page))[1]!.weight.stops).toEqual(first!.weight.stops)
    await page.getByRole('button', { name: 'Own profiles' }).click()
    await menu(page).getByRole('button', { name: 'Delete Seed quill', exact: true }).click()
    await expect(menu(page).getByRole('listitem')).toHaveCount(1)
    await page.getByTestId('notice').getByRole('button', { name: 'Bring it back' }).click()
    await page.getByRole('button', { name: 'Own profiles' }).click()
    await expect(menu(page).getByRole('listitem')).toHaveText(['Seed quill 2', 'Seed quill'])
    const bringIn = (name: string, content: string) =>
      page
        .getByTestId('profile-picker')
        .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) })
    await bringIn('again.json', text)
    await expect(menu(page).getByRole('listitem')).toHaveText([
      'Seed quill 2',
      'Seed quill',
      'Seed quill 2 2',
      'Seed quill 3',
    ])
    await bringIn(
      'shop.json',
      '{"format":"bellatrait profiles","profiles":[{"name":"Odd","stops":[{"at":2,"left":1,"right":1}]}]}',
    )
    await expect(page.getByTestId('notice')).toContainText('Profile "Odd" cannot be used')
    await expect(menu(page).getByRole('listitem')).toHaveCount(4)
    expect(linesOf(await savedDrawing(page))[1]!.weight.stops).toEqual(first!.weight.stops)
  })
})
