import polylabel from 'polylabel'
import type { Page } from '@playwright/test'
import { newLine, newLinesLayer, newDrawing, evenWeight } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { flatten } from '#core/geometry/cubic'
import { arcOfPath } from '#core/geometry/known'
import { cubicsOfPath } from '#core/geometry/path'
import { windingAt } from '#core/geometry/winding-at'
import { measureOfFace } from '#core/ink/regions/faces'
import { openInk } from '#core/ink/open-ink'
import { atOnce } from '#core/turns'
import { pathsOfData } from '#core/formats/svg/paths'
import { IDENTITY } from '#core/geometry/matrix'
import {
  clickAt,
  deliver,
  dragThrough,
  enterPass,
  layLine,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  textOf,
} from './support/desk'
import { expect, test } from './support/test'
import { polygon, polyline } from '../unit/support/paths'

/** The colour of the topmost shape at a point of a delivered file; null where there is none. */
function colourAt(svg: string, p: Vec): string | null {
  const shapes = [...svg.matchAll(/<path[^>]* d="([^"]*)"[^>]* fill="(#[0-9a-f]{6})"/g)]
  const found = shapes.findLast(
    ([, d]) =>
      windingAt(
        pathsOfData(d!, IDENTITY).map((c) => cubicsOfPath({ ...c, closed: true })),
        p,
      ) !== 0,
  )
  return found?.[2] ?? null
}

async function delivered(page: Page): Promise<string> {
  await enterPass(page, 'Deliver')
  return textOf(await deliver(page, 'Outlines'))
}

/** The places farthest from any edge of the largest regions of a drawing. */
function regionsOf(drawing: Drawing, count: number): Vec[] {
  const faces = atOnce(openInk(drawing).paper(0.3 * drawing.page.pxPerMm))
    .index.faces.filter((f) => f.box)
    .sort((a, b) => measureOfFace(b).area - measureOfFace(a).area)
  return faces.slice(0, count).map((f) => {
    const [x, y] = polylabel(
      f.contours.map((c) =>
        c.flatMap((k) =>
          flatten(k, 0.2)
            .slice(1)
            .map((q): [number, number] => [q.x, q.y]),
        ),
      ),
      0.2,
    )
    return { x: x!, y: y! }
  })
}

const bar = (id: string, a: [number, number], b: [number, number]): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(6) })
const inks = [
  { id: 'black', name: 'Black', colour: '#211c1a' },
  { id: 'straw', name: 'Straw', colour: '#e8c96a' },
  { id: 'leaf', name: 'Leaf', colour: '#4a6a3a' },
]
const boxed = (...more: Line[]): Drawing => ({
  ...newDrawing('Boxes', {
    layers: [
      newLinesLayer('Ink', [
        bar('top', [100, 100], [500, 100]),
        bar('right', [500, 100], [500, 400]),
        bar('bottom', [500, 400], [100, 400]),
        bar('left', [100, 400], [100, 100]),
        ...more,
      ]),
    ],
  }),
  inks,
})
const takeInk = (page: Page, name: string) => page.getByTestId('inks').getByRole('radio', { name, exact: true }).click()

test('fills follow: eight regions of the snail poured, a line bent, undone, deleted, and a region split', async ({
  page,
}) => {
  await startDrawing(page, 'demo-garden-snail')
  const places = regionsOf(await savedDrawing(page), 8)
  expect(places).toHaveLength(8)
  await enterPass(page, 'Fill')
  await page.getByTestId('add-ink').click()
  for (const p of places) {
    await clickAt(page, p)
    await expect(page.getByTestId('save-state')).toContainText('Saved')
  }
  await expect.poll(async () => (await savedDrawing(page)).fills?.length).toBe(8)
  const colour = (await savedDrawing(page)).inks.at(-1)!.colour
  const first = await delivered(page)
  for (const p of places) expect(colourAt(first, p), JSON.stringify(p)).toBe(colour)
  // A node of a line about the largest region is dragged, one that no other line comes near.
  const { fills } = await savedDrawing(page)
  const held = new Set(fills![0]!.hold.map((h) => h.line))
  const lines = await savedLines(page)
  const isAlone = (own: Line, p: Vec): boolean =>
    lines.every((l) => l === own || arcOfPath(l.path).nearest(p).distance > 14)
  const node = lines
    .filter((l) => held.has(l.id))
    .flatMap((l) =>
      l.path.nodes.slice(1, -1).flatMap((n) => (isAlone(l, n.at) ? [{ at: n.at, arc: arcOfPath(l.path) }] : [])),
    )[0]!
  const aside = node.arc.point(node.arc.nearest(node.at).length + 25)
  await enterPass(page, 'Lines')
  await takeUp(page, 'Nodes')
  await clickAt(page, aside)
  await dragThrough(page, [node.at, { x: node.at.x + 3, y: node.at.y + 4 }, { x: node.at.x + 6, y: node.at.y + 8 }])
  const bent = await delivered(page)
  expect(bent).not.toBe(first)
  for (const p of places) expect(colourAt(bent, p)).toBe(colour)
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('save-state')).toContainText('Saved')
  expect(await delivered(page)).toBe(first)
  // A line across the largest region: both of its parts keep the ink.
  await enterPass(page, 'Lines')
  await takeUp(page, 'Pen')
  const p = places[0]!
  await layLine(page, { x: p.x - 300, y: p.y + 3 }, { x: p.x + 300, y: p.y + 3 })
  const split = await delivered(page)
  for (const q of [
    { x: p.x, y: p.y - 9 },
    { x: p.x, y: p.y + 14 },
  ])
    expect(colourAt(split, q)).toBe(colour)
  await page.keyboard.press('Control+z')
})

test('pouring takes in, over and out; a drag pours several; the ground lies beneath; Alt takes an ink up', async ({
  page,
}) => {
  await startDrawing(page, boxed(bar('between', [300, 100], [300, 400])))
  await enterPass(page, 'Fill')
  await takeInk(page, 'Straw')
  await page.mouse.move(10, 10)
  await clickAt(page, { x: 200, y: 250 })
  await expect(page.getByTestId('save-state')).toContainText('Saved')
  await page.keyboard.press('n')
  await expect(page.getByTestId('inks').getByRole('radio', { name: 'Leaf', exact: true })).toBeChecked()
  await clickAt(page, { x: 200, y: 320 })
  await expect.poll(async () => (await savedDrawing(page)).fills?.map((f) => f.ink)).toEqual(['leaf'])
  await clickAt(page, { x: 200, y: 250 })
  await expect.poll(async () => (await savedDrawing(page)).fills).toBeUndefined()
  await dragThrough(
    page,
    [
      { x: 200, y: 250 },
      { x: 400, y: 250 },
    ],
    20,
  )
  await expect.poll(async () => (await savedDrawing(page)).fills?.map((f) => f.ink)).toEqual(['leaf', 'leaf'])
  await page.keyboard.down('Alt')
  await clickAt(page, { x: 300, y: 250 })
  await page.keyboard.up('Alt')
  await expect(page.getByTestId('inks').getByRole('radio', { name: 'Black', exact: true })).toBeChecked()
  await takeInk(page, 'Straw')
  await page.getByRole('button', { name: 'Lay a ground' }).click()
  const svg = await delivered(page)
  expect([
    colourAt(svg, { x: 200, y: 250 }),
    colourAt(svg, { x: 600, y: 450 }),
    colourAt(svg, { x: 300, y: 250 }),
  ]).toEqual(['#4a6a3a', '#e8c96a', '#211c1a'])
  // Nothing grouped, clipped or hidden.
  expect(svg).not.toMatch(/<g|clip|mask|opacity|display/)
})

test('a gap is bridged up to its reach and shown; what is poured on ink or beside the page is refused in a sentence', async ({
  page,
}) => {
  await startDrawing(page, {
    ...boxed(),
    layers: [
      newLinesLayer('Ink', [
        bar('top', [100, 100], [490, 100]),
        bar('right', [500, 100], [500, 400]),
        bar('bottom', [500, 400], [100, 400]),
        bar('left', [100, 400], [100, 100]),
      ]),
    ],
  })
  await enterPass(page, 'Fill')
  await takeInk(page, 'Leaf')
  await page.getByRole('textbox', { name: 'Gaps up to, exactly' }).fill('0.1')
  await page.keyboard.press('Enter')
  await clickAt(page, { x: 300, y: 250 })
  await expect.poll(async () => (await savedDrawing(page)).fills?.map((f) => f.where)).toEqual(['open'])
  await page.keyboard.press('Control+z')
  await page.getByRole('textbox', { name: 'Gaps up to, exactly' }).fill('2')
  await page.keyboard.press('Enter')
  await clickAt(page, { x: 300, y: 250 })
  await expect.poll(async () => (await savedDrawing(page)).fills?.map((f) => f.where)).toEqual(['region'])
  await clickAt(page, { x: 300, y: 100 })
  await expect(page.getByTestId('notice').filter({ hasText: 'This is ink' })).toBeVisible()
})

test('inks are changed, swapped and removed, and everything that has them follows', async ({ page }) => {
  await startDrawing(page, boxed())
  await enterPass(page, 'Fill')
  await takeInk(page, 'Leaf')
  await clickAt(page, { x: 300, y: 250 })
  await page.getByRole('button', { name: 'Change Leaf' }).click()
  await page.getByRole('textbox', { name: /hex/i }).fill('#336699')
  await page.keyboard.press('Tab')
  await expect.poll(async () => (await savedDrawing(page)).inks.find((i) => i.id === 'leaf')!.colour).toBe('#336699')
  await page.getByLabel('The other ink').selectOption({ label: 'Straw' })
  await page.getByRole('button', { name: 'Remove' }).click()
  await expect.poll(async () => (await savedDrawing(page)).fills?.map((f) => f.ink)).toEqual(['straw'])
  expect((await savedDrawing(page)).inks.map((i) => i.id)).toEqual(['black', 'straw'])
  // A chosen line gets another ink, and the next line takes it.
  await enterPass(page, 'Lines')
  await takeUp(page, 'Select')
  await clickAt(page, { x: 300, y: 100 })
  await page.getByTestId('ink').click()
  await page.getByRole('button', { name: 'Straw' }).click()
  await expect
    .poll(async () => (await savedLines(page)).map((l) => l.ink))
    .toEqual(['straw', 'black', 'black', 'black'])
  await takeUp(page, 'Pen')
  await page.keyboard.press('Escape')
  await layLine(page, { x: 150, y: 450 }, { x: 450, y: 455 })
  await expect.poll(async () => (await savedLines(page)).at(-1)!.ink).toBe('straw')
})

test('flats propose what neighbours tell apart, single ones are changed, Enter pours them all', async ({ page }) => {
  await startDrawing(page, boxed(bar('between', [300, 100], [300, 400])))
  await enterPass(page, 'Fill')
  await takeUp(page, 'Flats')
  await expect(page.getByTestId('trial')).toContainText('2 regions would be poured')
  expect((await savedDrawing(page)).fills ?? []).toEqual([])
  await page.keyboard.press('Enter')
  await expect.poll(async () => new Set((await savedDrawing(page)).fills?.map((f) => f.ink)).size).toBe(2)
})

test('shade is painted, a closed line becomes shade, and both stay within the fill', async ({ page }) => {
  const ring = newLine(polygon(300, 200, 360, 250, 300, 300, 240, 250), { id: 'ring', weight: evenWeight(2) })
  await startDrawing(page, boxed(ring))
  await enterPass(page, 'Fill')
  await takeInk(page, 'Straw')
  await clickAt(page, { x: 150, y: 150 })
  await expect.poll(async () => (await savedDrawing(page)).fills?.length).toBe(1)
  await takeUp(page, 'Shade')
  await page.mouse.move(700, 200)
  await clickAt(page, { x: 330, y: 225 })
  await expect.poll(async () => (await savedLines(page)).map((l) => l.id)).toEqual(['top', 'right', 'bottom', 'left'])
  expect((await savedDrawing(page)).fills![0]!.shades).toHaveLength(1)
  await page.getByRole('radio', { name: 'Brush' }).click()
  await dragThrough(
    page,
    [
      { x: 420, y: 200 },
      { x: 440, y: 320 },
      { x: 560, y: 330 },
    ],
    12,
  )
  await expect.poll(async () => (await savedDrawing(page)).fills![0]!.shades?.length).toBe(2)
  const svg = await delivered(page)
  const shade = colourAt(svg, { x: 300, y: 250 })
  expect(shade).not.toBe('#e8c96a')
  expect([
    colourAt(svg, { x: 438, y: 300 }),
    colourAt(svg, { x: 150, y: 250 }),
    colourAt(svg, { x: 540, y: 330 }),
  ]).toEqual([shade, '#e8c96a', null])
})

test('pouring clears loose ends and specks away where that is wanted; a line turned round keeps its fill; inks too like are told', async ({
  page,
}) => {
  const drawing = boxed(
    bar('past', [300, 60], [300, 130]),
    { ...bar('speck', [200, 300], [201, 300]), weight: evenWeight(1) },
    bar('between', [400, 100], [400, 400]),
  )
  await startDrawing(page, { ...drawing, inks: [...drawing.inks, { id: 'corn', name: 'Corn', colour: '#e8c870' }] })
  await enterPass(page, 'Fill')
  await takeInk(page, 'Straw')
  await page.getByLabel('Clear away loose ends and specks').click()
  await clickAt(page, { x: 150, y: 250 })
  await expect
    .poll(async () => (await savedDrawing(page)).amendments?.map((a) => a.kind === 'trim' && a.line).sort())
    .toEqual(['past', 'speck'])
  await page.getByLabel('Clear away loose ends and specks').click()
  await takeInk(page, 'Corn')
  await clickAt(page, { x: 450, y: 250 })
  await expect(page.getByTestId('weak-inks')).toContainText('Two inks lie side by side')
  await enterPass(page, 'Lines')
  await takeUp(page, 'Select')
  await clickAt(page, { x: 400, y: 300 })
  await takeUp(page, 'Nodes')
  await clickAt(page, { x: 400, y: 400 })
  await page.getByRole('button', { name: 'Turn round' }).click()
  await expect.poll(async () => (await savedLines(page)).find((l) => l.id === 'between')!.path.nodes[0]!.at.y).toBe(400)
  const svg = await delivered(page)
  expect([
    colourAt(svg, { x: 200, y: 300 }),
    colourAt(svg, { x: 300, y: 120 }),
    colourAt(svg, { x: 450, y: 250 }),
    colourAt(svg, { x: 350, y: 350 }),
  ]).toEqual(['#e8c96a', '#e8c96a', '#e8c870', '#e8c96a'])
})

test('a file with more colours than a drawing takes: its inks are listed, taken up and poured', async ({ page }) => {
  await page.goto('/')
  const shapes = Array.from(
    { length: 600 },
    (_, i) =>
      `<path d="M${(i % 30) * 20} ${Math.floor(i / 30) * 20}h12v12h-12z" fill="#${(0x101010 + i * 0x061d35).toString(16).slice(-6).padStart(6, '0')}"/>`,
  )
  await page.getByTestId('desk-file').setInputFiles({
    name: 'many.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 400">${shapes.join('')}</svg>`),
  })
  await expect(page.getByTestId('import-notes')).toContainText('500')
  await page.getByRole('button', { name: 'I have read it' }).click()
  expect((await savedDrawing(page)).inks).toHaveLength(500)
  await enterPass(page, 'Fill')
  await expect(page.getByTestId('inks').getByRole('radio')).toHaveCount(500)
  await page.getByTestId('inks').getByRole('radio').nth(499).click()
  await page.getByRole('button', { name: 'Lay a ground' }).click()
  await expect
    .poll(async () => (await savedDrawing(page)).fills?.[0]?.ink)
    .toBe((await savedDrawing(page)).inks[499]!.id)
})

test('a newcomer: the radish is coloured, shaded and delivered in under 25 actions', async ({ page }) => {
  await startDrawing(page, 'demo-radish-bunch')
  const places = regionsOf(await savedDrawing(page), 6)
  let actions = 0
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    actions++
    await work()
  }
  await act(() => enterPass(page, 'Fill'))
  await act(() => page.getByTestId('add-ink').click())
  for (const [i, p] of places.entries()) {
    if (i === 3) await act(() => page.getByTestId('add-ink').click())
    await act(() => clickAt(page, p))
    await expect.poll(async () => (await savedDrawing(page)).fills?.length).toBe(i + 1)
  }
  await act(() => takeUp(page, 'Shade'))
  const p = places[0]!
  await act(() =>
    dragThrough(
      page,
      [
        { x: p.x, y: p.y },
        { x: p.x + 60, y: p.y - 30 },
        { x: p.x + 60, y: p.y + 60 },
        { x: p.x, y: p.y + 40 },
      ],
      10,
    ),
  )
  await expect.poll(async () => (await savedDrawing(page)).fills?.some((f) => f.shades?.length === 1)).toBe(true)
  await act(() => takeUp(page, 'Glow'))
  await act(() => page.keyboard.press('Enter'))
  await expect.poll(async () => (await savedDrawing(page)).fills?.filter((f) => f.lit).length).toBe(6)
  await act(() => enterPass(page, 'Deliver'))
  actions++
  const svg = await delivered(page)
  const colours = new Set([...svg.matchAll(/fill="(#[0-9a-f]{6})"/g)].map((m) => m[1]))
  // Black, two inks, their shades from the light, and the one that was drawn.
  expect(colours.size).toBeGreaterThanOrEqual(5)
  expect(actions).toBeLessThan(25)
})
