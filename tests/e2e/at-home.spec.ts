import { shapesOf } from '../../core/ink/shapes-of'
import { newFillsLayer } from '#core/model/create'
import type { Drawing } from '#core/model/model'
import type { OpenDrawing } from '../../shared/edits'
import {
  clickAt,
  deliver,
  enterPass,
  layLine,
  linesOf,
  openDrawing,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
} from './support/desk'
import { RunningServer } from '../server/support/running-server'
import { expect, test } from './support/test'

const pass = (page: import('@playwright/test').Page) =>
  page.getByRole('navigation', { name: 'Passes' }).locator('[aria-current=step]')

test("keys are changed to one's own: what had one changes places, and all are as they were when asked", async ({
  page,
}) => {
  await startDrawing(page)
  await page.keyboard.press('?')
  const card = page.getByRole('dialog')
  await card.getByRole('button', { name: 'Change keys …' }).click()
  await card.getByRole('button', { name: 'Key for Weight' }).click()
  await page.keyboard.press('x')
  await expect(card.getByRole('status')).toContainText('Ink or bare centrelines has changed places')
  await card.getByRole('button', { name: 'Key for Fill' }).click()
  await page.keyboard.press('Control+a')
  await expect(card.getByRole('status')).toContainText('cannot be taken')
  await card.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('x')
  await expect(pass(page)).toContainText('Weight')
  await page.keyboard.press('2')
  await page.keyboard.press('3')
  await expect(pass(page)).toContainText('Lines')
  await page.reload()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await page.keyboard.press('x')
  await expect(pass(page)).toContainText('Weight')
  // Letters in a field are letters.
  const name = page.getByLabel('Name of the drawing')
  await name.fill('')
  await name.pressSequentially('x3')
  await expect(name).toHaveValue('x3')
  await name.blur()
  await page.keyboard.press('?')
  await card.getByRole('button', { name: 'Change keys …' }).click()
  await card.getByRole('button', { name: 'As they were' }).click()
  await card.getByRole('button', { name: 'Close' }).click()
  await page.keyboard.press('2')
  await page.keyboard.press('3')
  await expect(pass(page)).toContainText('Weight')
})

test("the guide follows what is done in a drawing of one's own, and is put away for good", async ({ page }) => {
  await startDrawing(page)
  const guide = page.getByTestId('guide')
  await expect(guide).toContainText('take the Bow (E)')
  await layLine(page, { x: 100, y: 160 }, { x: 300, y: 160 })
  await expect(guide).toContainText('Lay the next lines')
  for (const y of [220, 280]) await layLine(page, { x: 100, y }, { x: 300, y })
  await expect(guide).toContainText('In Weight (3)')
  // A taper is weight and contact at once.
  await enterPass(page, 'Weight')
  await takeUp(page, 'Contact')
  await page.keyboard.press('Enter')
  await expect(guide).toContainText('Shapes (4)')
  await enterPass(page, 'Deliver')
  await deliver(page, 'Outlines')
  await page.reload()
  await expect(guide).toContainText('Shapes (4)')
  await enterPass(page, 'Shapes')
  await expect(guide).toContainText('In Fill (5)')
  await guide.getByRole('button', { name: 'Put the guide away for good' }).click()
  await expect(guide).toBeHidden()
  await page.reload()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await expect(guide).toBeHidden()
})

test('a drawing is seen as it was when it was left', async ({ page }) => {
  const id = await startDrawing(page, 'demo-pea-pod')
  await expect(page.getByTestId('guide')).toBeHidden()
  await enterPass(page, 'Fill')
  await page.keyboard.press('+')
  await page.keyboard.press('+')
  const view = await page.getByTestId('canvas').getAttribute('data-view')
  await page.getByRole('link', { name: 'Desk' }).click()
  await expect(page.getByTestId('card').first()).toBeVisible()
  await openDrawing(page, id)
  await expect(pass(page)).toContainText('Fill')
  await expect(page.getByTestId('canvas')).toHaveAttribute('data-view', view!)
})

test('outlines of strokes are turned back into lines, in one step, with how far they are off', async ({ page }) => {
  test.setTimeout(90_000)
  const { drawing } = (await (await page.request.get('/api/drawings/demo-garden-snail')).json()) as OpenDrawing
  const shapes = shapesOf({
    ...drawing,
    fills: [],
    settings: { ...drawing.settings, tuck: false, shapes: { ...drawing.settings.shapes, unite: false, simplify: 0 } },
  } as Drawing).shapes.slice(0, 12)
  await startDrawing(page, {
    ...drawing,
    fills: [],
    amendments: [],
    layers: [
      newFillsLayer(
        'Art',
        shapes.map((s) => ({ ...s, from: [] })),
      ),
    ],
  })
  await page.keyboard.press('q')
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Turn into lines' }).click()
  await expect(page.getByTestId('notice')).toContainText(
    /1[0-2] outlines are lines again, at most 0\.[0-2]\d? px off/,
    { timeout: 60_000 },
  )
  const after = await savedDrawing(page)
  expect(linesOf(after).length).toBeGreaterThanOrEqual(10)
  expect(linesOf(after).length + (after.layers.find((l) => l.kind === 'fills')?.items.length ?? 0)).toBeLessThanOrEqual(
    13,
  )
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(0)
  await clickAt(page, { x: 5, y: 5 })
})

test('a Desk that others can reach asks for its passphrase, and what is drawn once a session has ended is not lost', async ({
  page,
}) => {
  const server = new RunningServer({ BELLATRAIT_PASS: 'thistle and burdock' })
  await server.start()
  try {
    const name = async (): Promise<void> => {
      await page.getByLabel('Passphrase').fill('thistle and burdock')
      await page.keyboard.press('Enter')
    }
    await page.goto(`${server.address}/?shelf=none`)
    await name()
    await page.getByRole('banner').getByRole('button', { name: 'New drawing' }).click()
    await expect(page.getByTestId('save-state')).toContainText('Saved')
    const drawing = page.url()
    const other = await page.context().newPage()
    await other.goto(server.address)
    await other.getByRole('button', { name: 'Session' }).click()
    await other.getByRole('menuitem', { name: 'End all sessions' }).click()
    await other.waitForURL('**/enter')
    await page.getByLabel('Name of the drawing').fill('Drawn without a session')
    await page.keyboard.press('Enter')
    const [again] = await Promise.all([
      page.waitForEvent('popup'),
      page.getByRole('link', { name: 'Enter the passphrase' }).click(),
    ])
    await again.getByLabel('Passphrase').fill('thistle and burdock')
    await again.keyboard.press('Enter')
    await expect(again.getByTestId('card')).toHaveCount(1)
    await expect(page.getByTestId('save-state')).toContainText('Saved', { timeout: 30_000 })
    await page.goto(drawing)
    await expect(page.getByLabel('Name of the drawing')).toHaveValue('Drawn without a session')
  } finally {
    await server.end()
  }
})
