import type { Page } from '@playwright/test'
import { expect, test } from './support/test'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { strokes } from '../../bench/strokes'
import { clickAt, drag, enterPass, onScreen, savedDrawing, savedLines, startDrawing, takeUp } from './support/desk'

const view = async (page: Page): Promise<number[]> =>
  (await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ').map(Number)

test.describe('Getting around', () => {
  test('the page turns and is seen mirrored, and what is drawn lands where the hand is', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const before = await savedLines(page)
    await page.keyboard.press('.')
    await page.keyboard.press('.')
    await page.keyboard.press('m')
    await expect(page.getByRole('button', { name: 'mirrored view' })).toBeVisible()
    await expect(page.getByRole('button', { name: /^turned -?30°/ })).toBeVisible()
    await takeUp(page, 'Pen')
    for (const p of [
      { x: 260, y: 60 },
      { x: 330, y: 70 },
    ])
      await clickAt(page, p)
    await page.keyboard.press('Enter')
    const line = (await savedLines(page)).at(-1)!
    expect(line.path.nodes.map((n) => [Math.round(n.at.x), Math.round(n.at.y)])).toEqual([
      [260, 60],
      [330, 70],
    ])
    expect((await savedLines(page)).slice(0, -1)).toEqual(before)
    await page.keyboard.press('Escape')
    await takeUp(page, 'Select')
    await clickAt(page, { x: 295, y: 65 })
    await expect(page.getByTestId('hint')).toContainText('A line')
    await page.keyboard.press('/')
    await page.keyboard.press('m')
    await page.keyboard.press('0')
    const [a, b] = await view(page)
    expect(a).toBeGreaterThan(0)
    expect(b).toBe(0)
  })

  test('the small view shows what the canvas shows, and moves it', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    const small = page.getByTestId('distance-view')
    await expect(small.locator('polygon')).toHaveCount(0)
    await page.keyboard.press('9')
    const middle = await onScreen(page, { x: 412, y: 236 })
    await page.mouse.move(middle.x, middle.y)
    for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -240)
    await expect(small.locator('polygon')).toHaveCount(1)
    const box = (await small.boundingBox())!
    await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.4)
    const [a, , , , e] = await view(page)
    const canvas = (await page.getByTestId('canvas').boundingBox())!
    // A third along the small picture is about there on the page.
    expect((canvas.width / 2 - e!) / a!).toBeLessThan(260)
    await page.keyboard.press('0')
    await expect(small.locator('polygon')).toHaveCount(0)
  })

  test('the sketch is out of sight while its key is held', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await expect(page.getByTestId('sketch')).toHaveCount(1)
    await page.keyboard.down('h')
    await expect(page.getByTestId('sketch')).toHaveCount(0)
    await page.keyboard.up('h')
    await expect(page.getByTestId('sketch')).toHaveCount(1)
  })

  test('lines are chosen by lasso, by touch, and all that are alike', async ({ page }) => {
    await startDrawing(page, 'demo-garden-snail')
    await takeUp(page, 'Select')
    const title = page.getByTestId('strip').locator('b').first()
    await page.getByRole('radio', { name: 'Lasso' }).click()
    // Round the near horn's eye: the lines of the eye lie wholly in the loop, the horn's do not.
    await drag(page, 160, 130, 200, 130, 205, 170, 160, 172, 150, 150, 160, 130)
    const inLoop = await title.textContent()
    expect(inLoop).toMatch(/line/i)
    await page.getByRole('radio', { name: 'Touch' }).click()
    await drag(page, 150, 345, 240, 345)
    await expect(title).not.toHaveText('Next line')
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 403, y: 133 })
    await page.getByRole('group', { name: 'Choose all alike' }).getByRole('button', { name: 'Ink' }).click()
    await expect(title).toHaveText(`${(await savedLines(page)).length} lines`)
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 403, y: 133 })
    await page.getByRole('group', { name: 'Choose all alike' }).getByRole('button', { name: 'Size' }).click()
    const sizes = (await savedLines(page)).map((l) => l.weight.size)
    const shell = (await savedDrawing(page)).layers.find((l) => l.name === 'Shell')!.items[0] as {
      weight: { size: number }
    }
    const alike = sizes.filter((s) => s === shell.weight.size).length
    await expect(title).toHaveText(alike === 1 ? 'Line' : `${alike} lines`)
  })

  test('a figure without size is none, and says so', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Figure')
    await clickAt(page, { x: 200, y: 200 })
    await expect(page.getByTestId('notice')).toContainText('Drag to give')
    expect(await savedLines(page)).toHaveLength(0)
  })
})

test('long work says how far it is and stops when it is told to; the next edit takes it up again', async ({ page }) => {
  await startDrawing(
    page,
    newDrawing('Hatched', {
      layers: [newLinesLayer('Lines', strokes(1200))],
      page: { width: 1560, height: 1560, unit: 'px', pxPerMm: 6 },
    }),
  )
  await enterPass(page, 'Shapes')
  const work = page.getByRole('status').filter({ hasText: 'Making shapes' })
  await expect(work).toBeVisible()
  await work.getByRole('button', { name: 'Stop' }).click()
  await expect(work).toHaveCount(0)
  await expect(page.getByTestId('shape-numbers')).toHaveCount(0)
  await page.getByTestId('unite').uncheck()
  await expect(page.getByTestId('shape-count')).toHaveText('1200', { timeout: 60_000 })
})

test('Tab goes from the bar over the drawing and the column to the dock and back, and shows where it is', async ({
  page,
}) => {
  await startDrawing(page, 'demo-garden-snail')
  await page.getByRole('link', { name: '← Desk' }).focus()
  const regions: string[] = []
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab')
    const { region, shown } = await page.evaluate(() => {
      const on = document.activeElement!
      const style = getComputedStyle(on)
      return {
        region: on.closest('header')
          ? 'bar'
          : on.closest('aside')
            ? 'column'
            : on.closest('footer')
              ? 'dock'
              : on.closest('main')
                ? 'drawing'
                : 'elsewhere',
        shown: style.outlineStyle !== 'none' && Number.parseFloat(style.outlineWidth) > 0,
      }
    })
    if (region === 'elsewhere') break
    expect(shown, `stop ${i} in the ${region}`).toBe(true)
    if (regions.at(-1) !== region) regions.push(region)
  }
  expect(regions).toEqual(['bar', 'drawing', 'column', 'dock'])
  await page.keyboard.press('Shift+Tab')
  expect(await page.evaluate(() => document.activeElement!.closest('footer') !== null)).toBe(true)
})
