import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import type { Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  contoursOf,
  deliver,
  enter,
  enterPass,
  layLine,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
  undo,
  widthAcross,
} from './support/desk'

/** Level lines 300 px long, one below the other. */
async function layLines(page: Page, count: number): Promise<Line[]> {
  for (let i = 0; i < count; i++) await layLine(page, { x: 100, y: 100 + i * 80 }, { x: 400, y: 100 + i * 80 })
  return await savedLines(page)
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
    await enter(end.getByLabel('Length, exactly'), '100')
    await enter(end.getByLabel('Tip, exactly'), '50')
    await page.keyboard.press('Escape')
    const [line] = await savedLines(page)
    expect(line!.weight.end).toEqual({ length: 100, unit: 'px', tip: 0.5, ease: 'straight' })
    expect(line!.weight.start).toBeNull()
    await enterPass(page, 'Deliver')
    const contours = contoursOf(await textOf(await deliver(page, 'Outlines')))
    const at = (x: number): number => widthAcross(contours, { x, y: line!.path.nodes[0]!.at.y }, UP)
    expect(at(200)).toBeCloseTo(6, 0)
    expect(at(350)).toBeCloseTo(4.5, 0)
    expect(at(398)).toBeCloseTo(3, 0)
    await enterPass(page, 'Weight')
    await undo(page, 5)
    expect((await savedLines(page))[0]!.weight.end).toBeNull()
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
  const [first, second] = await savedLines(page)
  expect(second!.weight.end).toEqual(first!.weight.end)
  expect(second!.weight).toMatchObject({ start: null, end: { ease: 'needle' } })
  // With no line chosen the menu is that of the next line.
  await page.getByRole('button', { name: 'Tapers' }).click()
  await end.getByRole('checkbox').uncheck()
  await page.keyboard.press('Escape')
  await expect(next).toHaveText('Even, 6 px')
  expect((await savedLines(page))[0]!.weight.end).toEqual(first!.weight.end)
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
  expect((await savedLines(page))[2]!.weight.end).toEqual(first!.weight.end)
  // Taken off by hand, a taper is not put on by a rule again.
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 250, y: 400 })
  await page.getByRole('button', { name: 'Tapers' }).click()
  await end.getByRole('checkbox').uncheck()
  expect((await savedLines(page))[2]!.weight).toMatchObject({ end: null, pinned: true })
  // The shelf is one for all drawings.
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Own profiles' }).click()
  await page.getByRole('button', { name: 'Delete Own profile' }).click()
  await expect(profiles).toHaveCount(5)
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
  expect((await savedLines(page))[0]).toEqual(before)
  await tapered.click()
  await page.mouse.move(640, 300)
  await expect(page.getByTestId('range')).toHaveText('0.0 – 6.0 px')
  expect((await savedLines(page))[0]!.weight.stops).toHaveLength(3)
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
    const [first] = await savedLines(page)
    await page.getByRole('button', { name: 'Own profiles' }).click()
    await menu(page).getByRole('button', { name: 'Keep as a profile' }).click()
    await enter(page.getByLabel('Name of the profile'), 'Seed quill')
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
    await expect.poll(async () => (await savedLines(page))[1]!.weight.stops).toEqual(first!.weight.stops)
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
    expect((await savedLines(page))[1]!.weight.stops).toEqual(first!.weight.stops)
  })
})
