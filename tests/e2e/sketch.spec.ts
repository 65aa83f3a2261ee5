import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { defaultPage } from '#core/model/create'
import type { Sketch } from '#core/model/model'
import { squareToQuad } from '#core/sketch/perspective'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { drag, enter, enterPass, savedDrawing, startDrawing, takeUp } from './support/desk'
import { expect, test } from './support/test'

const sketchIn = async (page: Page): Promise<Sketch> =>
  (await savedDrawing(page)).layers.flatMap((l) => (l.kind === 'sketch' ? l.items : [])).at(-1)!

/** Mean grey of a part of what is seen of the sketch, 0..255. */
async function greyAt(page: Page, clip: { x: number; y: number; width: number; height: number }): Promise<number> {
  const { channels } = await sharp(await page.screenshot({ clip }))
    .greyscale()
    .stats()
  return channels[0]!.mean
}

test('a sketch is made clean in one press, its values are kept with it, and it comes back as it came', async ({
  page,
}) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  await page.getByTestId('clean').click()
  const made = page.locator('canvas[data-testid=sketch]')
  await expect(made).toHaveAttribute('data-made', /"even":true/, { timeout: 30_000 })
  expect((await sketchIn(page)).clean).toMatchObject({ even: true, white: 0.1 })
  const field = page.getByRole('textbox', { name: 'Pencil, exactly' })
  await enter(field, '2')
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

test('a photo that was taken at a slant is set right by its paper; where none is seen it is said so', async ({
  page,
}) => {
  const lines = SCENARIO[0]!().layers.flatMap((l) => l.lines)
  const { data, info } = await sharp(await pencilSketch(lines, defaultPage(), 41))
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const [w, h] = [1200, 900]
  const grey = Buffer.alloc(w * h, 60)
  const at = squareToQuad([
    { x: 130, y: 150 },
    { x: 1050, y: 80 },
    { x: 1120, y: 800 },
    { x: 90, y: 780 },
  ])
  for (let y = 0; y < info.height; y++) {
    for (let x = 0; x < info.width; x++) {
      const p = at((x + 0.5) / info.width, (y + 0.5) / info.height)
      grey[Math.floor(p.y) * w + Math.floor(p.x)] = data[y * info.width + x]!
    }
  }
  const photo = await sharp(grey, { raw: { width: w, height: h, channels: 1 } })
    .blur(0.6)
    .png()
    .toBuffer()
  await page.goto('/')
  await page.getByTestId('desk-file').setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: photo })
  await expect(page.getByTestId('sketch')).toBeVisible()
  // It is offered where one is, and done by one press.
  await expect(page.getByTestId('notice')).toContainText('a photo of a sheet', { timeout: 30_000 })
  await page.getByTestId('notice').getByRole('button', { name: 'Set it right' }).click()
  await enterPass(page, 'Sketch')
  await page.getByRole('button', { name: 'As it was taken' }).click()
  const canvas = (await page.getByTestId('canvas').boundingBox())!
  const corner = { x: canvas.x + canvas.width * 0.2, y: canvas.y + canvas.height * 0.5, width: 6, height: 6 }
  await page.getByTestId('find-paper').click()
  const made = page.locator('canvas[data-testid=sketch]')
  await expect(made).toHaveAttribute('data-made', /corners/, { timeout: 30_000 })
  const { corners } = await sketchIn(page)
  const known = [
    [130, 150],
    [1050, 80],
    [1120, 800],
    [90, 780],
  ]
  corners!.forEach((p, i) => expect(Math.hypot(p.x * w - known[i]![0]!, p.y * h - known[i]![1]!)).toBeLessThan(5))
  // The table is gone from what is seen.
  expect(await greyAt(page, corner)).toBeGreaterThan(150)
  await page.getByRole('button', { name: 'As it was taken' }).click()
  await expect(page.locator('img[data-testid=sketch]')).toBeVisible()
  const dark = await sharp({ create: { width: 200, height: 150, channels: 3, background: '#000' } })
    .png()
    .toBuffer()
  await page.getByTestId('sketch-file').setInputFiles({ name: 'black.png', mimeType: 'image/png', buffer: dark })
  await expect.poll(async () => (await savedDrawing(page)).layers.filter((l) => l.kind === 'sketch').length).toBe(2)
  await page.getByTestId('find-paper').click()
  await expect(page.getByTestId('notice')).toContainText('No sheet of paper was found')
})

test('several sketches come in at once, by file and by paste, WebP too; Shift and H show the pencil alone', async ({
  page,
}) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  const of = (background: string) => sharp({ create: { width: 60, height: 40, channels: 3, background } })
  await page.getByTestId('sketch-file').setInputFiles([
    { name: 'front.png', mimeType: 'image/png', buffer: await of('#eee').png().toBuffer() },
    { name: 'side.webp', mimeType: 'image/webp', buffer: await of('#ddd').webp().toBuffer() },
  ])
  const sketches = async (): Promise<number> =>
    (await savedDrawing(page)).layers.filter((l) => l.kind === 'sketch').length
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

test('the corners of a sheet are dragged to where they are, and what lies within is set right', async ({ page }) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  await page.getByRole('button', { name: 'Unlock', exact: true }).click()
  await takeUp(page, 'Corners')
  // The scan fills the page, and shows no edge of a sheet: the marks stand at its own corners.
  const { height } = (await savedDrawing(page)).page
  await drag(page, 0, 0, 72, 52.4)
  await expect(page.getByTestId('set-right')).toBeEnabled()
  await drag(page, 720, height, 648, height - 52.4)
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await sketchIn(page)).corners, { timeout: 30_000 }).toBeTruthy()
  const { corners } = await sketchIn(page)
  ;[
    [0.1, 0.1],
    [1, 0],
    [0.9, 0.9],
    [0, 1],
  ].forEach(([x, y], i) => expect(Math.hypot(corners![i]!.x - x!, corners![i]!.y - y!)).toBeLessThan(0.02))
  await page.getByRole('button', { name: 'As it was taken' }).click()
  await expect.poll(async () => (await sketchIn(page)).corners).toBeUndefined()
})

test('a wipe goes between the pencil and the ink, and a halo tells what lies off the pencil', async ({ page }) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Sketch')
  await page.getByTestId('pencil-wipe').click()
  const tiles = page.getByTestId('canvas').locator('> canvas').first()
  const [ink, pencil] = [tiles, page.getByTestId('sketch').locator('..')]
  await expect(ink).toHaveCSS('clip-path', /inset\(0px 0px 0px 50%\)/)
  await expect(pencil).toHaveCSS('clip-path', /inset\(0px 50% 0px 0px\)/)
  const handle = (await page.getByTestId('wipe').boundingBox())!
  await page.mouse.move(handle.x + handle.width / 2, handle.y + 200)
  await page.mouse.down()
  await page.mouse.move(handle.x + 200, handle.y + 200, { steps: 4 })
  await page.mouse.up()
  await expect(ink).not.toHaveCSS('clip-path', /50%/)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Done' }).click()
  await expect(ink).toHaveCSS('clip-path', 'none')
  await page.getByTestId('halo').click()
  const off = page.getByTestId('off-pencil')
  await expect(off).toContainText('% lies off the pencil', { timeout: 60_000 })
  const share = async (): Promise<number> => Number.parseInt((await off.textContent())!)
  expect(await share()).toBeLessThan(25)
  // The drawing is moved off its sketch: nearly all of it lies off.
  await enterPass(page, 'Lines')
  await takeUp(page, 'Select')
  await page.keyboard.press('Control+a')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowDown')
  await enterPass(page, 'Sketch')
  await expect.poll(share).toBeGreaterThan(50)
})

test('an SVG comes in as a sketch; pictures that hold nothing, or are broken, are told of in a sentence', async ({
  page,
}) => {
  await startDrawing(page)
  await enterPass(page, 'Sketch')
  const bring = (name: string, mimeType: string, buffer: Buffer) =>
    page.getByTestId('sketch-file').setInputFiles({ name, mimeType, buffer })
  const notice = page.getByTestId('notice')
  const sketches = async (): Promise<number> =>
    (await savedDrawing(page)).layers.filter((l) => l.kind === 'sketch').length
  await bring(
    'rings.svg',
    'image/svg+xml',
    Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40"><circle cx="20" cy="20" r="12" fill="none" stroke="#444"/><script>alert(1)</script></svg>',
    ),
  )
  await expect.poll(sketches).toBe(1)
  expect((await sketchIn(page)).width / (await sketchIn(page)).height).toBeCloseTo(1.5, 1)
  const jpeg = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#ddd' } })
    .jpeg()
    .toBuffer()
  await bring('broken.jpg', 'image/jpeg', jpeg.subarray(0, jpeg.length / 2))
  await expect(notice).toContainText('damaged')
  await bring('words.png', 'image/png', Buffer.from('no picture'))
  await expect(notice).toContainText('not a PNG, JPEG or WebP')
  await bring('broken.svg', 'image/svg+xml', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><path d='))
  await expect(notice).toContainText('could not be drawn')
  expect(await sketches()).toBe(1)
  // What holds no pencil comes in; looking for lines in it says that there are none.
  const noise = sharp(Buffer.from(Array.from({ length: 300 * 200 }, (_, i) => (i * 7919) % 251)), {
    raw: { width: 300, height: 200, channels: 1 },
  })
  const colours = sharp({ create: { width: 300, height: 200, channels: 3, background: '#3a7' } })
  const empty: [string, Buffer][] = [
    [
      'black.png',
      await sharp({ create: { width: 300, height: 200, channels: 3, background: '#000' } })
        .png()
        .toBuffer(),
    ],
    [
      'dot.png',
      await sharp({ create: { width: 1, height: 1, channels: 3, background: '#888' } })
        .png()
        .toBuffer(),
    ],
    ['green.jpg', await colours.jpeg().toBuffer()],
    ['turned.jpg', await colours.jpeg().withMetadata({ orientation: 6 }).toBuffer()],
  ]
  for (const [i, [name, bytes]] of empty.entries()) {
    await enterPass(page, 'Sketch')
    await bring(name, name.endsWith('png') ? 'image/png' : 'image/jpeg', bytes)
    await expect.poll(sketches).toBe(2 + i)
    await enterPass(page, 'Lines')
    await takeUp(page, 'Propose')
    await page.getByTestId('find-lines').click()
    await expect(notice).toContainText('No lines were found in this sketch', { timeout: 60_000 })
    await page.getByTestId('notice').getByRole('button').last().click()
  }
  // Turned as its file says.
  expect((await sketchIn(page)).width).toBeLessThan((await sketchIn(page)).height)
  await enterPass(page, 'Sketch')
  await bring('noise.png', 'image/png', await noise.png().toBuffer())
  await expect.poll(sketches).toBe(6)
  await page.getByTestId('find-paper').click()
  await expect(notice).toContainText('No sheet of paper was found', { timeout: 30_000 })
})
