import { readFileSync } from 'node:fs'
import type { Download, Locator, Page } from '@playwright/test'
import { expect } from '@playwright/test'
import { newDrawing } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { flatten } from '../../../core/geometry/cubic'
import { cubicsOfPath } from '../../../core/geometry/path'
import { IDENTITY } from '../../../core/geometry/matrix'
import { windingAt } from '../../../core/geometry/winding-at'
import { pathsOfData } from '../../../core/formats/svg/paths'
import type { OpenDrawing } from '../../../shared/edits'

/** A drawing of its own for a test: a copy of a demo drawing, one that is given, or a blank one. Opens it. */
export async function startDrawing(page: Page, from?: string | Drawing): Promise<string> {
  let drawing: Drawing = typeof from === 'object' ? from : newDrawing('Test drawing')
  if (typeof from === 'string')
    drawing = ((await (await page.request.get(`/api/drawings/${from}`)).json()) as OpenDrawing).drawing
  const origin = new URL((await page.request.get('/')).url()).origin
  const response = await page.request.post('/api/drawings', { data: { drawing }, headers: { origin } })
  const { id } = (await response.json()) as { id: string }
  await openDrawing(page, id)
  return id
}

export async function openDrawing(page: Page, id: string): Promise<void> {
  await page.goto(`/drawings/${id}`)
  await expect(page.getByTestId('canvas')).toBeVisible()
  await expect(page.getByTestId('save-state')).toContainText('Saved')
  // A blank drawing opens where a sketch is brought in.
  if ((await savedDrawing(page)).layers.every((l) => !l.items.length)) await enterPass(page, 'Lines')
}

/** The document as the server has it, once everything is saved. */
export async function savedDrawing(page: Page): Promise<Drawing> {
  await expect(page.getByTestId('save-state')).toContainText('Saved')
  const id = page.url().split('/').at(-1)!
  return ((await (await page.request.get(`/api/drawings/${id}`)).json()) as OpenDrawing).drawing
}

/** What is read once it has come to rest: the same twice in a row. */
export async function steady<T>(read: () => Promise<T>): Promise<T> {
  let last = await read()
  await expect
    .poll(
      async () => {
        const before = last
        last = await read()
        return JSON.stringify(last) === JSON.stringify(before)
      },
      { intervals: [120] },
    )
    .toBe(true)
  return last
}

/** A hand that rests for so many ms, where resting is part of the gesture: held keys, clicks that are no double-click, slow strokes. */
export const rest = (page: Page, ms: number): Promise<void> => page.waitForTimeout(ms)

export const linesOf = (d: Drawing): Line[] => d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))

export const savedLines = async (page: Page): Promise<Line[]> => linesOf(await savedDrawing(page))

export const enterPass = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Passes' }).getByRole('button', { name }).click()

export const takeUp = (page: Page, name: string) =>
  page
    .getByTestId('tray')
    .getByRole('button', { name: new RegExp(`^\\w ${name}`) })
    .click()

/** Lays a straight line with the instrument in hand, the Pen or another that takes clicks, and lets it go. */
export async function layLine(page: Page, from: Vec, to: Vec): Promise<void> {
  await clickAt(page, from)
  await clickAt(page, to)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
}

/** Where a point of the page lies on the screen. */
export async function onScreen(page: Page, p: Vec): Promise<Vec> {
  const canvas = page.getByTestId('canvas')
  const [a, b, c, d, e, f] = (await canvas.getAttribute('data-view'))!.split(' ').map(Number) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  const box = (await canvas.boundingBox())!
  return { x: box.x + a * p.x + c * p.y + e, y: box.y + b * p.x + d * p.y + f }
}

export async function clickAt(page: Page, p: Vec): Promise<void> {
  const s = await onScreen(page, p)
  await page.mouse.click(s.x, s.y)
}

/** A press, moves and a release through points of the page. */
export async function dragThrough(page: Page, points: Vec[], steps = 6): Promise<void> {
  const [first, ...rest] = await Promise.all(points.map((p) => onScreen(page, p)))
  await page.mouse.move(first!.x, first!.y)
  await page.mouse.down()
  for (const p of rest) await page.mouse.move(p.x, p.y, { steps })
  await page.mouse.up()
}

/** The same through coordinates of the page, x and y in turn. */
export function drag(page: Page, ...coordinates: number[]): Promise<void> {
  const points = coordinates.flatMap((x, i) => (i % 2 ? [] : [{ x, y: coordinates[i + 1]! }]))
  return dragThrough(page, points)
}

/** Types into a field and presses Enter there. */
export async function enter(field: Locator, text: string): Promise<void> {
  await field.fill(text)
  await field.press('Enter')
}

export async function undo(page: Page, times: number): Promise<void> {
  for (let i = 0; i < times; i++) await page.keyboard.press('Control+z')
}

/** Draws with a pen tablet: pressure by point, 0..1. */
export async function penStroke(page: Page, points: (Vec & { pressure: number })[]): Promise<void> {
  const session = await page.context().newCDPSession(page)
  const screen = await Promise.all(points.map((p) => onScreen(page, p)))
  for (const [i, p] of points.entries()) {
    await session.send('Input.dispatchMouseEvent', {
      type: i === 0 ? 'mousePressed' : i === points.length - 1 ? 'mouseReleased' : 'mouseMoved',
      ...screen[i]!,
      button: 'left',
      buttons: i === points.length - 1 ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force: p.pressure,
    })
  }
}

export const textOf = async (download: Download): Promise<string> => readFileSync(await download.path(), 'utf8')

/** Presses the download button and answers the file, however long a large one takes. */
export async function deliver(page: Page, kind: string): Promise<Download> {
  await page.getByRole('radio', { name: new RegExp(kind) }).click()
  const button = page.getByTestId('deliver')
  await expect(button).toHaveText(/^Download/)
  const [download] = await Promise.all([page.waitForEvent('download', { timeout: 0 }), button.click()])
  return download
}

/** Contours of every path of an SVG of outlines. */
export function contoursOf(svg: string): Path[] {
  return [...svg.matchAll(/ d="([^"]*)"/g)].flatMap(([, d]) => pathsOfData(d!, IDENTITY))
}

/** Ink width of contours across `at`, measured along `direction` by counting where a fine probe is inside, px. */
export function widthAcross(contours: Path[], at: Vec, direction: Vec, reach = 40): number {
  const polygons = contours.map((c) => cubicsOfPath({ ...c, closed: true }).flatMap((s) => flatten(s, 0.005)))
  const step = 0.02
  const inside = (x: number, y: number): boolean => {
    let winding = 0
    for (const points of polygons) {
      for (let i = 1; i < points.length; i++) {
        const [a, b] = [points[i - 1]!, points[i]!]
        if (a.y <= y === b.y <= y) continue
        if (a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x) < x) winding += b.y > a.y ? 1 : -1
      }
    }
    return winding !== 0
  }
  let width = 0
  for (const way of [1, -1]) {
    for (let s = step / 2; s < reach; s += step) {
      if (!inside(at.x + direction.x * s * way, at.y + direction.y * s * way)) break
      width += step
    }
  }
  return width
}

/** Drops a file on an element, as from a folder of the computer. */
export async function dropFile(
  page: Page,
  on: string,
  file: { name: string; type: string; content: Buffer },
): Promise<void> {
  await page.evaluate(
    ([selector, name, type, base64]) => {
      const bytes = Uint8Array.from(atob(base64!), (c) => c.charCodeAt(0))
      const dataTransfer = new DataTransfer()
      dataTransfer.items.add(new File([bytes], name!, { type }))
      document
        .querySelector(selector!)!
        .dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer }))
    },
    [on, file.name, file.type, file.content.toString('base64')] as const,
  )
}

/** Whether delivered outlines have ink at points. */
export async function inkAt(page: Page, ...points: [number, number][]): Promise<boolean[]> {
  await enterPass(page, 'Deliver')
  const contours = contoursOf(await textOf(await deliver(page, 'Outlines'))).map((c) =>
    cubicsOfPath({ ...c, closed: true }),
  )
  return points.map(([x, y]) => windingAt(contours, { x, y }) !== 0)
}
