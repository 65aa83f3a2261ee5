import { expect, test } from './support/test'
import type { Page, Request } from '@playwright/test'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  clickAt,
  drag,
  dragThrough,
  enterPass,
  inkAt,
  layLine,
  onScreen,
  openDrawing,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'
import { strokes } from '../../bench/strokes'
import { polyline } from '../unit/support/paths'

type Point = [number, number]
const bar = (id: string, a: Point, b: Point, size = 10): Line =>
  newLine(polyline(...a, ...b), { id, weight: evenWeight(size) })
const drawn = (...lines: Line[]): Drawing => newDrawing('Shapes', { layers: [newLinesLayer('Ink', lines)] })

async function start(page: Page, drawing: Drawing): Promise<void> {
  await openDrawing(page, await startDrawing(page, drawing))
}

/** Moves the pointer to a point and waits until the hint says something. */
async function pointAt(page: Page, p: Vec, hint: RegExp): Promise<void> {
  const s = await onScreen(page, p)
  await page.mouse.move(s.x - 1, s.y)
  await page.mouse.move(s.x, s.y)
  await expect(page.getByTestId('hint')).toHaveText(hint)
}

test.describe('Trim', () => {
  const crossed = drawn(
    bar('wall', [300, 60], [300, 460]),
    bar('a', [120, 200], [360, 200]),
    bar('b', [120, 320], [380, 320]),
  )

  test('a click takes a piece of one line away, Shift brings it back; it stays away when its line is mended', async ({
    page,
  }) => {
    await start(page, crossed)
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Trim')
    await pointAt(page, { x: 335, y: 200 }, /^Click: trim/)
    await clickAt(page, { x: 335, y: 200 })
    await expect(page.getByTestId('trims')).toContainText('1 trimmed')
    await expect
      .poll(async () => (await savedDrawing(page)).amendments)
      .toMatchObject([{ kind: 'trim', line: 'a', over: [], bounds: [{ by: 'wall', side: -1 }] }])
    expect(await inkAt(page, [335, 200], [200, 200], [300, 200], [335, 320])).toEqual([false, true, true, true])
    // The line is bent; the wall is where it was.
    await enterPass(page, 'Lines')
    await takeUp(page, 'Nodes')
    await clickAt(page, { x: 200, y: 200 })
    await drag(page, 360, 200, 370, 230, 380, 250)
    expect(await inkAt(page, [350, 241], [200, 216])).toEqual([false, true])
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Trim')
    await page.keyboard.down('Shift')
    await pointAt(page, { x: 350, y: 241 }, /bring it back/)
    await clickAt(page, { x: 350, y: 241 })
    await page.keyboard.up('Shift')
    expect(await inkAt(page, [350, 241])).toEqual([true])
  })

  test('a drag takes all that it sweeps over in one step, and undo gives all back', async ({ page }) => {
    await start(page, crossed)
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Trim')
    await dragThrough(
      page,
      [
        { x: 340, y: 190 },
        { x: 340, y: 330 },
      ],
      30,
    )
    await expect(page.getByTestId('trims')).toContainText('2 trimmed')
    expect(await inkAt(page, [340, 200], [340, 320])).toEqual([false, false])
    await page.keyboard.press('Control+z')
    expect(await inkAt(page, [340, 200], [340, 320])).toEqual([true, true])
  })

  test('a fence proposes what sticks out; a click spares a piece, Enter trims the others', async ({ page }) => {
    await start(page, crossed)
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Fence')
    await clickAt(page, { x: 300, y: 420 })
    await expect(page.getByTestId('trial')).toContainText('Nothing sticks out')
    await page.getByRole('slider', { name: 'Up to' }).fill('9')
    await expect(page.getByTestId('trial')).toContainText('2 pieces stick out beyond this line')
    await clickAt(page, { x: 345, y: 320 })
    await expect(page.getByTestId('trial')).toContainText('1 piece sticks out beyond this line, 1 spared')
    await page.keyboard.press('Enter')
    expect(await inkAt(page, [340, 200], [340, 320])).toEqual([false, true])
  })
})

test.describe('Corners and ends', () => {
  test('a corner is finished by a click, an end is let out, and Alt takes it back', async ({ page }) => {
    await start(
      page,
      drawn(
        bar('wide', [120, 120], [300, 120], 30),
        bar('thin', [300, 120], [300, 300], 10),
        bar('wall', [500, 60], [500, 300], 6),
        bar('end', [380, 200], [500, 200], 24),
      ),
    )
    // The end keeps within the wall by itself.
    expect(await inkAt(page, [507, 200], [304.6, 105.4])).toEqual([false, false])
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Corner')
    await pointAt(page, { x: 300, y: 120 }, /this corner pointed/)
    await clickAt(page, { x: 300, y: 120 })
    await page.getByRole('radio', { name: 'Past' }).click()
    await pointAt(page, { x: 500, y: 200 }, /shows past its line/)
    await clickAt(page, { x: 500, y: 200 })
    await expect.poll(async () => (await savedLines(page)).find((l) => l.id === 'end')!.tuck).toEqual({ last: 'out' })
    expect(await inkAt(page, [507, 200], [304.6, 105.4])).toEqual([true, true])
    await enterPass(page, 'Shapes')
    await page.keyboard.down('Alt')
    for (const p of [
      { x: 300, y: 120 },
      { x: 500, y: 200 },
    ])
      await clickAt(page, p)
    await page.keyboard.up('Alt')
    await expect.poll(async () => (await savedDrawing(page)).amendments ?? []).toEqual([])
    expect(await inkAt(page, [507, 200], [304.6, 105.4])).toEqual([false, false])
  })
})

test.describe('Islands', () => {
  test('are chosen by a click, have a tolerance of their own, and what is kept apart does not unite', async ({
    page,
  }) => {
    await start(
      page,
      drawn(bar('wall', [300, 60], [300, 460]), bar('a', [120, 200], [420, 200]), bar('far', [500, 60], [600, 400])),
    )
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('islands')).toHaveCount(0)
    await page.getByTestId('list-islands').check()
    await expect(page.getByTestId('islands').getByRole('button')).toHaveCount(2)
    await takeUp(page, 'Inspect')
    await clickAt(page, { x: 300, y: 400 })
    const chosen = page.getByTestId('chosen-islands')
    await expect(chosen).toContainText('2 lines')
    await page.getByRole('textbox', { name: 'Simplify these, exactly' }).fill('1.2')
    await page.keyboard.press('Enter')
    await expect
      .poll(async () => (await savedDrawing(page)).amendments)
      .toMatchObject([{ kind: 'fineness', line: 'wall', simplify: 1.2 }])
    await page.getByTestId('compared').check()
    await chosen.getByRole('button', { name: 'As the rest' }).click()
    await expect.poll(async () => (await savedDrawing(page)).amendments).toBeUndefined()
    await takeUp(page, 'Select')
    await page.keyboard.press('Escape')
    await clickAt(page, { x: 150, y: 200 })
    await page.getByRole('button', { name: 'Let go' }).click()
    await page.getByRole('button', { name: 'Keep apart' }).click()
    await expect(page.getByTestId('shape-count')).toHaveText('2')
    await page.getByRole('button', { name: 'Unite with the rest' }).click()
    await expect(page.getByTestId('shape-count')).toHaveText('1')
  })

  test('are cut where a node is dragged across them', async ({ page }) => {
    const flat = bar('bar', [150, 200], [450, 200], 60)
    await start(page, drawn({ ...flat, finish: { ...flat.finish, startCap: 'butt', endCap: 'butt' } }))
    await enterPass(page, 'Shapes')
    await takeUp(page, 'Retouch')
    await clickAt(page, { x: 300, y: 170 })
    // The lower right corner goes up, past the upper edge: the ink between is left on one side only.
    await drag(page, 450, 230, 400, 180, 330, 100)
    await expect
      .poll(async () =>
        (await savedDrawing(page)).amendments?.map((a) => a.kind === 'retouch' && (a.to === 'cut' ? 'cut' : 'node')),
      )
      .toEqual(['node', 'cut'])
    expect(await inkAt(page, [170, 200], [440, 200], [330, 140])).toEqual([true, false, false])
    // It goes where the bar goes.
    await enterPass(page, 'Lines')
    await takeUp(page, 'Select')
    await drag(page, 200, 200, 230, 225, 260, 290)
    await expect.poll(async () => (await savedLines(page))[0]!.path.nodes[0]!.at.y).toBeGreaterThan(280)
    const by = (await savedLines(page))[0]!.path.nodes[0]!.at
    const [dx, dy] = [by.x - 150, by.y - 200]
    expect(
      await inkAt(page, [170 + dx, 200 + dy], [440 + dx, 200 + dy], [330 + dx, 140 + dy], [170 + dx, 215 + dy]),
    ).toEqual([true, false, false, true])
    await page.keyboard.press('Control+z')
    expect(await inkAt(page, [170, 200], [440, 200], [330, 140])).toEqual([true, false, false])
  })
})

test.describe('Proof', () => {
  test('is up to date while one draws, shows a mend before it is done, and keeps what is left', async ({ page }) => {
    await start(page, drawn())
    const count = page.getByTestId('proof-count')
    await expect(count).toHaveText('nothing to look at')
    await enterPass(page, 'Lines')
    await takeUp(page, 'Pen')
    await layLine(page, { x: 120, y: 200 }, { x: 420, y: 220 })
    await expect(count).toHaveText('2 to look at')
    await page.getByRole('button', { name: 'Taper' }).first().click()
    await expect(page.getByTestId('proof-trial')).toContainText('2 mended as shown')
    expect((await savedLines(page))[0]!.weight).toMatchObject({ start: null, end: null })
    await page.getByTestId('proof-trial').getByRole('button', { name: 'Accept' }).click()
    await expect(count).toHaveText('nothing to look at')
    expect((await savedLines(page))[0]!.weight).toMatchObject({ start: { tip: 0 }, end: { tip: 0 } })
    await page.keyboard.press('Control+z')
    await expect(count).toHaveText('2 to look at')
    await page.getByRole('button', { name: /^Blunt end/ }).click()
    await page.getByRole('button', { name: 'Leave' }).first().click()
    await expect(count).toHaveText('1 to look at')
    await page.reload()
    await expect(count).toHaveText('1 to look at')
    await page.getByRole('button', { name: /^Left as they are/ }).click()
    await page.getByRole('button', { name: 'Look again' }).click()
    await expect(count).toHaveText('2 to look at')
  })

  test('cleans what is certain in one press, and only that', async ({ page }) => {
    const twice = [
      bar('once', [120, 120], [420, 130]),
      bar('twice', [120, 120], [420, 130]),
      bar('dirt', [600, 400], [601, 400], 1),
    ]
    await start(
      page,
      drawn(
        ...twice.map((l) => ({
          ...l,
          weight: { ...l.weight, start: { length: 40, unit: '%' as const, tip: 0, ease: 'straight' as const } },
        })),
        bar('blunt', [120, 300], [420, 310]),
      ),
    )
    await page.getByRole('button', { name: 'Clean all 2' }).click()
    await page.keyboard.press('Enter')
    await expect.poll(async () => (await savedLines(page)).map((l) => l.id)).toEqual(['once', 'blunt'])
    await expect(page.getByTestId('proof-count')).not.toHaveText(/nothing/)
  })

  test('G glides from one to the next and back to where one was', async ({ page }) => {
    await start(page, drawn(bar('a', [120, 200], [420, 220])))
    await expect(page.getByTestId('proof-count')).toHaveText('2 to look at')
    const middle = async (): Promise<[number, number]> => {
      const box = (await page.getByTestId('canvas').boundingBox())!
      const s = await onScreen(page, { x: 0, y: 0 })
      const t = await onScreen(page, { x: 100, y: 0 })
      const zoom = (t.x - s.x) / 100
      return [Math.round((box.x + box.width / 2 - s.x) / zoom), Math.round((box.y + box.height / 2 - s.y) / zoom)]
    }
    const before = await middle()
    await page.keyboard.press('g')
    await expect.poll(middle).toEqual([120, 200])
    await page.keyboard.press('g')
    await expect.poll(middle).toEqual([420, 220])
    await page.keyboard.press('Shift+G')
    await expect.poll(middle).toEqual([120, 200])
    await page.keyboard.press('Shift+G')
    await expect.poll(middle).toEqual(before)
  })
})

test('a newcomer: four lines that overshoot are cleaned up without Nodes and delivered in under 20 actions', async ({
  page,
}) => {
  await start(page, drawn())
  let actions = 0
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    actions++
    await work()
  }
  await act(() => enterPass(page, 'Lines'))
  await act(() => takeUp(page, 'Bow'))
  // A frame whose four lines all go past each other: a drag each.
  const frame: [Vec, Vec][] = [
    [
      { x: 100, y: 120 },
      { x: 500, y: 120 },
    ],
    [
      { x: 480, y: 100 },
      { x: 480, y: 400 },
    ],
    [
      { x: 500, y: 380 },
      { x: 100, y: 380 },
    ],
    [
      { x: 120, y: 400 },
      { x: 120, y: 100 },
    ],
  ]
  for (const [a, b] of frame) {
    await act(() => dragThrough(page, [a, b]))
    await act(() => page.keyboard.press('Enter'))
  }
  await expect.poll(async () => (await savedLines(page)).length).toBe(4)
  await act(() => page.keyboard.press('Control+a'))
  await act(() => enterPass(page, 'Shapes'))
  await act(() => takeUp(page, 'Trim'))
  // Round about: all eight ends in one sweep.
  await act(() =>
    dragThrough(
      page,
      [
        { x: 105, y: 120 },
        { x: 120, y: 105 },
        { x: 480, y: 105 },
        { x: 494, y: 120 },
        { x: 494, y: 380 },
        { x: 480, y: 394 },
        { x: 120, y: 394 },
        { x: 106, y: 380 },
      ],
      30,
    ),
  )
  await expect(page.getByTestId('trims')).toContainText('8 trimmed')
  await act(() => enterPass(page, 'Deliver'))
  actions++
  expect(
    await inkAt(
      page,
      [106, 120],
      [120, 106],
      [480, 106],
      [494, 120],
      [494, 380],
      [480, 394],
      [120, 394],
      [106, 380],
      [120, 120],
      [300, 120],
      [480, 250],
    ),
  ).toEqual([...Array<boolean>(8).fill(false), true, true, true])
  expect(actions).toBeLessThan(20)
})

/** How many bytes this browser keeps of what was worked out; each kept one changed by `damage`. */
const keptBytes = (page: Page, damage = false): Promise<number> =>
  page.evaluate(
    (damaged) =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('bellatrait-recall', 1)
        opening.onupgradeneeded = () => opening.transaction!.abort()
        opening.onerror = () => resolve(0)
        opening.onsuccess = () => {
          const tx = opening.result.transaction('pages', 'readwrite')
          let bytes = 0
          tx.objectStore('pages').openCursor().onsuccess = (e) => {
            const cursor = (e.target as IDBRequest<IDBCursorWithValue | null>).result
            if (!cursor) return
            const kept = cursor.value as Uint8Array
            bytes += kept.length
            if (damaged) cursor.update(kept.map((b, i) => (i > 40 && i % 97 === 0 ? b ^ 4 : b)))
            cursor.continue()
          }
          tx.oncomplete = () => {
            opening.result.close()
            resolve(bytes)
          }
        }
      }),
    damage,
  )

test('what was worked out is read when a drawing is opened again, and made anew where that is damaged', async ({
  page,
}) => {
  const id = await startDrawing(page, 'demo-garden-snail')
  await enterPass(page, 'Shapes')
  const nodes = await page.getByTestId('nodes-after').textContent()
  await expect.poll(() => keptBytes(page), { timeout: 20_000 }).toBeGreaterThan(20_000)
  for (const damage of [false, true]) {
    await keptBytes(page, damage)
    await openDrawing(page, id)
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('nodes-after')).toHaveText(nodes!)
    // An edit goes on from what was read.
    await enterPass(page, 'Lines')
    await takeUp(page, 'Select')
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('Control+a')
    await page.keyboard.press('Delete')
    await expect.poll(async () => (await savedLines(page)).length).toBe(0)
    await undo(page, 1)
    await enterPass(page, 'Shapes')
    await expect(page.getByTestId('nodes-after')).toHaveText(nodes!)
  }
})

test('with more processors, several threads work out the first shapes of a large drawing: they are the same', async ({
  page,
}) => {
  const shapesWith = async (processors: number): Promise<{ nodes: string; threads: number }> => {
    await page.addInitScript(
      (n) => Object.defineProperty(navigator, 'hardwareConcurrency', { value: n, configurable: true }),
      processors,
    )
    let threads = 0
    const look = (r: Request): void => void (/band\.worker/.test(r.url()) && threads++)
    page.on('request', look)
    await startDrawing(page, newDrawing(`With ${processors}`, { layers: [newLinesLayer('Ink', strokes(520))] }))
    await page.keyboard.press('4')
    const count = page.getByTestId('nodes-after')
    await count.waitFor({ timeout: 120_000 })
    const nodes = (await count.textContent())!
    page.off('request', look)
    return { nodes, threads }
  }
  const alone = await shapesWith(2)
  const helped = await shapesWith(4)
  expect(alone.threads).toBe(0)
  expect(helped).toEqual({ nodes: alone.nodes, threads: 2 })
})

test('while the first shapes are on their way the page shows the lines', async ({ page }) => {
  await startDrawing(
    page,
    newDrawing('Crowded', {
      page: { width: 1400, height: 900, unit: 'px', pxPerMm: 4 },
      layers: [newLinesLayer('Lines', strokes(600))],
    }),
  )
  await enterPass(page, 'Shapes')
  // Nothing of it is kept.
  await page.addInitScript(() => void indexedDB.deleteDatabase('bellatrait-recall'))
  await page.reload()
  const seen = () =>
    page.evaluate(() => {
      const tiles = document.querySelector('canvas')
      const { width, height } = tiles ?? {}
      const dots = width && height ? tiles!.getContext('2d')!.getImageData(0, 0, width, height).data : []
      return `${document.body.innerText.includes('Making shapes') ? 'making' : 'made'}, ${dots.some((v, i) => i % 4 === 3 && v > 200) ? 'ink' : 'bare'}`
    })
  await expect.poll(seen, { intervals: [50] }).toBe('making, ink')
  await expect(page.getByTestId('shape-count')).toBeVisible({ timeout: 60_000 })
})
