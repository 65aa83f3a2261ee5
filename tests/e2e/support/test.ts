import type { Page } from '@playwright/test'
import { expect, test as base } from '@playwright/test'
import { applyPatches } from '#core/document/apply-patches'
import type { OpenDrawing } from '../../../shared/edits'

/** So many steps are looked at. */
const MOST_STEPS = 60

const stored = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** The network tells of refusals in the console too; these are asserted where they matter. */
const OF_THE_NETWORK = /Failed to load resource|net::ERR_/

/** Takes a seat for a test: what one test chooses is not what the next starts with. */
async function sitDown(page: Page): Promise<void> {
  const origin = new URL((await page.request.get('/')).url()).origin
  const name = `Seat ${Date.now().toString(36)} ${Math.random().toString(36).slice(2, 8)}`
  const made = await page.request.post('/api/seats', { data: { name, colour: '#2f6f8f' }, headers: { origin } })
  const { id } = (await made.json()) as { id: string }
  await page.context().addInitScript((seat) => {
    // A page that is still blank has none.
    if (location.origin !== 'null' && !localStorage.getItem('bellatrait:seat'))
      localStorage.setItem('bellatrait:seat', seat)
  }, id)
}

/** Every browser test fails on an uncaught error, a console error or a violation of the page's policy. */
export const test = base.extend({
  page: async ({ page }, use) => {
    const faults: string[] = []
    watch(page, faults)
    page.context().on('page', (other) => other !== page && watch(other, faults))
    await sitDown(page)
    await use(page)
    expect(faults, 'errors in the page').toEqual([])
    await expectExactJournal(page)
  },
})

/** Every step of the drawing that a test leaves open leads back exactly to where it was made. */
async function expectExactJournal(page: Page): Promise<void> {
  const id = /\/drawings\/([\w-]+)$/.exec(page.isClosed() ? '' : page.url())?.[1]
  const answer = id && (await page.request.get(`/api/drawings/${id}`, { failOnStatusCode: false }).catch(() => null))
  if (!answer || !answer.ok()) return
  const { drawing, undo } = (await answer.json()) as OpenDrawing
  let now = drawing
  // As undo would walk back, and each step forward again.
  for (const { edit } of undo.toReversed().slice(0, MOST_STEPS)) {
    const before = applyPatches(now, edit.inverse)
    expect(stored(applyPatches(before, edit.patches)), `"${edit.label}" taken back and brought again`).toStrictEqual(
      stored(now),
    )
    now = before
  }
  const first = undo.at(-MOST_STEPS) ?? undo[0]
  if (!first) return
  const was = await page.request.get(`/api/drawings/${id}/at/${first.revision - 1}`, { failOnStatusCode: false })
  if (was.ok()) expect(stored(now), 'every step taken back').toStrictEqual(await was.json())
}

function watch(page: Page, faults: string[]): void {
  page.on('pageerror', (e) => faults.push(`uncaught: ${e.message}`))
  page.on('console', (m) => {
    const text = m.text()
    if (/Content Security Policy/i.test(text) || (m.type() === 'error' && !OF_THE_NETWORK.test(text)))
      faults.push(`console: ${text}`)
  })
}

export { expect }
