import type { OpenDrawing } from '../../shared/edits'
import { RunningServer } from '../server/support/running-server'
import { enterPass, layLine, takeUp } from './support/desk'
import { mostDifference } from './support/pictures'
import { expect, test } from './support/test'

test.use({ serviceWorkers: 'allow' })

test('without the server a drawing that was open lately opens, is worked on over a reload, and all is sent once it is back', async ({
  page,
}) => {
  test.setTimeout(120_000)
  const server = new RunningServer()
  await server.start()
  const onServer = async (id: string): Promise<OpenDrawing> =>
    (await (await server.ask(`/api/drawings/${id}`)).json()) as OpenDrawing
  const linesOf = ({ drawing }: OpenDrawing): number =>
    drawing.layers.reduce((n, l) => n + (l.kind === 'lines' ? l.items.length : 0), 0)
  const state = page.getByTestId('save-state')
  try {
    await page.goto(server.address)
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await page.reload()
    await page.getByRole('banner').getByRole('button', { name: 'New drawing' }).click()
    await expect(state).toContainText('Saved')
    await enterPass(page, 'Lines')
    await takeUp(page, 'Pen')
    await layLine(page, { x: 300, y: 200 }, { x: 520, y: 260 })
    await expect(state).toContainText('Saved')
    const id = /drawings\/([\w-]+)/.exec(page.url())![1]!
    await expect.poll(async () => linesOf(await onServer(id))).toBe(1)

    await server.kill()
    await layLine(page, { x: 310, y: 300 }, { x: 600, y: 330 })
    await expect(state).toContainText('Kept here', { timeout: 15_000 })
    await page.reload()
    await expect(page.getByTestId('notice')).toContainText('as this browser has it')
    await expect(page.getByTestId('canvas')).toBeVisible()
    await takeUp(page, 'Pen')
    await layLine(page, { x: 350, y: 380 }, { x: 500, y: 420 })
    await expect(state).toContainText('Kept here', { timeout: 15_000 })
    // The Desk says what can be opened.
    await page.getByRole('link', { name: 'Desk' }).click()
    await page.getByRole('list', { name: 'Drawings kept in this browser' }).getByRole('link').click()
    await expect(page.getByTestId('canvas')).toBeVisible()
    await page.keyboard.press('Control+z')
    await page.keyboard.press('Control+Shift+z')

    await server.start()
    await expect(state).toContainText('Saved', { timeout: 40_000 })
    await expect.poll(async () => linesOf(await onServer(id)), { timeout: 20_000 }).toBe(3)
    // What was acknowledged in the meantime belongs to what this browser has.
    await expect(state).toContainText('Saved')
    await server.kill()
    await page.reload()
    await expect(page.getByTestId('notice')).toContainText('as this browser has it')
    await takeUp(page, 'Pen')
    await layLine(page, { x: 380, y: 430 }, { x: 540, y: 440 })
    await server.start()
    await expect.poll(async () => linesOf(await onServer(id)), { timeout: 40_000 }).toBe(4)
    expect((await onServer(id)).undo.length).toBe(4)
  } finally {
    await server.end()
  }
})

test('two devices that draw on without the server for long end with one drawing, and with every line of both', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000)
  const server = new RunningServer()
  await server.start()
  const other = await browser.newPage({ viewport: page.viewportSize(), serviceWorkers: 'block' })
  const both = [page, other]
  const state = (p: typeof page) => p.getByTestId('save-state')
  try {
    const made = await server.send('POST', '/api/drawings', { name: 'Hedge' })
    const { id } = (await made.json()) as { id: string }
    for (const p of both) {
      await p.goto(`${server.address}/drawings/${id}`)
      await expect(state(p)).toContainText('Saved')
      await enterPass(p, 'Lines')
      await takeUp(p, 'Pen')
    }
    await server.kill()
    const count = 12
    for (let i = 0; i < count; i++)
      for (const [k, p] of both.entries()) {
        const y = 60 + ((i * 29 + k * 13) % 330)
        await layLine(p, { x: 40 + i * 14 + k * 6, y }, { x: 140 + i * 11, y: y + 17 + k * 9 })
        // Some are thought better of.
        if (i % 6 === 5) await p.keyboard.press('Control+z')
      }
    for (const p of both) await expect(state(p)).toContainText('Kept here', { timeout: 15_000 })
    await server.start()
    for (const p of both) await expect(state(p)).toContainText('Saved', { timeout: 60_000 })
    const lines = async (): Promise<number> => {
      const { drawing } = (await (await server.ask(`/api/drawings/${id}`)).json()) as OpenDrawing
      return drawing.layers.reduce((n, l) => n + (l.kind === 'lines' ? l.items.length : 0), 0)
    }
    const kept = 2 * (count - count / 6)
    await expect.poll(lines, { timeout: 60_000 }).toBe(kept)
    // With its next step a device has what the other did; it looks as whoever opens the drawing sees it, px by px.
    for (const [k, p] of both.entries()) {
      await layLine(p, { x: 60, y: 30 + k * 12 }, { x: 300, y: 40 + k * 12 })
      await expect.poll(lines).toBe(kept + k + 1)
      await expect(state(p)).toContainText('Saved')
    }
    await page.reload()
    await expect(state(page)).toContainText('Saved')
    for (const p of both) {
      await takeUp(p, 'Select')
      await p.keyboard.press('Escape')
      await p.mouse.move(5, 5)
    }
    await expect
      .poll(
        async () => {
          const [a, b] = await Promise.all(both.map((p) => p.getByTestId('canvas').screenshot()))
          return mostDifference(a!, b!)
        },
        { timeout: 30_000 },
      )
      .toBeLessThan(40)
  } finally {
    await other.close()
    await server.end()
  }
})
