import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { chromium } from '@playwright/test'
import type { Drawing } from '#core/model/model'

const PORT = 4398
export const ADDRESS = `http://127.0.0.1:${PORT}`

/** Runs the built application on a database of its own, in headless Chromium that draws in software, 1280 x 800. */
export async function withApplication<T>(work: (page: Page) => Promise<T>): Promise<T> {
  const db = join(mkdtempSync(join(tmpdir(), 'bellatrait-bench-')), 'bench.db')
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    env: { ...process.env, PORT: String(PORT), BELLATRAIT_DB: db },
    stdio: 'ignore',
  })
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    for (let i = 0; ; i++) {
      if (await page.goto(ADDRESS).catch(() => null)) break
      if (i > 60) throw new Error('The application did not start. Build it first: npm run build.')
      await page.waitForTimeout(250)
    }
    return await work(page)
  } finally {
    await browser.close()
    server.kill()
  }
}

/** Puts a drawing on the Desk and opens it; answers its id. */
export async function openDrawing(page: Page, drawing: Drawing): Promise<string> {
  const response = await page.request.post(`${ADDRESS}/api/drawings`, {
    data: { drawing },
    headers: { origin: ADDRESS },
  })
  const { id } = (await response.json()) as { id: string }
  await page.goto(`${ADDRESS}/drawings/${id}`)
  await page.getByTestId('canvas').waitFor()
  return id
}

/** Counts the time between frames from here on; as text, since what is sent to the page must need nothing of this side. */
export const countFrames = (page: Page): Promise<unknown> =>
  page.evaluate(`window.frames_ = { times: [], going: true, last: performance.now() };
    requestAnimationFrame(function look() {
      const now = performance.now()
      frames_.times.push(now - frames_.last)
      frames_.last = now
      if (frames_.going) requestAnimationFrame(look)
    })`)

/** Times between the frames since `countFrames`, ms. */
export const countedFrames = (page: Page): Promise<number[]> =>
  page.evaluate('((frames_.going = false), frames_.times)')
