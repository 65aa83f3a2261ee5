import { expect, test } from './support/test'
import { sampleCount } from '#core/model/line-trace'
import { writeSvg } from '../../core/formats/svg/write-svg'
import { arcOfPath } from '../../core/geometry/known'
import { shapesOf } from '../../core/ink/shapes-of'
import { areaOfCubics } from '../../core/geometry/area'
import { cubicsOfPath } from '../../core/geometry/path'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { countedArea } from '../unit/support/counted-area'
import {
  clickAt,
  contoursOf,
  deliver,
  drag,
  dragThrough,
  enterPass,
  linesOf,
  onScreen,
  savedDrawing,
  savedLines,
  startDrawing,
  steady,
  takeUp,
  textOf,
  widthAcross,
} from './support/desk'
import { comparePictures } from './support/pictures'

const PAGE = { width: 720, height: 524 }

const area = (contours: Path[]): number => contours.reduce((a, c) => a + areaOfCubics(cubicsOfPath(c)), 0)

test('from a pencil sketch to an expanded file', async ({ page }) => {
  await page.goto('/')
  for (const name of ['Radish bunch', 'Pea pod', 'Garden snail'])
    await expect(page.getByTestId('card').filter({ hasText: name })).not.toHaveCount(0)
  await startDrawing(page, 'demo-radish-bunch')
  await expect(page.getByTestId('sketch')).toBeVisible()
  const before = (await savedLines(page)).length

  // A pen line: two corners and a curve between, finished with Enter.
  await enterPass(page, 'Lines')
  await takeUp(page, 'Pen')
  await clickAt(page, { x: 40, y: 40 })
  await drag(page, 60, 200, 80, 240)
  await clickAt(page, { x: 40, y: 400 })
  await page.keyboard.press('Enter')

  // A freehand line.
  await takeUp(page, 'Freehand')
  await dragThrough(
    page,
    Array.from({ length: 30 }, (_, i) => ({ x: 660 + 24 * Math.sin(i / 5), y: 60 + i * 12 })),
    2,
  )
  let drawing = await savedDrawing(page)
  expect(linesOf(drawing)).toHaveLength(before + 2)
  const [pen, freehand] = linesOf(drawing).filter((l) => l.path.nodes[0]!.at.x < 60 || l.trace) as [Line, Line]
  expect(pen.path.nodes).toHaveLength(3)
  expect(pen.path.nodes[1]!.joint).toBe('smooth')
  expect(sampleCount(freehand.trace!)).toBeGreaterThan(30)
  expect(freehand.path.nodes.length).toBeLessThanOrEqual(8)

  // Taper the freehand line, which is chosen.
  await enterPass(page, 'Weight')
  await page.getByRole('button', { name: 'Both ends tapered' }).click()
  drawing = await savedDrawing(page)
  const tapered = linesOf(drawing).find((l) => l.id === freehand.id)!
  expect(tapered.weight.stops.map((s) => s.left)).toEqual([0, 1, 0])

  // Drag a width stop on the canvas: the pen line, at its smooth node, out to about 9 px on either side.
  await takeUp(page, 'Caliper')
  const { at } = pen.path.nodes[1]!
  const side = { x: Math.cos(Math.PI / 8), y: -Math.sin(Math.PI / 8) }
  await dragThrough(page, [
    at,
    { x: at.x + side.x * 4, y: at.y + side.y * 4 },
    { x: at.x + side.x * 6, y: at.y + side.y * 6 },
  ])
  drawing = await savedDrawing(page)
  const weighed = linesOf(drawing).find((l) => l.id === pen.id)!
  // The ends keep their width.
  expect(weighed.weight.stops.map((s) => s.left === 1)).toEqual([true, true, false, true])
  expect(weighed.weight.stops[2]!.left).toBeGreaterThan(1.8)

  // Drag the same stop in the weight graph.
  const jaw = page.getByTestId('stop-2').getByTestId('jaw-left')
  const box = (await jaw.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 12, { steps: 4 })
  await page.mouse.up()
  drawing = await savedDrawing(page)
  const graphed = linesOf(drawing).find((l) => l.id === pen.id)!
  expect(graphed.weight.stops[2]!.left).toBeLessThan(weighed.weight.stops[2]!.left - 0.1)
  expect(graphed.weight.stops[2]!.right).toBeCloseTo(graphed.weight.stops[2]!.left, 6)

  // Reload in the middle: everything is there, undo included.
  await page.reload()
  await expect(page.getByTestId('canvas')).toBeVisible()
  expect((await savedLines(page)).find((l) => l.id === pen.id)).toEqual(graphed)
  await page.getByRole('button', { name: 'Undo' }).click()
  expect((await savedLines(page)).find((l) => l.id === pen.id)!.weight).toEqual(weighed.weight)
  await page.getByRole('button', { name: 'Redo' }).click()
  expect((await savedLines(page)).find((l) => l.id === pen.id)).toEqual(graphed)

  // Expand and simplify.
  await enterPass(page, 'Shapes')
  await expect(page.getByTestId('nodes-after')).not.toHaveText('0')
  const nodesBefore = Number(await page.getByTestId('nodes-before').textContent())
  const nodesAfter = Number(await page.getByTestId('nodes-after').textContent())
  const deviation = Number(await page.getByTestId('deviation').textContent())
  expect(nodesBefore).toBeLessThan(600)
  expect(nodesAfter).toBeLessThan(nodesBefore * 0.8)
  expect(deviation).toBeGreaterThan(0)
  expect(deviation).toBeLessThanOrEqual(0.15)

  // The file: closed contours, no strokes, the right area, few nodes, the width that was dragged.
  await enterPass(page, 'Deliver')
  const svg = await textOf(await deliver(page, 'Outlines'))
  expect(svg).not.toContain('stroke')
  const contours = contoursOf(svg)
  expect(contours.every((c) => c.closed)).toBe(true)
  const lines = await savedLines(page)
  expect(Math.abs(area(contours) / countedArea(lines, PAGE, 0.5) - 1)).toBeLessThan(0.005)
  expect(contours.reduce((n, c) => n + c.nodes.length, 0)).toBeLessThan(lines.length * 9)
  const wide = (graphed.weight.stops[2]!.left * graphed.weight.size) / 2
  const tangent = { x: pen.path.nodes[1]!.out!.x - at.x, y: pen.path.nodes[1]!.out!.y - at.y }
  const l = Math.hypot(tangent.x, tangent.y)
  expect(widthAcross(contours, at, { x: tangent.y / l, y: -tangent.x / l })).toBeCloseTo(2 * wide, 0)
})

test('shapes follow when a line changes', async ({ page }) => {
  await startDrawing(page, 'demo-pea-pod')
  await enterPass(page, 'Shapes')
  await expect(page.getByTestId('shape-count')).toHaveText('1')
  const before = await page.getByTestId('nodes-before').textContent()
  await enterPass(page, 'Lines')
  await takeUp(page, 'Pen')
  await clickAt(page, { x: 560, y: 420 })
  await clickAt(page, { x: 690, y: 500 })
  await page.keyboard.press('Enter')
  await enterPass(page, 'Shapes')
  await expect(page.getByTestId('nodes-before')).not.toHaveText(before!)
  const drawing = await savedDrawing(page)
  expect(drawing.layers.every((layer) => layer.kind !== 'shapes')).toBe(true)
  await page.getByTestId('unite').click()
  await expect(page.getByTestId('shape-count')).toHaveText(String(linesOf(drawing).length))
  // Undo covers settings too.
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('shape-count')).toHaveText('1')
})

test('the ink on screen is the file: exported outlines match the canvas picture', async ({ page }) => {
  await startDrawing(page, 'demo-garden-snail')
  await enterPass(page, 'Deliver')
  const svg = await textOf(await deliver(page, 'Outlines'))
  await steady(async () => (await page.getByTestId('canvas').screenshot()).toString('base64'))
  // The page's rectangle of the canvas, without the buttons at its edge.
  const [a, b] = await Promise.all([onScreen(page, { x: 0, y: 0 }), onScreen(page, { x: 720, y: 524 })])
  const clip = {
    x: Math.ceil(a.x) + 40,
    y: Math.ceil(a.y) + 10,
    width: Math.floor(b.x - a.x) - 80,
    height: Math.floor(b.y - a.y) - 60,
  }
  const shot = await page.screenshot({ clip })
  const place = { width: Math.round(b.x - a.x), left: Math.round(clip.x - a.x), top: Math.round(clip.y - a.y) }
  const { share, width } = await comparePictures(svg, shot, place)
  expect(width).toBe(Math.round(b.x - a.x))
  expect(share).toBe(0)
  // A single line that is missing would show, were it the shortest.
  const drawing = await savedDrawing(page)
  const lines = linesOf(drawing)
  const shortest = lines.reduce((s, l) => (arcOfPath(l.path).total < arcOfPath(s.path).total ? l : s))
  const without = {
    ...drawing,
    layers: drawing.layers.map((l) =>
      l.kind === 'lines' ? { ...l, items: l.items.filter((i) => i.id !== shortest.id) } : l,
    ),
  }
  expect(
    (await comparePictures(writeSvg(without, { content: 'outlines', shapes: shapesOf(without).shapes }), shot, place))
      .share,
  ).toBeGreaterThan(0)
})
