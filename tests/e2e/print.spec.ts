import { readFileSync } from 'node:fs'
import { PDFDocument } from 'pdf-lib'
import { deliver, enter, enterPass, savedDrawing, startDrawing } from './support/desk'
import { expect, test } from './support/test'

test('a PDF leaves in its true size, with bleed and marks, and a page for each ink; how an ink is printed is kept with it', async ({
  page,
}) => {
  await startDrawing(page, 'demo-watering-can')
  await enterPass(page, 'Deliver')
  const made = async (): Promise<PDFDocument> =>
    PDFDocument.load(readFileSync(await (await deliver(page, 'Print')).path()))
  const plain = (await made()).getPage(0)
  const { width, pxPerMm } = (await savedDrawing(page)).page
  expect((plain.getWidth() / 72) * 25.4).toBeCloseTo(width / pxPerMm, 3)
  await enter(page.getByLabel('Bleed'), '3')
  await page.getByLabel('Crop marks').check()
  await page.getByLabel('One ink a page').check()
  const separated = await made()
  expect(separated.getPageCount()).toBeGreaterThan(3)
  const [trim, bleed] = [separated.getPage(0).getTrimBox(), separated.getPage(0).getBleedBox()]
  expect(((bleed.width - trim.width) / 72) * 25.4).toBeCloseTo(6, 3)
  await page.getByTestId('pdf-colours').selectOption('print')
  const cyan = page.getByLabel(/^Cyan of/)
  await enter(cyan, '60')
  await expect.poll(async () => (await savedDrawing(page)).inks[0]!.print).toEqual({ c: 60, m: 0, y: 0, k: 100 })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await savedDrawing(page)).inks[0]!.print).toBeUndefined()
  await page.reload()
  await enterPass(page, 'Deliver')
  await expect(page.getByLabel('One ink a page')).toBeChecked()
})
