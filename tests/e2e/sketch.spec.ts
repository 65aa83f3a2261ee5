import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { defaultPage } from '#core/drawing/create'
import type { Sketch } from '#core/drawing/model'
import { squareToQuad } from '#core/sketch/perspective'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { enterPass, savedDrawing, startDrawing } from './support/desk'
import { expect, test } from './support/test'

const sketchIn = async (page: Page): Promise<Sketch> => (await savedDrawing(page)).layers.flatMap((l) => (l.kind === 'sketch' ? l.items : [])).at(-1)!

/** Mean grey of a part of what is seen of the sketch, 0..255. */
async function greyAt(page: Page, clip: { x: number; y: number; width: number; height: number }): Promise<number> {
  const { channels } = await sharp(await page.screenshot({ clip })).greyscale().stats()
  return channels[0]!.mean
}

test('a sketch is made clean in one press, its values are kept with it, and it comes back as it came', async ({ page }) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  await page.getByTestId('clean').click()
  const made = page.locator('canvas[data-testid=sketch]')
  await expect(made).toHaveAttribute('data-made', /"even":true/, { timeout: 30_000 })
  expect((await sketchIn(page)).clean).toMatchObject({ even: true, white: 0.1 })
  const field = page.getByRole('textbox', { name: 'Pencil, exactly' })
  await field.fill('2')
  await field.press('Enter')
  await expect(made).toHaveAttribute('data-made', /"pencil":2/)
  await page.getByRole('radio', { name: 'Cool blue' }).click()
  await expect(made).toHaveAttribute('data-made', /"tint":"#3f6fb5"/)
  await page.reload()
  await expect(made).toHaveAttribute('data-made', /"pencil":2.*"tint":"#3f6fb5"/, { timeout: 30_000 })
  await page.keyboard.press('Control+z')
  await expect(made).toHaveAttribute('data-made', /"pencil":2/)
  await enterPass(page, 'Sketch')
  await page.getByRole('button', { name: 'As it came' }).click()
  await expect(page.locator('img[data-testid=sketch]')).toBeVisible()
  expect((await sketchIn(page)).clean).toBeUndefined()
})

test('a photo that was taken at a slant is set right by its paper; where none is seen it is said so', async ({ page }) => {
  const lines = SCENARIO[0]!().layers.flatMap((l) => l.lines)
  const { data, info } = await sharp(await pencilSketch(lines, defaultPage(), 41)).greyscale().raw().toBuffer({ resolveWithObject: true })
  const [w, h] = [1200, 900]
  const grey = Buffer.alloc(w * h, 60)
  const at = squareToQuad([{ x: 130, y: 150 }, { x: 1050, y: 80 }, { x: 1120, y: 800 }, { x: 90, y: 780 }])
  for (let y = 0; y < info.height; y++) {
    for (let x = 0; x < info.width; x++) {
      const p = at((x + 0.5) / info.width, (y + 0.5) / info.height)
      grey[Math.floor(p.y) * w + Math.floor(p.x)] = data[y * info.width + x]!
    }
  }
  const photo = await sharp(grey, { raw: { width: w, height: h, channels: 1 } }).blur(0.6).png().toBuffer()
  await page.goto('/')
  await page.getByTestId('desk-file').setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: photo })
  await expect(page.getByTestId('sketch')).toBeVisible()
  await enterPass(page, 'Sketch')
  const canvas = (await page.getByTestId('canvas').boundingBox())!
  const corner = { x: canvas.x + canvas.width * 0.2, y: canvas.y + canvas.height * 0.5, width: 6, height: 6 }
  await page.getByTestId('find-paper').click()
  const made = page.locator('canvas[data-testid=sketch]')
  await expect(made).toHaveAttribute('data-made', 'null', { timeout: 30_000 })
  const { corners } = await sketchIn(page)
  const known = [[130, 150], [1050, 80], [1120, 800], [90, 780]]
  corners!.forEach((p, i) => expect(Math.hypot(p.x * w - known[i]![0]!, p.y * h - known[i]![1]!)).toBeLessThan(5))
  // The table is gone from what is seen.
  expect(await greyAt(page, corner)).toBeGreaterThan(150)
  await page.getByRole('button', { name: 'As it was taken' }).click()
  await expect(page.locator('img[data-testid=sketch]')).toBeVisible()
  const dark = await sharp({ create: { width: 200, height: 150, channels: 3, background: '#000' } }).png().toBuffer()
  await page.getByTestId('sketch-file').setInputFiles({ name: 'black.png', mimeType: 'image/png', buffer: dark })
  await expect.poll(async () => (await savedDrawing(page)).layers.filter((l) => l.kind === 'sketch').length).toBe(2)
  await page.getByTestId('find-paper').click()
  await expect(page.getByTestId('notice')).toContainText('No sheet of paper was found')
})

test('several sketches come in at once, by file and by paste, WebP too; Shift and H show the pencil alone', async ({ page }) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  const of = (background: string) => sharp({ create: { width: 60, height: 40, channels: 3, background } })
  await page.getByTestId('sketch-file').setInputFiles([
    { name: 'front.png', mimeType: 'image/png', buffer: await of('#eee').png().toBuffer() },
    { name: 'side.webp', mimeType: 'image/webp', buffer: await of('#ddd').webp().toBuffer() },
  ])
  const sketches = async (): Promise<number> => (await savedDrawing(page)).layers.filter((l) => l.kind === 'sketch').length
  await expect.poll(sketches).toBe(3)
  const bytes = [...(await of('#ccc').png().toBuffer())]
  await page.evaluate((data) => {
    const clipboardData = new DataTransfer()
    clipboardData.items.add(new File([Uint8Array.from(data)], 'detail.png', { type: 'image/png' }))
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }))
  }, bytes)
  await expect.poll(sketches).toBe(4)
  const ink = page.getByTestId('canvas').locator('canvas').first()
  await expect(ink).toBeVisible()
  await page.getByTestId('canvas').hover()
  await page.keyboard.down('Shift')
  await page.keyboard.down('H')
  await expect(ink).toBeHidden()
  await page.keyboard.up('H')
  await page.keyboard.up('Shift')
  await expect(ink).toBeVisible()
})
