import { expect, test as base } from '@playwright/test'

/** The network tells of refusals in the console too; these are asserted where they matter. */
const OF_THE_NETWORK = /Failed to load resource|net::ERR_/

/** Every browser test fails on an uncaught error, a console error or a violation of the page's policy. */
export const test = base.extend({
  page: async ({ page }, use) => {
    const faults: string[] = []
    watch(page, faults)
    page.context().on('page', (other) => other !== page && watch(other, faults))
    await use(page)
    expect(faults, 'errors in the page').toEqual([])
  },
})

function watch(page: import('@playwright/test').Page, faults: string[]): void {
  page.on('pageerror', (e) => faults.push(`uncaught: ${e.message}`))
  page.on('console', (m) => {
    const text = m.text()
    if (/Content Security Policy/i.test(text) || (m.type() === 'error' && !OF_THE_NETWORK.test(text))) faults.push(`console: ${text}`)
  })
}

export { expect }
