import { chromium } from '@playwright/test'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
page.on('pageerror', (e) => console.log('PAGE ERROR', e.message))
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()))
const canvas = page.getByTestId('canvas')
const at = async (x, y) => {
  const [a, b, c, d, e, f] = (await canvas.getAttribute('data-view')).split(' ').map(Number)
  const box = await canvas.boundingBox()
  return [box.x + a * x + c * y + e, box.y + b * x + d * y + f]
}
const shoot = async (name) => { await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/${name}.png` }) }
const take = (name) => page.getByTestId('tray').getByRole('button', { name: new RegExp(`^⇧?\\w ${name}`) }).click()
const drag = async (...pts) => { const s = []; for (const p of pts) s.push(await at(...p)); await page.mouse.move(...s[0]); await page.mouse.down(); for (const q of s.slice(1)) await page.mouse.move(...q, { steps: 8 }); await page.mouse.up() }
const open = async (id) => { await page.goto(`http://127.0.0.1:4310/drawings/${id}`); await canvas.waitFor(); await page.waitForTimeout(1500) }
const { default: run } = await import(process.argv[2])
await run({ page, at, shoot, take, drag, open, canvas })
await browser.close()
