// Makes docs/screenshots/ anew from the built application and the demo data: npm run screenshots
import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { build, chromium as executablePath, root, run } from './setup.mjs'

const PORT = 4398
const ADDRESS = `http://127.0.0.1:${PORT}`
const folder = join(root, 'docs', 'screenshots')
const env = { BELLATRAIT_DB: join(mkdtempSync(join(tmpdir(), 'bellatrait-')), 'shots.db'), PORT: String(PORT) }

await build()
run('Draw the demo', 'npx', ['--no-install', 'tsx', 'demo/seed.ts'], env)
const server = spawn(process.execPath, ['scripts/start.mjs'], {
  cwd: root,
  env: { ...process.env, ...env },
  stdio: 'ignore',
})
const browser = await chromium.launch({
  executablePath,
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  for (let i = 0; i < 50; i++) {
    if (await page.goto(ADDRESS).catch(() => null)) break
    await page.waitForTimeout(200)
  }
  const shoot = async (name) => {
    // On a busy machine the ink, and what follows from it, comes after the hand.
    await page
      .waitForFunction(
        () => {
          const small = document.querySelector('canvas[aria-label="The whole drawing, small"]')
          const isDrawn =
            !small ||
            new Uint32Array(small.getContext('2d').getImageData(0, 0, small.width, small.height).data.buffer).some(
              (v) => v >>> 24 && (v & 0xff) < 0x60,
            )
          return isDrawn && !document.body.innerText.includes('looking …')
        },
        undefined,
        { timeout: 5000 },
      )
      .catch(() => null)
    await page.waitForTimeout(900)
    await page.screenshot({ path: join(folder, `${name}.png`) })
  }
  const canvas = page.getByTestId('canvas')
  /** Screen place of a point of the page. */
  const at = async (x, y) => {
    const [a, b, c, d, e, f] = (await canvas.getAttribute('data-view')).split(' ').map(Number)
    const box = await canvas.boundingBox()
    return [box.x + a * x + c * y + e, box.y + b * x + d * y + f]
  }
  const enter = (key) => page.keyboard.press(key)
  await page.getByTestId('card').nth(2).waitFor()
  await page.waitForFunction(() => [...document.images].every((i) => i.complete && i.naturalWidth > 0))
  // A shelf with two drawings, one drawing chosen.
  await page.getByRole('link', { name: 'Watering can', exact: true }).focus()
  await enter(' ')
  await enter('Shift+ArrowRight')
  await page.getByLabel('Lay the chosen drawings on a shelf').selectOption('new')
  await page.getByLabel('Name of the new shelf').fill('Posters 2026')
  await enter('Enter')
  await page
    .getByTestId('notice')
    .getByRole('button', { name: 'Close' })
    .click({ timeout: 1000 })
    .catch(() => undefined)
  await enter('Escape')
  await page
    .getByRole('button', { name: 'Choose none' })
    .click({ timeout: 500 })
    .catch(() => undefined)
  await page.waitForFunction(() => document.querySelectorAll('[data-testid=card-state] span').length >= 5)
  await shoot('desk')

  await page.goto(`${ADDRESS}/drawings/demo-pea-pod`)
  await canvas.waitFor()
  await enter('1')
  await page.getByTestId('strip').getByRole('button', { name: 'Unlock' }).click()
  await page.getByTestId('clean').click()
  await page.getByRole('radio', { name: 'Cool blue' }).click()
  await page.locator('canvas[data-made*="3f6fb5"]').waitFor()
  await shoot('sketch')
  // The leaf's edge as a hasty hand lays it, and how it would settle.
  await enter('2')
  await enter('r')
  await page.mouse.move(...(await at(332, 121)))
  await page.mouse.down()
  for (const [x, y] of [
    [360, 107],
    [389, 101],
    [439, 106],
    [500, 101],
    [570, 121],
    [612, 112],
  ])
    await page.mouse.move(...(await at(x, y)), { steps: 6 })
  await page.mouse.up()
  await enter('Shift+Y')
  await page.getByTestId('trial').getByText('would move').waitFor()
  await enter('Escape')
  await enter('Control+z')

  await page.goto(`${ADDRESS}/drawings/demo-garden-snail`)
  await canvas.waitFor()
  // A stroke of ground, half laid.
  await page.mouse.click(...(await at(70, 468)))
  await page.mouse.move(...(await at(190, 484)))
  await page.mouse.down()
  await page.mouse.move(...(await at(250, 488)), { steps: 4 })
  await page.mouse.up()
  await page.mouse.move(...(await at(372, 468)), { steps: 4 })
  await page.mouse.move(...(await at(676, 431)), { steps: 4 })
  await shoot('lines')
  await enter('Escape')
  // A stroke that keeps its trace, drawn by the practice pen.
  await enter('Shift+R')
  await page.getByRole('group', { name: 'Traces' }).getByRole('button', { name: 'Tendril' }).click()
  await page.getByLabel('Eight times as fast').check()
  await page.mouse.click(...(await at(50, 120)))
  await page.waitForTimeout(1200)
  await enter('r')
  await shoot('freehand')
  await enter('Control+z')
  await enter('t')
  await page.mouse.click(...(await at(620, 190)))
  await page.mouse.move(...(await at(570, 50)))
  await page.mouse.down()
  await page.mouse.move(...(await at(670, 130)), { steps: 6 })
  await page.mouse.up()
  await shoot('nodes')

  await page.goto(`${ADDRESS}/drawings/demo-radish-bunch`)
  await canvas.waitFor()
  await enter('3')
  await page.waitForTimeout(600)
  // A jaw of the middle root's shaded edge, dragged apart.
  await page.mouse.click(...(await at(427, 364)))
  await page.waitForTimeout(300)
  await page.mouse.move(...(await at(427, 364)))
  await page.mouse.down()
  await page.mouse.move(...(await at(429, 364)), { steps: 3 })
  await page.mouse.move(...(await at(431, 364)), { steps: 3 })
  await shoot('weight')
  await enter('Escape')
  await page.mouse.up()
  await enter('Control+z')
  await enter('Escape')
  await enter('Escape')
  await enter('r')
  await page.mouse.move(...(await at(588, 92)))
  await page.waitForTimeout(1200)
  await shoot('contact')
  await enter('Escape')
  await page.goto(`${ADDRESS}/drawings/demo-pea-pod`)
  await canvas.waitFor()
  await enter('3')
  await enter('t')
  await page.waitForTimeout(600)
  const light = [await at(300, 40), await at(240, 50)]
  await page.mouse.move(...light[0])
  await page.mouse.down()
  await page.mouse.move(...light[1], { steps: 8 })
  await page.mouse.up()
  await page.waitForTimeout(1200)
  await shoot('light')
  await enter('Escape')
  await page.goto(`${ADDRESS}/drawings/demo-garden-snail`)
  await canvas.waitFor()
  await enter('3')
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'Compare with before this visit' }).click()
  await page.getByLabel('Left of the wipe').selectOption('even')
  await page.waitForTimeout(900)
  await shoot('compare')
  await page.goto(`${ADDRESS}/drawings/demo-radish-bunch`)
  await canvas.waitFor()
  await enter('4')
  await page.waitForTimeout(1500)
  await page.mouse.click(...(await at(427, 364)))
  await page.mouse.move(...(await at(330, 330)))
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -120)
  await shoot('shapes')
  // Fills of the snail: a preview with what bridges a gap, flats, and shade from the light.
  await page.goto(`${ADDRESS}/drawings/demo-garden-snail`)
  await canvas.waitFor()
  await enter('5')
  await page.waitForTimeout(800)
  for (let i = 0; i < 4; i++) await page.getByTestId('add-ink').click()
  await page.getByTestId('inks').getByRole('radio').nth(1).click()
  await page.mouse.click(...(await at(420, 330)))
  await page.waitForTimeout(600)
  await page.getByTestId('inks').getByRole('radio').nth(2).click()
  await page.mouse.move(...(await at(330, 380)))
  await page.waitForTimeout(600)
  await shoot('fill')
  await enter('r')
  await page.waitForTimeout(1200)
  await shoot('flats')
  await enter('Enter')
  await page.waitForTimeout(800)
  await page.goto(`${ADDRESS}/drawings/demo-watering-can`)
  await canvas.waitFor()
  await enter('5')
  await enter('t')
  await page.waitForTimeout(1200)
  await shoot('glow')
  await enter('Escape')
  // The pile with nothing decided: one of its overlaps is asked about.
  await page.goto(`${ADDRESS}/drawings/demo-potting-bench`)
  await canvas.waitFor()
  await enter('4')
  await enter('Shift+W')
  await page.getByRole('button', { name: 'Take all back' }).click()
  await page.getByTestId('overlap-count').getByText('to decide').waitFor()
  await page.waitForFunction(() => document.querySelector('[data-testid=overlap-count]').textContent.startsWith('2'))
  for (let i = 0; i < 2; i++) await enter('ArrowUp')
  await page.waitForTimeout(900)
  await shoot('front')
  await enter('Escape')
  await enter('Control+z')
  await page.goto(`${ADDRESS}/drawings/demo-hedge-moth`)
  await canvas.waitFor()
  await enter('2')
  await enter('Shift+M')
  await page.waitForTimeout(900)
  await shoot('mirror')
  // Strokes that go past the pod, for Proof to find.
  await page.goto(`${ADDRESS}/drawings/demo-pea-pod`)
  await canvas.waitFor()
  await enter('0')
  await enter('2')
  await enter('e')
  for (const [from, to] of [
    [
      [250, 210],
      [262, 330],
    ],
    [
      [330, 210],
      [338, 330],
    ],
    [
      [410, 230],
      [414, 340],
    ],
  ]) {
    await page.mouse.move(...(await at(...from)))
    await page.mouse.down()
    await page.mouse.move(...(await at(...to)), { steps: 6 })
    await page.mouse.up()
    await enter('Enter')
    await page.waitForTimeout(300)
  }
  await enter('Escape')
  await enter('4')
  await page.mouse.move(...(await at(330, 260)))
  for (let i = 0; i < 2; i++) await page.mouse.wheel(0, -240)
  await page.waitForTimeout(900)
  await enter('y')
  await page.mouse.click(...(await at(345, 232)))
  await page.waitForTimeout(300)
  await page.getByRole('slider', { name: 'Up to' }).fill('8')
  await page.waitForTimeout(900)
  await enter('Escape')
  await enter('3')
  await enter('0')
  await page.waitForTimeout(900)
  await page.getByRole('region', { name: 'Proof' }).getByRole('button', { expanded: false }).first().click()
  await shoot('proof')
  for (let i = 0; i < 3; i++) await enter('Control+z')
  await page.waitForTimeout(900)
  await enter('6')
  await page.getByRole('radio', { name: 'Print PDF' }).click()
  await page.getByTestId('pdf-colours').selectOption('print')
  await enter('0')
  await page.waitForTimeout(1500)
  await shoot('deliver')
  // A tablet held upright, without a keyboard; and a small laptop.
  await page.setViewportSize({ width: 820, height: 1180 })
  await enter('2')
  await page.getByLabel('Keys on the screen').click()
  await enter('0')
  await shoot('tablet')
  await page.getByLabel('Keys on the screen').click()
  await page.setViewportSize({ width: 1366, height: 625 })
  await enter('3')
  await enter('0')
  await shoot('laptop')
} finally {
  await browser.close()
  server.kill()
}
