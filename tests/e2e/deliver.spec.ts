import { readFileSync } from 'node:fs'
import { Resvg } from '@resvg/resvg-js'
import sharp from 'sharp'
import { unzipped } from '../../core/formats/archive/zip'
import { clickAt, contoursOf, deliver, enterPass, layLine, startDrawing, textOf } from './support/desk'
import { expect, test } from './support/test'

test('outlines leave in groups, in mm, on a ground, as the preview shows them', async ({ page }) => {
  await startDrawing(page, 'demo-clover-and-bee')
  await enterPass(page, 'Deliver')
  await page.getByRole('radio', { name: /Outlines/ }).click()
  await page.getByTestId('groups').selectOption('layer')
  await page.getByTestId('unit').selectOption('mm')
  await page.getByTestId('digits').selectOption('3')
  await page.getByRole('checkbox', { name: 'Ground' }).check()
  const facts = page.getByTestId('delivery-facts')
  await expect(facts).toContainText('nodes')
  const nodes = Number(/(\d+) nodes/.exec(await facts.innerText())![1])
  const svg = await textOf(await deliver(page, 'Outlines'))
  expect(svg).toMatch(/<g id="Blossom/)
  expect(svg).toContain('<rect width="120"')
  expect([...svg.matchAll(/ d="([^"]*)"/g)].some(([, d]) => /\.\d{4}/.test(d!))).toBe(false)
  expect(contoursOf(svg).reduce((n, c) => n + c.nodes.length, 0)).toBe(nodes)
  // What is seen is the file.
  const shown = page.getByTestId('delivery-preview').getByRole('img')
  const corner = await shown.evaluate(async (img: HTMLImageElement) => {
    await img.decode()
    const ctx = Object.assign(document.createElement('canvas'), { width: 60, height: 44 }).getContext('2d')!
    ctx.drawImage(img, 0, 0, 60, 44)
    return [...ctx.getImageData(1, 1, 1, 1).data]
  })
  expect(corner).toEqual([255, 255, 255, 255])
  await page.reload()
  await enterPass(page, 'Deliver')
  await expect(page.getByTestId('groups')).toHaveValue('layer')
  await expect(page.getByTestId('digits')).toHaveValue('3')
  await expect(page.getByRole('checkbox', { name: 'Ground' })).toBeChecked()
})

test('a picture leaves at its dots per inch, in black alone, and one of 20,000 px can be stopped', async ({ page }) => {
  test.setTimeout(120_000)
  await startDrawing(page, 'demo-radish-bunch')
  await enterPass(page, 'Deliver')
  await page.getByRole('radio', { name: /Picture/ }).click()
  await page.getByLabel('Dots per inch', { exact: true }).fill('254')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('picture-size')).toContainText('1200 x')
  const plain = await sharp(await (await deliver(page, 'Picture')).path()).metadata()
  expect([plain.width, plain.density, plain.channels]).toEqual([1200, 254, 4])
  await page.getByTestId('tones').selectOption('one-bit')
  const black = sharp(await (await deliver(page, 'Picture')).path())
  expect(await black.metadata()).toMatchObject({ width: 1200, bitsPerSample: 1 })
  const dots = await black.greyscale().raw().toBuffer()
  expect(new Set(dots)).toEqual(new Set([0, 255]))
  await page.getByTestId('picture-by').selectOption('px')
  await page.getByLabel('Longer side').fill('20000')
  await page.keyboard.press('Enter')
  const button = page.getByTestId('deliver')
  await expect(button).toHaveText(/^Download/)
  await button.click()
  await expect(button).toContainText(/[1-9]\d* %/)
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(button).toHaveText('Download PNG')
  const whole = await deliver(page, 'Picture')
  expect((await sharp(await whole.path(), { limitInputPixels: false }).metadata()).width).toBe(20_000)
})

test('a layer or what is chosen leaves alone; settings are named and used again; everything leaves as one archive', async ({
  page,
}) => {
  await startDrawing(page)
  await layLine(page, { x: 100, y: 100 }, { x: 300, y: 120 })
  await layLine(page, { x: 100, y: 300 }, { x: 300, y: 320 })
  await page.keyboard.press('q')
  await clickAt(page, { x: 200, y: 310 })
  await enterPass(page, 'Deliver')
  await page.getByTestId('leaves').selectOption('chosen')
  await page.getByTestId('leaving').selectOption('cut-out')
  const ys = contoursOf(await textOf(await deliver(page, 'Outlines'))).flatMap((c) => c.nodes.map((n) => n.at.y))
  expect(Math.min(...ys)).toBeGreaterThan(250)
  await page.getByRole('button', { name: 'name', exact: true }).click()
  await page.getByLabel('Name of these settings').fill('embroidery')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('named')).toHaveValue('embroidery')
  await page.getByTestId('named').selectOption('print')
  await expect(page.getByRole('radio', { name: /Print/ })).toBeChecked()
  await expect(page.getByLabel('Bleed')).toHaveValue('3')
  await page.reload()
  await enterPass(page, 'Deliver')
  await page.getByTestId('named').selectOption('embroidery')
  await expect(page.getByTestId('leaving')).toHaveValue('cut-out')
  const files = unzipped(readFileSync(await (await deliver(page, 'Everything')).path()), { files: 9, bytes: 1e8 })
  expect([...files.keys()]).toEqual([
    'test-drawing.svg',
    'test-drawing.live.svg',
    'test-drawing.pdf',
    'test-drawing.png',
  ])
  // Nothing is chosen any more: the page leaves.
  expect(contoursOf(new TextDecoder().decode(files.get('test-drawing.svg')))).toHaveLength(2)
})

test('pages of a PDF are seen one by one', async ({ page }) => {
  await startDrawing(page, 'demo-watering-can')
  await enterPass(page, 'Deliver')
  await page.getByTestId('named').selectOption('shirt')
  const sheets = page.getByTestId('sheet')
  await expect(sheets).toBeVisible()
  // While a page is made, nothing is told of it.
  const nodes = async (): Promise<string | undefined> =>
    /(\d+) nodes/.exec(await page.getByTestId('delivery-facts').innerText())?.[1]
  await expect.poll(nodes).toBeDefined()
  const first = await nodes()
  await sheets.selectOption('1')
  await expect.poll(async () => [undefined, first].includes(await nodes())).toBe(false)
})

test('the pictures of the five drawings are what their outlines are', async ({ page }) => {
  test.setTimeout(150_000)
  for (const name of ['radish-bunch', 'pea-pod', 'garden-snail', 'watering-can', 'clover-and-bee']) {
    await startDrawing(page, `demo-${name}`)
    await enterPass(page, 'Deliver')
    const svg = await textOf(await deliver(page, 'Outlines'))
    await page.getByRole('radio', { name: /Picture/ }).click()
    await page.getByTestId('picture-by').selectOption('px')
    await page.getByLabel('Longer side').fill('2160')
    await page.keyboard.press('Enter')
    const picture = await sharp(await (await deliver(page, 'Picture')).path())
      .raw()
      .toBuffer()
    const { pixels } = new Resvg(svg, { fitTo: { mode: 'width', value: 2160 } }).render()
    expect(picture.length, name).toBe(pixels.length)
    // On white: colours of clear dots are of no account.
    const onWhite = (p: ArrayLike<number>, i: number): number =>
      (p[i]! * p[i - (i % 4) + 3]!) / 255 + 255 - p[i - (i % 4) + 3]!
    let sum = 0
    for (let i = 0; i < pixels.length; i++) sum += Math.abs(onWhite(pixels, i) - onWhite(picture, i))
    expect(sum / pixels.length / 255, name).toBeLessThan(0.001)
  }
})
