import type { Page } from '@playwright/test'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { openDrawing, withApplication } from './application'
import type { Spread } from './spread'
import { spread } from './spread'
import { strokes } from './strokes'

const LINES = 2000

/** How long the hand waits for its ink. */
export interface HandRow {
  work: string
  samples: number
  /** From when the application hears of the pointer to the end of the frame's drawing. */
  drawing: Spread
  /** The same from when the pointer moved: with the wait for the next frame. */
  whole: Spread
}

/** Pointer to ink in the built application with 2,000 lines on the page, in headless Chromium that draws in software. */
export const handRows = (): Promise<HandRow[]> =>
  withApplication(async (page) => {
    await openCrowded(page)
    return [
      await measured(page, 'a freehand stroke', 'Freehand', wave(240, 2)),
      await measured(page, 'a long freehand stroke', 'Freehand', wave(1500, 0.36)),
      await measured(page, 'the chord of a bow, drawn to places', 'Bow', wave(120, 3)),
      await measured(page, 'a blot', 'Blot', wave(120, 3)),
      ...(await weightRows(page)),
      ...(await shapesRows(page)),
    ]
  })

/** The hand in the Weight pass: a stop of one line, and the light over all of them. */
async function weightRows(page: Page): Promise<HandRow[]> {
  await page.keyboard.press('3')
  // Up and down again across a line near the middle.
  const stop = Array.from({ length: 240 }, (_, i): [number, number] => [460, 330 + 14 * Math.sin(i / 12)])
  const light = Array.from({ length: 240 }, (_, i): [number, number] => [
    500 + 330 * Math.cos(i / 40),
    310 + 240 * Math.sin(i / 40),
  ])
  return [
    await measured(page, 'a width stop, dragged across', 'Caliper', stop),
    await measured(page, 'the light, dragged over all of them', 'Light', light),
  ]
}

const DRAGS = 24

/** With Shapes open: from letting a node of a line go to the new count of nodes, and to the last tile of its ink. */
async function shapesRows(page: Page): Promise<HandRow[]> {
  const entered = Date.now()
  await page.keyboard.press('4')
  await page.getByTestId('nodes-after').waitFor({ timeout: 120_000 })
  const first = Date.now() - entered
  await page.waitForTimeout(3000)
  await page
    .getByTestId('tray')
    .getByRole('button', { name: /^\w Nodes/ })
    .click()
  await page.evaluate(() => {
    const times: [number, number][] = []
    Object.assign(window, { shapeTimes: times })
    let let_go = 0
    let told = 0
    let drawn = 0
    const tiles = document.querySelector('[data-testid=canvas] canvas')!
    const { drawImage } = CanvasRenderingContext2D.prototype
    CanvasRenderingContext2D.prototype.drawImage = function (this: CanvasRenderingContext2D, ...a: unknown[]) {
      if (this.canvas === tiles) drawn = performance.now()
      Reflect.apply(drawImage, this, a)
    }
    new MutationObserver(() => (told = told || performance.now())).observe(
      document.querySelector('[data-testid=shape-numbers]')!,
      { subtree: true, characterData: true, childList: true },
    )
    window.addEventListener(
      'pointerup',
      (e) => {
        let_go = e.timeStamp
        told = drawn = 0
        setTimeout(() => times.push([told - let_go, drawn - let_go]), 1500)
      },
      { capture: true },
    )
  })
  for (let i = 0; i < DRAGS; i++) {
    const x = 250 + (i % 6) * 95
    const y = 180 + Math.floor(i / 6) * 80
    await page.mouse.click(x, y)
    await page.waitForTimeout(700)
    await page.mouse.move(x + 3, y + 3)
    await page.mouse.down()
    for (let k = 1; k <= 6; k++) await page.mouse.move(x + 3 + k * 2, y + 3 + k)
    await page.mouse.up()
    await page.waitForTimeout(1700)
  }
  const times = (
    await page.evaluate(() => (window as unknown as { shapeTimes: [number, number][] }).shapeTimes)
  ).filter(([told, drawn]) => told > 0 && drawn > 0)
  return [
    { work: 'Shapes entered for the first time', samples: 1, drawing: spread([first]), whole: spread([first]) },
    {
      work: 'with Shapes open, a line changed: the count, and the ink',
      samples: times.length,
      drawing: spread(times.map((t) => t[0])),
      whole: spread(times.map((t) => t[1])),
    },
  ]
}

async function openCrowded(page: Page): Promise<void> {
  await openDrawing(
    page,
    newDrawing('Crowded', {
      page: { width: 900, height: 620, unit: 'px', pxPerMm: 4 },
      layers: [newLinesLayer('Lines', strokes(LINES))],
    }),
  )
  await page.waitForTimeout(6000)
}

/** Screen places along a wave over the drawing. */
const wave = (count: number, step: number): [number, number][] =>
  Array.from({ length: count }, (_, i) => [180 + i * step, 300 + 120 * Math.sin((i * step) / 60)])

export async function measured(page: Page, work: string, tool: string, way: [number, number][]): Promise<HandRow> {
  await page
    .getByTestId('tray')
    .getByRole('button', { name: new RegExp(`^\\w ${tool}`) })
    .click()
  await page.mouse.move(...way[0]!)
  await page.evaluate(() => {
    const times: [number, number][] = []
    let heard = 0
    Object.assign(window, { handTimes: times })
    window.addEventListener('pointermove', () => (heard = performance.now()), { capture: true })
    // Heard after the application, and called back in the same frame after its own drawing.
    window.addEventListener('pointermove', (e) => {
      const began = heard
      requestAnimationFrame(() => times.push([performance.now() - began, performance.now() - e.timeStamp]))
    })
  })
  await page.mouse.down()
  for (const p of way.slice(1)) await page.mouse.move(...p)
  await page.mouse.up()
  await page.waitForTimeout(800)
  const times = await page.evaluate(() => (window as unknown as { handTimes: [number, number][] }).handTimes)
  await page.keyboard.press('Escape')
  return { work, samples: times.length, drawing: spread(times.map((t) => t[0])), whole: spread(times.map((t) => t[1])) }
}
