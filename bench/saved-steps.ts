import type { Page } from '@playwright/test'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line, PenTrace } from '#core/model/model'
import { uniteBoxes } from '../core/geometry/bounds'
import { boxOfPath } from '../core/geometry/known'
import { fitByTrace } from '../core/fit/fit-trace'
import { ADDRESS, countedFrames, countFrames, openDrawing, withApplication } from './application'

/** What a step of many pen strokes takes: in the journal, and of the frames while it is done. */
export interface StepRow {
  work: string
  bytes: number
  /** Longest time between two frames, ms. */
  worst: number
}

const STROKES = 200
const SAMPLES = 600

function stroke(k: number): Line {
  const [column, row] = [k % 20, Math.floor(k / 20)]
  const samples = Array.from({ length: SAMPLES }, (_, i) => ({
    x: 60 + column * 28 + i / 15,
    y: 60 + row * 40 + 9 * Math.sin(i / 60 + k),
    t: i * 5,
    pressure: 0.5 + 0.4 * Math.sin(i / 40 + k),
  }))
  const trace: PenTrace = { samples, device: 'pen', steadiness: 0.4, response: 1 }
  const { path, stops } = fitByTrace(trace)
  const line = newLine(path, { trace })
  return { ...line, weight: { ...line.weight, size: 5, stops } }
}

/** 200 pen strokes of 600 samples moved, scaled and duplicated in the built application. */
export const stepRows = (): Promise<StepRow[]> =>
  withApplication(async (page) => {
    const id = await openDrawing(
      page,
      newDrawing('Strokes', {
        layers: [
          newLinesLayer(
            'Lines',
            Array.from({ length: STROKES }, (_, k) => stroke(k)),
          ),
        ],
      }),
    )
    await page.waitForTimeout(3000)
    await page.keyboard.press('q')
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('Control+a')
    await page.waitForTimeout(1000)
    const [a, , , d, e, f] = (await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ').map(Number) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const box = (await page.getByTestId('canvas').boundingBox())!
    const at = (x: number, y: number): [number, number] => [box.x + a * x + e, box.y + d * y + f]
    const inked = stroke(105).path.nodes[1]!.at
    return [
      await measured(page, id, 'moved by hand', () => drag(page, at(inked.x, inked.y), [40, 25])),
      await measured(page, id, 'scaled by a corner', async () => drag(page, await cornerOf(page, id, at), [-60, -40])),
      await measured(page, id, 'duplicated', () => page.keyboard.press('Control+d')),
    ]
  })

/** The lower right corner of the frame about all lines, which stands 10 screen px off them. */
async function cornerOf(
  page: Page,
  id: string,
  at: (x: number, y: number) => [number, number],
): Promise<[number, number]> {
  const { drawing } = (await (await page.request.get(`${ADDRESS}/api/drawings/${id}`)).json()) as { drawing: Drawing }
  const box = (drawing.layers[0]!.items as Line[]).map((l) => boxOfPath(l.path)).reduce(uniteBoxes)
  const [x, y] = at(box.maxX, box.maxY)
  return [x + 10, y + 10]
}

async function drag(page: Page, from: [number, number], by: [number, number]): Promise<void> {
  await page.mouse.move(...from)
  await page.mouse.down()
  for (let i = 1; i <= 60; i++) await page.mouse.move(from[0] + (by[0] * i) / 60, from[1] + (by[1] * i) / 60)
  await page.mouse.up()
}

async function measured(page: Page, id: string, work: string, act: () => Promise<void>): Promise<StepRow> {
  const head = async (): Promise<{
    revision: number
    undo: { edit: { patches: unknown; inverse: unknown; label: string } }[]
  }> => (await page.request.get(`${ADDRESS}/api/drawings/${id}`)).json() as never
  const before = await head()
  await countFrames(page)
  await act()
  await page.waitForTimeout(1500)
  const worst = Math.max(...(await countedFrames(page)))
  const after = await head()
  if (after.revision !== before.revision + 1)
    throw new Error(`"${work}" made ${after.revision - before.revision} steps.`)
  const { patches, inverse } = after.undo.at(-1)!.edit
  return { work, bytes: JSON.stringify(patches).length + JSON.stringify(inverse).length, worst }
}
