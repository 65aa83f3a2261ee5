import { readFileSync } from 'node:fs'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { unzipped } from '../../core/formats/archive/zip'
import type { Path } from '#core/geometry/path'
import { expect, test } from './support/test'
import { clickAt, dropFile, linesOf, openDrawing, savedDrawing, savedLines, startDrawing } from './support/desk'

const pathOf = (points: [number, number][]): Path => ({
  nodes: points.map(([x, y]) => ({ at: { x, y }, in: null, out: null, joint: 'corner' })),
  closed: false,
})

test.describe('Desk', () => {
  test('starts blank, from a sketch, and tells what is wrong with a file', async ({ page }) => {
    await page.goto('/')
    const file = page.getByTestId('desk-file')
    await expect(page.getByTestId('card').first().locator('img')).toHaveJSProperty('complete', true)
    await file.setInputFiles({ name: 'sketch.png', mimeType: 'image/png', buffer: Buffer.from('I am a text') })
    await expect(page.getByTestId('notice')).toContainText('not a PNG, JPEG or WebP')
    await file.setInputFiles({ name: 'empty.png', mimeType: 'image/png', buffer: Buffer.alloc(0) })
    await expect(page.getByTestId('notice')).toContainText('is empty')
    await file.setInputFiles({
      name: 'bad.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<!DOCTYPE svg [<!ENTITY a "b">]><svg xmlns="http://www.w3.org/2000/svg">&a;</svg>'),
    })
    await expect(page.getByTestId('notice')).toContainText('entities')
    expect(page.url()).toMatch(/\/$/)
    await file.setInputFiles({
      name: 'script.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><script>document.title = "hacked"</script><path d="M1 1L8 8" stroke="black"/></svg>',
      ),
    })
    await expect(page.getByTestId('import-notes')).toContainText('A script was left out')
    expect(await savedLines(page)).toHaveLength(1)
    await page.getByRole('link', { name: 'Desk' }).click()
    const shot = await page.screenshot({ clip: { x: 0, y: 0, width: 300, height: 200 } })
    await file.setInputFiles({ name: 'Watering can.png', mimeType: 'image/png', buffer: shot })
    await expect(page.getByTestId('sketch')).toBeVisible()
    expect(await savedDrawing(page)).toMatchObject({
      name: 'Watering can',
      layers: [{ kind: 'sketch', locked: true }, { kind: 'lines' }],
    })
    await page.getByRole('link', { name: 'Desk' }).click()
    await page.getByRole('button', { name: 'New drawing' }).click()
    await expect(page.getByTestId('canvas')).toBeVisible()
    expect((await savedDrawing(page)).layers).toHaveLength(1)
  })

  test('renames, puts into the bin and puts back', async ({ page }) => {
    await startDrawing(page)
    await page.goto('/')
    const card = page.getByTestId('card').filter({ hasText: 'Test drawing' }).first()
    await card.getByRole('button', { name: /More for/ }).click()
    await page.getByRole('menuitem', { name: 'Rename' }).click()
    await page.getByLabel('Name of the drawing').fill('Clover and moth')
    await page.keyboard.press('Enter')
    const renamed = page.getByTestId('card').filter({ hasText: 'Clover and moth' })
    await expect(renamed).toHaveCount(1)
    await renamed.getByRole('button', { name: /More for/ }).click()
    await page.getByRole('menuitem', { name: 'Into the bin' }).click()
    await expect(renamed).toHaveCount(0)
    await page.getByTestId('notice').getByRole('button', { name: 'Put back' }).click()
    await expect(renamed).toHaveCount(1)
    // Also when the notice is long gone.
    await renamed.getByRole('button', { name: /More for/ }).click()
    await page.getByRole('menuitem', { name: 'Into the bin' }).click()
    await expect(renamed).toHaveCount(0)
    await page.reload()
    await page.getByRole('button', { name: /^Bin/ }).click()
    await page.getByRole('button', { name: 'Put Clover and moth back' }).click()
    await expect(renamed).toHaveCount(1)
  })

  test('an unknown drawing is told so, with a way back', async ({ page }) => {
    await page.goto('/drawings/nobody')
    await expect(page.getByRole('alert')).toContainText('There is no such drawing')
    await page.getByRole('link', { name: 'Back to the Desk' }).click()
    await expect(page.getByTestId('card').first()).toBeVisible()
  })
})

test.describe('Saving', () => {
  test('steps made while the server is away survive a reload and are saved when it is back', async ({ page }) => {
    const id = await startDrawing(page)
    await page.route('**/edits', (route) => route.abort())
    await clickAt(page, { x: 100, y: 100 })
    await clickAt(page, { x: 300, y: 100 })
    await page.keyboard.press('Enter')
    await expect(page.getByTestId('save-state')).toHaveText('Kept here, not saved yet')
    await page.reload()
    await expect(page.getByTestId('save-state')).toHaveText('Kept here, not saved yet')
    await page.unroute('**/edits')
    await expect(page.getByTestId('save-state')).toContainText('Saved')
    expect(await savedLines(page)).toHaveLength(1)
    await openDrawing(page, id)
    await page.getByRole('button', { name: 'Undo' }).click()
    expect(await savedLines(page)).toHaveLength(0)
  })

  test('two windows on one drawing keep both changes', async ({ page, context }) => {
    const id = await startDrawing(page)
    const other = await context.newPage()
    await openDrawing(other, id)
    for (const [p, y] of [
      [page, 100],
      [other, 300],
    ] as const) {
      await clickAt(p, { x: 100, y })
      await clickAt(p, { x: 300, y })
      await p.keyboard.press('Enter')
      await expect(p.getByTestId('save-state')).toContainText('Saved')
    }
    await expect(other.getByTestId('notice')).toContainText('Both changes were kept')
    expect(
      linesOf(await savedDrawing(other))
        .map((l) => Math.round(l.path.nodes[0]!.at.y))
        .sort(),
    ).toEqual([100, 300])
  })
})

test('a picture dropped on the page becomes the sketch; a text dropped there does not', async ({ page }) => {
  await startDrawing(page)
  const picture = await page.screenshot({ clip: { x: 0, y: 0, width: 60, height: 40 } })
  await dropFile(page, '[data-testid=canvas]', {
    name: 'note.png',
    type: 'image/png',
    content: Buffer.from('just words'),
  })
  await expect(page.getByTestId('notice')).toContainText('not a PNG, JPEG or WebP')
  expect((await savedDrawing(page)).layers).toHaveLength(1)
  await dropFile(page, '[data-testid=canvas]', { name: 'scan.png', type: 'image/png', content: picture })
  await expect(page.getByTestId('sketch')).toBeVisible()
  expect((await savedDrawing(page)).layers.map((l) => l.kind)).toEqual(['sketch', 'lines'])
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('sketch')).toHaveCount(0)
})

test('a picture dropped on the Desk starts a drawing over it', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByTestId('card').first()).toBeVisible()
  const picture = await page.screenshot({ type: 'jpeg', clip: { x: 0, y: 0, width: 60, height: 90 } })
  await dropFile(page, 'main', { name: 'Clover.jpg', type: 'image/jpeg', content: picture })
  await expect(page.getByTestId('sketch')).toBeVisible()
  const { name, page: paper, layers } = await savedDrawing(page)
  expect(name).toBe('Clover')
  // A tall sketch gets a tall page.
  expect(paper.height).toBeGreaterThan(paper.width)
  expect(layers.map((l) => [l.kind, l.locked, l.opacity])).toEqual([
    ['sketch', true, 0.5],
    ['lines', false, 1],
  ])
})

test('an SVG by another hand comes in as it looks, and what came otherwise is listed with a way to see where', async ({
  page,
}) => {
  await page.goto('/')
  const leaf = '<symbol id="leaf" viewBox="0 0 10 10"><path d="M1 9C1 3 5 1 9 1C9 6 6 9 1 9Z"/></symbol>'
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300"><style>.g { fill: #4a6a3a }</style>${leaf}<g id="Leaves"><use class="g" href="#leaf" x="40" y="40" width="80" height="80"/><use class="g" href="#leaf" x="240" y="140" width="80" height="80"/></g><text x="40" y="260">Peas</text><text x="300" y="40">Beans</text></svg>`
  await page
    .getByTestId('desk-file')
    .setInputFiles({ name: 'leaves.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) })
  const list = page.getByTestId('import-notes')
  await expect(list).toContainText('Lettering was left out')
  await expect(list).toContainText('2 times')
  const drawing = await savedDrawing(page)
  expect(drawing.layers.map((l) => [l.name, l.items.length])).toEqual([['Leaves', 2]])
  const view = () => page.getByTestId('canvas').getAttribute('data-view')
  await list.getByRole('button', { name: /See where/ }).click()
  await expect(list).toContainText('1 of 2')
  const first = await view()
  await list.getByRole('button', { name: /See where/ }).click()
  await expect(list).toContainText('2 of 2')
  expect(await view()).not.toBe(first)
  await list.getByRole('button', { name: 'I have read it' }).click()
  await expect(list).toBeHidden()
})

test('among a hundred drawings one is found by its name, put in order, opened by it, renamed in place and duplicated', async ({
  page,
}) => {
  const origin = new URL((await page.request.get('/')).url()).origin
  for (let i = 1; i <= 100; i++)
    await page.request.post('/api/drawings', {
      data: { name: i === 42 ? 'Café poster' : `Seed packet ${i}` },
      headers: { origin },
    })
  await page.goto('/')
  const cards = page.getByTestId('card')
  await expect.poll(() => cards.count()).toBeGreaterThan(99)
  await page.getByLabel('Order of the drawings').selectOption('name')
  await page.keyboard.press('Tab')
  await page.keyboard.press('/')
  await expect(page.getByTestId('find-drawings')).toBeFocused()
  await page.keyboard.type('packet seed 1')
  await expect(cards).toHaveCount(20)
  // As people count: 2 comes before 10.
  expect((await cards.locator('p a').allTextContents()).slice(0, 3)).toEqual([
    'Seed packet 1',
    'Seed packet 10',
    'Seed packet 11',
  ])
  await page.getByTestId('find-drawings').fill('nothing of the kind')
  await expect(page.getByRole('button', { name: /Show all/ })).toBeVisible()
  await page.getByTestId('find-drawings').fill('CAFE')
  await expect(cards).toHaveCount(1)
  await cards.getByRole('link', { name: 'Café poster', exact: true }).focus()
  await page.keyboard.press('F2')
  await page.getByLabel('Name of the drawing').fill('Cafe menu')
  await page.keyboard.press('Enter')
  await expect(cards.getByRole('link', { name: 'Cafe menu', exact: true })).toBeVisible()
  await cards.getByRole('button', { name: /More for/ }).click()
  await page.getByRole('menuitem', { name: /^Duplicate as it/ }).click()
  await expect(cards).toHaveCount(2)
  await expect(page.locator(':focus')).toHaveAttribute('aria-label', 'Open Cafe menu copy')
  await page.getByRole('link', { name: 'Cafe menu', exact: true }).click()
  await expect(page.getByTestId('canvas')).toBeVisible()
  await page.goto('/')
  await expect(page.getByLabel('Order of the drawings')).toHaveValue('name')
})

test('several drawings are chosen by key, laid on a shelf, backed up, put into the bin and thrown away', async ({
  page,
}) => {
  const origin = new URL((await page.request.get('/')).url()).origin
  for (const name of ['Shelf A', 'Shelf B', 'Shelf C', 'Shelf D'])
    await page.request.post('/api/drawings', {
      data: {
        drawing: {
          ...newDrawing(name),
          layers: [
            newLinesLayer('Lines', [
              newLine(
                pathOf([
                  [40, 40],
                  [300, 90],
                ]),
              ),
            ]),
          ],
        },
      },
      headers: { origin },
    })
  await page.goto('/')
  const cards = page.getByTestId('card')
  await page.getByTestId('find-drawings').fill('shelf')
  await expect(cards).toHaveCount(4)
  await page.getByLabel('Order of the drawings').selectOption('name')
  await expect(cards.first().getByTestId('card-state')).toContainText('to look at')
  await cards.first().getByRole('link').first().focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('Shift+ArrowRight')
  const bar = page.getByTestId('chosen-bar')
  await expect(bar).toContainText('2 chosen')
  await bar.getByLabel('Lay the chosen drawings on a shelf').selectOption('new')
  await bar.getByLabel('Name of the new shelf').fill('Class 4b')
  await page.keyboard.press('Enter')
  const shelves = page.getByRole('navigation', { name: 'Shelves' })
  await expect(shelves.getByRole('button', { name: 'Class 4b 2' })).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    bar.getByRole('button', { name: 'Back up' }).click(),
  ])
  const backup = readFileSync(await download.path())
  await page.keyboard.press('Escape')
  await expect(bar).toBeHidden()
  await page.getByTestId('find-drawings').fill('4b')
  await expect(cards).toHaveCount(2)
  await page.getByTestId('find-drawings').fill('')
  await shelves.getByRole('button', { name: 'Class 4b 2' }).click()
  await expect(cards).toHaveCount(2)
  await cards.first().getByRole('link').first().focus()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  await expect(page.getByTestId('notice')).toContainText('2 drawings are in the bin, for 30 days')
  await expect(cards).toHaveCount(0)
  const bin = page.getByTestId('bin')
  await bin.getByRole('button', { name: /^Bin/ }).click()
  await bin.getByRole('button', { name: 'Throw Shelf A away' }).click()
  await bin.getByRole('button', { name: 'For good' }).click()
  await expect(bin.getByText('Shelf A', { exact: true })).toHaveCount(0)
  // The backup brings both back: one is new again, the other comes out of the bin.
  await page.getByTestId('desk-file').setInputFiles({ name: 'backup.zip', mimeType: 'application/zip', buffer: backup })
  await expect(page.getByTestId('notice')).toContainText('1 drawing brought in; 1 drawing was here already.')
  await expect(cards).toHaveCount(2)
  await page
    .getByTestId('desk-file')
    .setInputFiles({ name: 'broken.zip', mimeType: 'application/zip', buffer: backup.subarray(0, 400) })
  await expect(page.getByTestId('notice')).toContainText('no zip archive, or it is damaged')
  // The shelf is taken down, the drawings stay.
  await shelves.getByRole('button', { name: 'Take the shelf Class 4b down' }).click()
  await expect(page.getByTestId('notice')).toContainText('lie on no shelf')
  await page.getByTestId('find-drawings').fill('shelf')
  await expect(cards).toHaveCount(4)
})

test('a drawing becomes a template: blank starts and sketches begin with what it holds; a page has a size of its own', async ({
  page,
}) => {
  const origin = new URL((await page.request.get('/')).url()).origin
  await page.request.post('/api/drawings', {
    data: {
      drawing: {
        ...newDrawing('Border'),
        layers: [
          newLinesLayer('Frame', [
            newLine(
              pathOf([
                [20, 20],
                [700, 20],
              ]),
            ),
          ]),
        ],
      },
    },
    headers: { origin },
  })
  await page.goto('/')
  const border = page.getByTestId('card').filter({ has: page.getByRole('link', { name: 'Border', exact: true }) })
  await border.getByRole('button', { name: /More for/ }).click()
  await expect(page.getByText('On disk, with its history:')).toContainText('kB')
  await page.getByRole('menuitem', { name: /Use as a template/ }).click()
  await expect(border).toContainText('Template')
  await page.getByTestId('new-page').selectOption({ label: 'Border' })
  await page.getByRole('button', { name: 'New drawing' }).click()
  await expect(page.getByLabel('Name of the drawing')).toHaveValue('Border 2')
  expect((await savedDrawing(page)).layers.map((l) => [l.name, l.items.length])).toEqual([['Frame', 1]])
  await page.goto('/')
  const shot = await page.screenshot({ clip: { x: 0, y: 0, width: 300, height: 200 } })
  await page.getByTestId('desk-file').setInputFiles({ name: 'Pupil.png', mimeType: 'image/png', buffer: shot })
  await expect(page.getByTestId('sketch')).toBeVisible()
  expect(await savedDrawing(page)).toMatchObject({
    name: 'Pupil',
    page: { width: 720 },
    layers: [{ kind: 'sketch' }, { name: 'Frame' }],
  })
  await page.goto('/')
  await page.getByTestId('new-page').selectOption('own')
  await page.getByLabel('Width').fill('62,5')
  await page.getByLabel('Height').fill('40')
  await page.getByRole('button', { name: 'New drawing' }).click()
  expect((await savedDrawing(page)).page).toMatchObject({ width: 375, height: 240, unit: 'mm' })
})

test('chosen drawings are delivered as one archive with one set of settings', async ({ page }) => {
  await page.goto('/')
  const cards = page.getByTestId('card')
  await page.getByTestId('find-drawings').fill('shelf')
  await expect(cards.first()).toBeVisible()
  const count = await cards.count()
  await cards.first().getByRole('link').first().focus()
  await page.keyboard.press('Control+a')
  await page.getByRole('button', { name: 'Deliver as zip …' }).click()
  const many = page.getByTestId('many')
  await many.getByLabel('Settings for all drawings').selectOption('cutter')
  await many.getByRole('button', { name: 'Make the archive' }).click()
  const link = many.getByRole('link', { name: 'Download ZIP' })
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  const files = unzipped(readFileSync(await download.path()), { files: 99, bytes: 1e8 })
  expect(files.size).toBe(count)
  expect([...files.keys()].every((name) => /^shelf-.*\.svg$/.test(name))).toBe(true)
})
