import { expect, test } from './support/test'
import { enterPass, layLine, openDrawing, savedLines, startDrawing } from './support/desk'

test('a step is looked at without going back, gone back to, and a new drawing branches off it', async ({ page }) => {
  const id = await startDrawing(page)
  for (const y of [100, 160, 220]) await layLine(page, { x: 100, y }, { x: 300, y })
  const history = page.getByTestId('history')
  const open = () => page.getByRole('button', { name: 'History' }).click()
  await open()
  await history.getByRole('region', { name: 'Lines' }).getByRole('button').nth(2).click()
  const look = page.getByTestId('look')
  await expect(look.getByRole('img')).toBeVisible()
  // One line is seen, and nothing went back.
  const inked = await look.getByRole('img').evaluate(async (img: HTMLImageElement) => {
    await img.decode()
    const ctx = Object.assign(document.createElement('canvas'), { width: 720, height: 524 }).getContext('2d')!
    ctx.drawImage(img, 0, 0, 720, 524)
    return [100, 160, 220].map((y) => ctx.getImageData(200, y, 1, 1).data[3]! > 128)
  })
  expect(inked).toEqual([true, false, false])
  expect(await savedLines(page)).toHaveLength(3)
  await page.keyboard.press('Escape')
  await expect(look).toBeHidden()
  await open()
  await history.getByRole('region', { name: 'Lines' }).getByRole('button').nth(1).click()
  await look.getByRole('button', { name: 'Go back to here' }).click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(2)
  // Forward again over what was undone, without doing it: a branch has all three.
  await open()
  await history.getByRole('region').first().getByRole('button').first().click()
  await look.getByRole('button', { name: 'New drawing from here' }).click()
  await expect(page.getByLabel('Name of the drawing')).toHaveValue(/^Test drawing branch/)
  expect(await savedLines(page)).toHaveLength(3)
  await openDrawing(page, id)
  expect(await savedLines(page)).toHaveLength(2)
})

test('the first visit to a pass keeps the drawing as it was before, with a picture; later visits do not', async ({
  page,
}) => {
  await startDrawing(page)
  await layLine(page, { x: 100, y: 100 }, { x: 300, y: 140 })
  await enterPass(page, 'Weight')
  const history = page.getByTestId('history')
  const checkpoints = history.getByRole('list', { name: 'Checkpoints' }).getByRole('listitem')
  await page.getByRole('button', { name: 'History' }).click()
  await expect(checkpoints).toHaveCount(1)
  await expect(checkpoints.first()).toContainText('Before Weight')
  await expect
    .poll(() =>
      checkpoints
        .first()
        .locator('img')
        .evaluate((i: HTMLImageElement) => i.naturalWidth),
    )
    .toBeGreaterThan(0)
  await page.keyboard.press('Escape')
  await enterPass(page, 'Lines')
  await layLine(page, { x: 100, y: 200 }, { x: 300, y: 240 })
  await enterPass(page, 'Weight')
  await page.getByRole('button', { name: 'History' }).click()
  await expect(checkpoints.filter({ hasText: 'Before Weight' })).toHaveCount(1)
  await checkpoints.filter({ hasText: 'Before Weight' }).getByRole('button', { name: 'Before Weight' }).first().click()
  const look = page.getByTestId('look')
  await expect(look).toContainText('Before Weight')
  await look.getByRole('button', { name: 'New drawing from here' }).click()
  await expect(page.getByLabel('Name of the drawing')).toHaveValue(/^Test drawing branch/)
  expect(await savedLines(page)).toHaveLength(1)
})

test('old steps are let go only when asked, and there may be none', async ({ page }) => {
  await startDrawing(page)
  await layLine(page, { x: 100, y: 100 }, { x: 300, y: 140 })
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Let old steps go …' }).click()
  await page.getByRole('button', { name: 'Let them go' }).click()
  await expect(page.getByTestId('notice')).toContainText('no steps older than 30 days')
})
