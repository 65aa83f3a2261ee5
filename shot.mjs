import { chromium } from '@playwright/test'
export const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-background-networking'] })
export const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
page.on('console', m => { if (['error','warning'].includes(m.type())) console.log('CONSOLE', m.text().slice(0,400)) })
page.on('pageerror', e => console.log('PAGEERROR', e.message, e.stack?.slice(0,600)))
page.on('requestfailed', r => console.log('FAILED', r.url(), r.failure()?.errorText))
