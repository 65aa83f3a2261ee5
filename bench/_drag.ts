import { writeFileSync } from 'node:fs'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { countedFrames, countFrames, openDrawing, withApplication } from './application'
import { strokes } from './strokes'
const LINES = Number(process.argv[2] ?? 2000)
const what = process.argv[3] ?? 'stop'
await withApplication(async (page) => {
  const side = Math.sqrt(LINES / 2000)
  await openDrawing(page, newDrawing('Crowded', { page: { width: 900 * side, height: 620 * side, unit: 'px', pxPerMm: 4 }, layers: [newLinesLayer('Lines', strokes(LINES))] }))
  await page.waitForTimeout(LINES > 5000 ? 75000 : 16000)
  if (what === 'stop') {
    await page.keyboard.press('3')
    await page.getByTestId('tray').getByRole('button', { name: /^\w Caliper/ }).click()
  }
  await page.getByTestId('canvas').focus()
  const way = Array.from({ length: 160 }, (_, i): [number, number] => [460, 330 + 14 * Math.sin(i / 12)])
  await page.mouse.move(...way[0]!)
  await page.mouse.down(what === 'pan' ? { button: 'middle' } : {})
  for (const p of way.slice(0, 10)) await page.mouse.move(...p)
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Profiler.enable')
  await cdp.send('Profiler.setSamplingInterval', { interval: 1000 })
  await cdp.send('Profiler.start')
  await countFrames(page)
  for (const [i, p] of way.slice(10).entries()) {
    if (what === 'turn') await page.keyboard.press(i % 20 < 10 ? ',' : '.')
    else if (what === 'pan') await page.mouse.move(640 + 120 * Math.sin(i / 12), 400 + 60 * Math.cos(i / 9))
    else await page.mouse.move(...p)
  }
  const times = (await countedFrames(page)).sort((a, b) => a - b)
  const { profile } = await cdp.send('Profiler.stop')
  await page.mouse.up()
  writeFileSync('/tmp/drag.cpuprofile', JSON.stringify(profile))
  console.log('frames', times.length, 'median', times[times.length >> 1]!.toFixed(1), 'p95', times[Math.floor(times.length * 0.95)]!.toFixed(1), 'worst', times.at(-1)!.toFixed(1))
})
process.exit(0)
