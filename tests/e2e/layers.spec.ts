import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import {
  clickAt,
  drag,
  enter,
  linesOf,
  savedDrawing,
  savedLines,
  startDrawing,
  steady,
  takeUp,
  undo,
} from './support/desk'
import { darkPixels } from './support/pictures'

const more = async (page: Page, layer: string, action: string): Promise<void> => {
  const row = page.locator('[data-layer]').filter({ has: page.getByRole('button', { name: layer, exact: true }) })
  await row.hover()
  await row.getByRole('button', { name: `More of ${layer}` }).click()
  await page.getByRole('button', { name: action, exact: true }).click()
}

const names = async (page: Page): Promise<string[]> => (await savedDrawing(page)).layers.map((l) => l.name)

test.describe('Layers', () => {
  test('are dragged into another order, renamed, and moved by keys', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const before = await names(page)
    const row = (name: string) =>
      page.locator('[data-layer]').filter({ has: page.getByRole('button', { name, exact: true }) })
    await row('Horns').hover()
    const grip = (await row('Horns').locator('.grip').boundingBox())!
    const target = (await row('Body').boundingBox())!
    await page.mouse.move(grip.x + 5, grip.y + 10)
    await page.mouse.down()
    await page.mouse.move(grip.x + 5, grip.y + 30, { steps: 4 })
    await page.mouse.move(grip.x + 5, target.y + target.height * 0.7, { steps: 10 })
    await page.mouse.up()
    await expect.poll(() => names(page)).not.toEqual(before)
    expect((await names(page)).indexOf('Horns')).toBe(before.indexOf('Body'))
    await row('Horns').getByRole('button', { name: 'Horns', exact: true }).press('Alt+ArrowUp')
    expect((await names(page)).indexOf('Horns')).toBe(before.indexOf('Body') + 1)
    await more(page, 'Horns', 'Rename')
    await enter(page.getByLabel('Name of the layer'), 'Feelers')
    expect(await names(page)).toContain('Feelers')
    await undo(page, 3)
    expect(await names(page)).toEqual(before)
  })

  test('that are locked or hidden say so when drawn on, and offer ways out', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const before = (await savedLines(page)).length
    await page.getByRole('button', { name: 'Lock Horns' }).click()
    await takeUp(page, 'Bow')
    await drag(page, 40, 60, 140, 60)
    await expect(page.getByTestId('notice')).toContainText('Layer "Horns" is locked. Unlock it, or draw on "Shell".')
    await page.getByTestId('notice').getByRole('button', { name: 'Draw on Shell' }).click()
    await drag(page, 40, 60, 140, 60)
    await page.keyboard.press('Enter')
    let saved = await savedDrawing(page)
    expect(linesOf(saved)).toHaveLength(before + 1)
    expect(saved.layers.find((l) => l.name === 'Shell')!.items).toHaveLength(12)
    await page.getByRole('button', { name: 'Hide Shell' }).click()
    await drag(page, 40, 90, 140, 90)
    await expect(page.getByTestId('notice')).toContainText('is hidden')
    await page.getByTestId('notice').getByRole('button', { name: 'Show it' }).click()
    saved = await savedDrawing(page)
    expect(saved.layers.find((l) => l.name === 'Shell')!.visible).toBe(true)
  })

  test('are duplicated, kept as a safe copy, combined, emptied into another, dimmed and deleted', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await more(page, 'Horns', 'Duplicate')
    let saved = await savedDrawing(page)
    expect(saved.layers.at(-1)).toMatchObject({ name: 'Horns copy', visible: true, locked: false })
    expect(saved.layers.at(-1)!.items).toHaveLength(8)
    await more(page, 'Horns copy', 'Combine with Horns')
    saved = await savedDrawing(page)
    expect(saved.layers.at(-1)!.items).toHaveLength(16)
    await more(page, 'Horns', 'Keep a safe copy')
    saved = await savedDrawing(page)
    expect(saved.layers.at(-2)).toMatchObject({ name: 'Horns, kept', visible: false, locked: true })
    await takeUp(page, 'Select')
    await clickAt(page, { x: 403, y: 133 })
    const [chosen] = saved.layers.find((l) => l.name === 'Shell')!.items
    await more(page, 'Leaf', 'Move the chosen line here')
    saved = await savedDrawing(page)
    expect(saved.layers.find((l) => l.name === 'Leaf')!.items.at(-1)!.id).toBe(chosen!.id)
    await page.getByRole('button', { name: 'Leaf', exact: true }).hover()
    await page.getByRole('button', { name: 'More of Leaf' }).click()
    await enter(page.getByLabel('Strength, exactly'), '30')
    await page.keyboard.press('Escape')
    await expect.poll(async () => (await savedDrawing(page)).layers.find((l) => l.name === 'Leaf')!.opacity).toBe(0.3)
    await more(page, 'Leaf', 'Delete')
    expect(await names(page)).not.toContain('Leaf')
    await page.getByTestId('notice').getByRole('button', { name: 'Bring it back' }).click()
    await expect.poll(() => names(page)).toContain('Leaf')
  })

  test('one is looked at alone: the others are neither shown nor taken hold of', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await more(page, 'Leaf', 'Show this layer alone')
    await takeUp(page, 'Select')
    await clickAt(page, { x: 403, y: 133 })
    await expect(page.getByTestId('hint')).toContainText('Click a line')
    // Nor are they chosen with all others, or for being alike.
    const leaf = (await savedDrawing(page)).layers.find((l) => l.name === 'Leaf')!
    await page.keyboard.press('Control+a')
    await expect(page.getByTestId('strip')).toContainText(`${leaf.items.length} lines`)
    await page.getByRole('button', { name: 'Ink', exact: true }).click()
    await expect(page.getByTestId('strip')).toContainText(`${leaf.items.length} lines`)
    await page.keyboard.press('Escape')
    const ink = async (): Promise<number> => darkPixels(await page.getByTestId('canvas').screenshot())
    const alone = await steady(ink)
    await page.getByRole('button', { name: 'Alone · show all' }).click()
    await expect.poll(ink).toBeGreaterThan(2 * alone)
    await clickAt(page, { x: 403, y: 133 })
    await expect(page.getByTestId('hint')).toContainText('A line')
  })
})
