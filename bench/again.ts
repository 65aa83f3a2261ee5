import type { Page } from '@playwright/test'
import { newDrawing, newLinesLayer } from '#core/model/create'
import { ADDRESS, openDrawing, withApplication } from './application'
import { strokes } from './strokes'

/** A drawing opened for the first time in a browser, and opened again, ms. */
export interface AgainRow {
  lines: number
  /** From entering Shapes, as soon as its page is there, to their nodes; and to what Proof finds. */
  first: Opened
  again: Opened
  /** What the browser keeps of it, MB. */
  kept: number
}

interface Opened {
  shapes: number
  proof: number
}

/** The hand has rested, and what was worked out is kept. */
const KEPT = `new Promise((resolve) => {
  const look = () => {
    const opening = indexedDB.open('bellatrait-recall', 1)
    opening.onsuccess = () => {
      const db = opening.result
      const all = db.transaction('drawings').objectStore('drawings').getAll()
      all.onsuccess = () => {
        db.close()
        if (all.result.length) resolve(all.result[0].bytes / 1e6)
        else setTimeout(look, 500)
      }
    }
    opening.onerror = () => setTimeout(look, 500)
  }
  setTimeout(look, 3000)
})`

export async function againRows(sizes = [2000, 10_000]): Promise<AgainRow[]> {
  const rows: AgainRow[] = []
  for (const lines of sizes)
    rows.push(
      await withApplication(async (page) => {
        const side = Math.sqrt(lines) * 45
        const id = await openDrawing(
          page,
          newDrawing('Opened again', {
            page: { width: side, height: side, unit: 'px', pxPerMm: 10 },
            layers: [newLinesLayer('Lines', strokes(lines))],
          }),
        )
        const first = await looked(page)
        const kept = await page.evaluate(KEPT)
        await page.goto(`${ADDRESS}/drawings/${id}`)
        await page.getByTestId('canvas').waitFor()
        return { lines, first, again: await looked(page), kept: kept as number }
      }),
    )
  return rows
}

/** Enters Shapes as soon as the drawing is there, and looks at the count of Proof, which is told in every pass. */
async function looked(page: Page): Promise<Opened> {
  await page.getByTestId('save-state').filter({ hasText: 'Saved' }).waitFor()
  const since = Date.now()
  await page.keyboard.press('4')
  await page.getByTestId('nodes-after').waitFor({ timeout: 300_000 })
  const shapes = Date.now() - since
  await page.getByTestId('proof-count').waitFor({ timeout: 300_000 })
  return { shapes, proof: Date.now() - since }
}
