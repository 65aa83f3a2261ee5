import type { Page } from '@playwright/test'
import { defaultPage } from '#core/model/create'
import type { Path } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { arcOfPath } from '#core/geometry/known'
import { pencilSketch } from '../../demo/kit/pencil'
import { SCENARIO } from '../../demo/scenario'
import { distances, placesOn, share } from '../unit/support/judge-proposals'
import { enterPass, onScreen, savedDrawing, savedLines, takeUp } from './support/desk'
import { expect, test } from './support/test'

/** What a hand does is counted: each press of a button or a key, each click and each drag on the drawing. */
function counting(page: Page) {
  let done = 0
  const act = async (what: () => Promise<unknown>): Promise<void> => {
    done++
    await what()
  }
  const drag = (points: readonly Vec[]): Promise<void> =>
    act(async () => {
      const [first, ...rest] = await Promise.all(points.map((p) => onScreen(page, p)))
      await page.mouse.move(first!.x, first!.y)
      await page.mouse.down()
      for (const p of rest) await page.mouse.move(p.x, p.y, { steps: 8 })
      await page.mouse.up()
    })
  return { act, drag, done: () => done }
}

test('a newcomer inks the radish from its sketch with proposals and Cling in under 60 actions', async ({ page }) => {
  test.setTimeout(240_000)
  const truth = SCENARIO[0]!()
    .layers.flatMap((l) => l.lines)
    .map((l) => l.path)
  const sketch = await pencilSketch(
    SCENARIO[0]!().layers.flatMap((l) => l.lines),
    defaultPage(),
    41,
  )
  const { act, drag, done } = counting(page)
  await page.goto('/')
  await act(() =>
    page.getByTestId('desk-file').setInputFiles({ name: 'radish.png', mimeType: 'image/png', buffer: sketch }),
  )
  await expect(page.getByTestId('sketch')).toBeVisible()
  await act(() => enterPass(page, 'Sketch'))
  await act(() => page.getByTestId('clean').click())
  await expect(page.locator('canvas[data-testid=sketch]')).toHaveAttribute('data-made', /even/, { timeout: 30_000 })
  await act(() => enterPass(page, 'Lines'))
  await act(() => takeUp(page, 'Propose'))
  await act(() => page.getByTestId('find-lines').click())
  await expect(page.getByTestId('proposals')).toContainText('proposed', { timeout: 60_000 })
  const { width, height } = (await savedDrawing(page)).page
  // The page has the proportions of the sketch, and a size of its own.
  const k = width / defaultPage().width
  const drawn: Path[] = truth.map((p) => ({
    ...p,
    nodes: p.nodes.map((n) => ({
      ...n,
      at: { x: n.at.x * k, y: n.at.y * k },
      in: n.in && { x: n.in.x * k, y: n.in.y * k },
      out: n.out && { x: n.out.x * k, y: n.out.y * k },
    })),
  }))
  const inked = async (): Promise<Path[]> => (await savedLines(page)).map((l) => l.path)
  // Sweeps from left to right, a little below each other.
  for (let y = 24 * k; y < height; y += 24 * k)
    await drag([
      { x: 8 * k, y },
      { x: width - 8 * k, y: y + 10 * k },
    ])
  await expect.poll(async () => (await inked()).length).toBeGreaterThan(20)
  // What was not found is laid as bows that bend themselves, the longest first.
  await act(() => takeUp(page, 'Bow'))
  await act(() => page.getByTestId('cling').click())
  const strength = page.getByRole('textbox', { name: 'Strength, exactly' })
  await act(() => strength.fill('100'))
  await strength.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('cling')).toContainText('100 %', { timeout: 60_000 })
  const missing = (paths: Path[]): Path[] =>
    drawn
      .filter((p) => !p.closed && share(distances(placesOn([p], 2), placesOn(paths, 1)), 3 * k) < 0.4)
      .sort((a, b) => arcOfPath(b).total - arcOfPath(a).total)
  for (const path of missing(await inked()).slice(0, 8)) {
    const arc = arcOfPath(path)
    await drag([arc.point(0), arc.point(arc.total)])
    await act(() => page.keyboard.press('Enter'))
  }
  await act(() => enterPass(page, 'Weight'))
  await act(() => page.keyboard.press('Control+a'))
  await act(() => takeUp(page, 'Contact'))
  await expect(page.getByTestId('trial')).toContainText('to taper', { timeout: 30_000 })
  await act(() => page.keyboard.press('Enter'))
  await expect.poll(async () => (await savedLines(page)).some((l) => l.weight.start || l.weight.end)).toBe(true)
  const lines = await savedLines(page)
  expect(
    share(
      distances(
        placesOn(drawn, 2),
        placesOn(
          lines.map((l) => l.path),
          1,
        ),
      ),
      2.5 * k,
    ),
  ).toBeGreaterThan(0.92)
  expect(
    share(
      distances(
        placesOn(
          lines.map((l) => l.path),
          2,
        ),
        placesOn(drawn, 1),
      ),
      2.5 * k,
    ),
  ).toBeGreaterThan(0.92)
  expect(done()).toBeLessThan(60)
})
