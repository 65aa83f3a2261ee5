import { readFileSync } from 'node:fs'
import type { CDPSession, Locator, Page } from '@playwright/test'
import type { OpenDrawing } from '../../shared/edits'
import { onScreen, savedDrawing, savedLines } from './support/desk'
import { expect, test } from './support/test'

/** A pen, or a finger, on the glass: every tap and stroke is an action. */
class Hand {
  actions = 0
  private constructor(
    private readonly page: Page,
    private readonly session: CDPSession,
    private readonly kind: 'pen' | 'finger',
  ) {}

  static async on(page: Page, kind: 'pen' | 'finger'): Promise<Hand> {
    return new Hand(page, await page.context().newCDPSession(page), kind)
  }

  async tap(what: Locator): Promise<void> {
    await expect(what).toBeEnabled()
    await what.scrollIntoViewIfNeeded()
    const { x, y, width, height } = (await what.boundingBox())!
    await this.stroke([{ x: x + width / 2, y: y + height / 2 }])
  }

  /** Along points of the screen, pressed harder towards its middle. */
  async stroke(way: { x: number; y: number }[]): Promise<void> {
    this.actions++
    await this.send('mouseMoved', way[0]!, 0)
    // One right after the other: an instrument that is pressed for long is only held.
    if (way.length === 1)
      return void (await Promise.all([this.send('mousePressed', way[0]!, 0.3), this.send('mouseReleased', way[0]!, 0)]))
    await this.send('mousePressed', way[0]!, 0.3)
    for (const [i, at] of way.entries())
      if (i) await this.send('mouseMoved', at, 0.3 + Math.sin((Math.PI * i) / way.length) / 2)
    await this.send('mouseReleased', way.at(-1)!, 0)
  }

  private async send(
    type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
    at: { x: number; y: number },
    force: number,
  ): Promise<unknown> {
    if (this.kind === 'finger')
      return type === 'mouseMoved' && !force
        ? null
        : this.session.send('Input.dispatchTouchEvent', {
            type: TOUCH[type],
            touchPoints: type === 'mouseReleased' ? [] : [{ ...at, id: 4 }],
          })
    return this.session.send('Input.dispatchMouseEvent', {
      type,
      ...at,
      button: 'left',
      buttons: force ? 1 : 0,
      clickCount: 1,
      pointerType: 'pen',
      force,
    })
  }
}

const TOUCH = { mousePressed: 'touchStart', mouseMoved: 'touchMove', mouseReleased: 'touchEnd' } as const

async function sketchOf(page: Page, id: string): Promise<Buffer> {
  const { drawing } = (await (await page.request.get(`/api/drawings/${id}`)).json()) as OpenDrawing
  const [image] = drawing.layers.flatMap((l) => (l.kind === 'sketch' ? l.items : []))
  return (await page.request.get(`/api/images/${image!.image}`)).body()
}

for (const [width, height, most, kind] of [
  [820, 1180, 16, 'pen'],
  [1366, 625, 19, 'pen'],
  [640, 480, 19, 'pen'],
  [1024, 640, 19, 'finger'],
] as const)
  test(`with a ${kind} alone, at ${width} x ${height}: from the sketch to the file`, async ({ page }) => {
    test.setTimeout(240_000)
    await page.setViewportSize({ width, height })
    await page.goto('/')
    const buffer = await sketchOf(page, 'demo-pea-pod')
    const hand = await Hand.on(page, kind)
    const chooser = page.waitForEvent('filechooser')
    await hand.tap(page.getByRole('button', { name: 'Bring in a file' }))
    await (await chooser).setFiles({ name: 'Pods.png', mimeType: 'image/png', buffer })
    await expect(page.getByTestId('canvas')).toBeVisible()
    const pass = (name: string) => page.getByRole('navigation', { name: 'Passes' }).getByRole('button', { name })
    const tool = (name: string) => page.getByTestId('tray').getByRole('button', { name: new RegExp(`^\\w ${name}`) })
    /** The Strip of a low window comes up when it is asked for. */
    const strip = async (what: Locator): Promise<void> => {
      if (!(await what.isVisible())) await hand.tap(page.getByTestId('strip-up'))
      await hand.tap(what)
    }
    await hand.tap(pass('Lines'))
    await hand.tap(tool('Propose'))
    await strip(page.getByTestId('find-lines'))
    await expect(page.getByTestId('proposals')).toContainText('proposed', { timeout: 90_000 })
    await strip(page.getByTestId('take-all'))
    await expect.poll(async () => (await savedLines(page)).length).toBeGreaterThan(20)
    // A leaf vein by hand, pressed.
    const found = (await savedLines(page)).length
    await hand.tap(tool('Freehand'))
    const { page: paper } = await savedDrawing(page)
    const way = await Promise.all(
      Array.from({ length: 24 }, (_, i) =>
        onScreen(page, { x: paper.width * (0.12 + i * 0.008), y: paper.height * (0.08 + 0.02 * Math.sin(i / 5)) }),
      ),
    )
    await hand.stroke(way)
    await expect.poll(async () => (await savedLines(page)).length).toBe(found + 1)
    const stroke = (await savedLines(page)).at(-1)!
    expect(stroke.trace).toMatchObject({ device: kind === 'pen' ? 'pen' : 'touch' })
    const widths = stroke.weight.stops.map((s) => s.left)
    if (kind === 'pen') expect(Math.max(...widths)).toBeGreaterThan(Math.min(...widths) + 0.05)
    await hand.tap(pass('Weight'))
    await hand.tap(tool('Contact'))
    await strip(page.getByRole('button', { name: 'Accept' }))
    await expect.poll(async () => (await savedLines(page)).some((l) => l.weight.end)).toBe(true)
    await hand.tap(pass('Fill'))
    await hand.tap(tool('Flats'))
    await strip(page.getByTestId('starter-inks'))
    await strip(page.getByRole('button', { name: /^Pour|^Accept/ }).first())
    await expect.poll(async () => (await savedDrawing(page)).fills?.length ?? 0).toBeGreaterThan(5)
    await hand.tap(pass('Deliver'))
    const download = page.waitForEvent('download')
    await hand.tap(page.getByTestId('deliver'))
    const svg = readFileSync(await (await download).path(), 'utf8')
    expect(svg.match(/<path/g)!.length).toBeGreaterThan(3)
    expect(svg).not.toContain('stroke-width')
    expect(hand.actions).toBeLessThanOrEqual(most)
  })
