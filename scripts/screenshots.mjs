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

build()
run('Draw the demo', 'npx', ['--no-install', 'tsx', 'demo/seed.ts'], env)
const server = spawn(process.execPath, ['scripts/start.mjs'], { cwd: root, env: { ...process.env, ...env }, stdio: 'ignore' })
const browser = await chromium.launch({ executablePath, args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  for (let i = 0; i < 50; i++) {
    if (await page.goto(ADDRESS).catch(() => null)) break
    await page.waitForTimeout(200)
  }
  const shoot = async (name) => {
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
  await shoot('desk')

  await page.goto(`${ADDRESS}/drawings/demo-pea-pod`)
  await canvas.waitFor()
  await enter('1')
  await page.getByTestId('strip').getByRole('button', { name: 'Unlock' }).click()
  await shoot('sketch')

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
  const light = [(await at(300, 40)), (await at(240, 50))]
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
  await enter('5')
  await enter('0')
  await page.waitForTimeout(1500)
  await shoot('deliver')
} finally {
  await browser.close()
  server.kill()
}
