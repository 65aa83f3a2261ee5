import { expect, test } from './support/test'
import {
  clickAt,
  drag,
  dropFile,
  enter,
  enterPass,
  layLine,
  linesOf,
  onScreen,
  openDrawing,
  penStroke,
  rest,
  savedDrawing,
  savedLines,
  startDrawing,
  takeUp,
  undo,
} from './support/desk'
import { crowded, cutOff } from './support/layout'

test.describe('a line that is being laid', () => {
  test('is kept on leaving for the Desk', async ({ page }) => {
    const id = await startDrawing(page)
    await takeUp(page, 'Pen')
    for (const [x, y] of [
      [100, 100],
      [300, 120],
      [400, 300],
    ] as const)
      await clickAt(page, { x, y })
    await page.getByRole('link', { name: '← Desk' }).click()
    await expect(page.getByRole('heading', { name: 'Desk' })).toBeVisible()
    await openDrawing(page, id)
    expect((await savedLines(page)).map((l) => l.path.nodes.length)).toEqual([3])
  })

  test('outlives a reload and a closed tab, once, and is no business of another window', async ({ page, context }) => {
    const id = await startDrawing(page)
    await takeUp(page, 'Pen')
    for (const [x, y] of [
      [100, 100],
      [300, 120],
      [400, 300],
    ] as const)
      await clickAt(page, { x, y })
    const other = await context.newPage()
    await openDrawing(other, id)
    expect(linesOf(await savedDrawing(other))).toHaveLength(0)
    await other.close()
    await page.reload()
    await expect(page.getByTestId('notice')).toContainText('is here again')
    expect((await savedLines(page)).map((l) => l.path.nodes.length)).toEqual([3])
    // A bow, and the tab is closed without a word.
    await takeUp(page, 'Bow')
    await drag(page, 100, 400, 500, 420)
    await page.close()
    const next = await context.newPage()
    await openDrawing(next, id)
    await expect.poll(async () => linesOf(await savedDrawing(next)).length).toBe(2)
    await next.reload()
    await expect(next.getByTestId('save-state')).toContainText('Saved')
    expect(linesOf(await savedDrawing(next))).toHaveLength(2)
  })

  test('that goes on from an end mark can be closed on its other end', async ({ page }) => {
    await startDrawing(page)
    await takeUp(page, 'Pen')
    for (const [x, y] of [
      [100, 100],
      [300, 100],
      [300, 300],
    ] as const)
      await clickAt(page, { x, y })
    await page.keyboard.press('Enter')
    await expect(page.getByTestId('hint')).toContainText('end mark')
    const tip = await onScreen(page, { x: 300, y: 300 })
    // The mark stands beyond the end.
    const end = { x: tip.x, y: tip.y + 9 }
    await page.mouse.move(end.x - 20, end.y - 20)
    await page.mouse.move(end.x, end.y)
    await expect(page.getByTestId('hint')).toContainText('go on with this line')
    await page.mouse.click(end.x, end.y)
    await clickAt(page, { x: 100, y: 300 })
    await expect(page.getByTestId('hint')).toContainText('Start: close')
    await clickAt(page, { x: 100, y: 100 })
    const [line] = await savedLines(page)
    expect(line!.path).toMatchObject({ closed: true })
    expect(line!.path.nodes).toHaveLength(4)
  })
})

test('undo with the pointer down drops what is under the hand and nothing else, with every instrument', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  await layLine(page, { x: 100, y: 100 }, { x: 500, y: 100 })
  const before = await savedDrawing(page)
  const pressThenUndo = async (points: [number, number][]): Promise<void> => {
    const [first, ...rest] = await Promise.all(points.map(([x, y]) => onScreen(page, { x, y })))
    await page.mouse.move(first!.x, first!.y)
    await page.mouse.down()
    for (const p of rest) await page.mouse.move(p.x, p.y, { steps: 5 })
    await page.keyboard.press('Control+z')
    await page.mouse.move(rest.at(-1)!.x + 30, rest.at(-1)!.y + 20, { steps: 4 })
    await page.mouse.up()
  }
  for (const name of ['Freehand', 'Figure', 'Select', 'Nodes', 'Bow', 'Pen', 'Blot']) {
    await takeUp(page, name)
    await pressThenUndo(
      name === 'Select' || name === 'Nodes'
        ? [
            [300, 100],
            [300, 160],
            [320, 200],
          ]
        : [
            [200, 200],
            [260, 240],
            [330, 300],
          ],
    )
    await page.keyboard.press('Escape')
    expect(await savedDrawing(page), name).toEqual(before)
  }
  await enterPass(page, 'Weight')
  await clickAt(page, { x: 300, y: 100 })
  for (const name of ['Caliper', 'Sweep']) {
    await takeUp(page, name)
    await pressThenUndo([
      [300, 103],
      [300, 130],
      [302, 150],
    ])
    expect(await savedDrawing(page), name).toEqual(before)
  }
  // With nothing under the hand it takes the last step back, and redo brings it again.
  await page.keyboard.press('Control+z')
  expect(await savedLines(page)).toHaveLength(0)
  await page.keyboard.press('Control+Shift+z')
  expect(await savedDrawing(page)).toEqual(before)
})

test('the Desk that cannot be reached says so, offers another try and opens by itself', async ({ page }) => {
  let away = true
  await page.route('**/api/drawings*', (route) => (away ? route.abort() : route.continue()))
  await page.goto('/')
  await expect(page.getByRole('alert')).toContainText('The Desk cannot be opened yet')
  away = false
  await page.getByRole('button', { name: 'Try now' }).click()
  await expect(page.getByTestId('card').first()).toBeVisible()
  away = true
  await page.reload()
  await expect(page.getByRole('alert')).toContainText('tried again by itself')
  away = false
  await expect(page.getByTestId('card').first()).toBeVisible({ timeout: 15_000 })
})

test.describe('by keys alone', () => {
  test('lines are chosen along the stack and by direction, with their names spoken, ordered, and weighed from there', async ({
    page,
  }) => {
    await startDrawing(page)
    await takeUp(page, 'Pen')
    for (const y of [100, 200, 300]) await layLine(page, { x: 100, y }, { x: 400, y })
    await page.keyboard.press('q')
    await page.keyboard.press('j')
    await expect(page.getByTestId('spoken')).toHaveText(/^Line 1 of 3 on Lines, 300 px long/)
    await page.keyboard.press('Control+ArrowDown')
    await expect(page.getByTestId('spoken')).toHaveText(/^Line 2 of 3/)
    await page.keyboard.press('Shift+K')
    await expect(page.getByTestId('spoken')).toHaveText(/2 lines chosen$/)
    await page.keyboard.press('Escape')
    await page.keyboard.press('j')
    const ids = (await savedLines(page)).map((l) => l.id)
    await page.keyboard.press('u')
    expect((await savedLines(page)).map((l) => l.id)).toEqual([ids[1], ids[0], ids[2]])
    await page.keyboard.press('Shift+U')
    expect((await savedLines(page)).map((l) => l.id)).toEqual([ids[1], ids[2], ids[0]])
    // To the settings, a change there, and back.
    await page.keyboard.press('3')
    await page.keyboard.press('s')
    await expect.poll(() => page.evaluate(() => !!document.activeElement?.closest('[data-testid="strip"]'))).toBe(true)
    await page.keyboard.press('Escape')
    await expect(page.getByTestId('canvas')).toBeFocused()
    await page.keyboard.press('Delete')
    expect(await savedLines(page)).toHaveLength(3)
  })

  test('the page is zoomed, by the figure too, and goes on to fit the window until it is moved', async ({ page }) => {
    await startDrawing(page)
    const zoom = page.getByTestId('zoom')
    const fitted = await zoom.inputValue()
    await page.setViewportSize({ width: 1500, height: 950 })
    await expect(zoom).not.toHaveValue(fitted)
    await page.setViewportSize({ width: 1280, height: 800 })
    await expect(zoom).toHaveValue(fitted)
    await page.getByTestId('canvas').focus()
    await page.keyboard.press('+')
    await expect(zoom).toHaveValue(`${Math.round(Number.parseFloat(fitted) * 1.25)} %`)
    await enter(zoom, '250')
    await expect(zoom).toHaveValue('250 %')
    await page.setViewportSize({ width: 1400, height: 900 })
    await expect(zoom).toHaveValue('250 %')
  })
})

test('two fingers move and zoom the page and draw nothing', async ({ page }) => {
  await startDrawing(page)
  const before = Number.parseFloat(await page.getByTestId('zoom').inputValue())
  const session = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: [number, number][]) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: points.map(([x, y], id) => ({ x, y, id })) })
  await touch('touchStart', [[400, 300]])
  await touch('touchStart', [
    [400, 300],
    [500, 300],
  ])
  for (let i = 1; i <= 5; i++)
    await touch('touchMove', [
      [400 - 10 * i, 300],
      [500 + 10 * i, 300],
    ])
  await touch('touchEnd', [])
  await expect
    .poll(async () => Number.parseFloat(await page.getByTestId('zoom').inputValue()))
    .toBeCloseTo(before * 2, -1)
  expect(await savedLines(page)).toHaveLength(0)
})

test('where a pen draws, a finger moves the page, also while the pen is down', async ({ page }) => {
  await startDrawing(page)
  await takeUp(page, 'Freehand')
  await penStroke(
    page,
    [100, 200, 300, 400].map((x) => ({ x, y: 200, pressure: 0.5 })),
  )
  expect(await savedLines(page)).toHaveLength(1)
  const view = async () => (await page.getByTestId('canvas').getAttribute('data-view'))!.split(' ').map(Number)
  const before = await view()
  const session = await page.context().newCDPSession(page)
  const finger = (type: 'touchStart' | 'touchMove' | 'touchEnd', at?: [number, number]) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [{ x: at[0], y: at[1], id: 7 }] : [] })
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', x: number, y: number) =>
    session.send('Input.dispatchMouseEvent', {
      type,
      x,
      y,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force: 0.5,
    })
  await finger('touchStart', [400, 400])
  for (let i = 1; i <= 5; i++) await finger('touchMove', [400 + 12 * i, 400])
  await finger('touchEnd')
  expect(await savedLines(page)).toHaveLength(1)
  expect((await view())[4]! - before[4]!).toBeCloseTo(60, 0)
  // A hand that rests on the screen while the pen draws takes nothing from the stroke.
  await pen('mousePressed', 300, 300)
  await pen('mouseMoved', 340, 310)
  await finger('touchStart', [700, 500])
  await pen('mouseMoved', 400, 320)
  await finger('touchEnd')
  await pen('mouseMoved', 460, 320)
  await pen('mouseReleased', 500, 320)
  expect(await savedLines(page)).toHaveLength(2)
})

test('the page takes a trade size, one of its own, and one about the drawing, what is drawn keeping its place', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  await layLine(page, { x: 100, y: 100 }, { x: 500, y: 300 })
  const [before] = await savedLines(page)
  await enterPass(page, 'Sketch')
  await page.getByTestId('paper').selectOption('a5')
  let drawing = await savedDrawing(page)
  expect(drawing.page).toMatchObject({ width: 148 * 6, height: 210 * 6, unit: 'mm' })
  const moved = linesOf(drawing)[0]!.path.nodes[0]!.at
  // 120 x 87.3 mm became 148 x 210 about its middle.
  expect(moved.x - before!.path.nodes[0]!.at.x).toBeCloseTo((148 * 6 - 720) / 2, 6)
  expect(moved.y - before!.path.nodes[0]!.at.y).toBeCloseTo((210 * 6 - 524) / 2, 6)
  await enter(page.getByLabel('Width of the page in mm'), '99,5')
  expect((await savedDrawing(page)).page.width).toBeCloseTo(597, 6)
  await enter(page.getByLabel('Width of the page in mm'), '0')
  await expect(page.getByTestId('notice')).toContainText('from 1 to 5000 mm')
  await page.getByRole('button', { name: 'About the drawing' }).click()
  drawing = await savedDrawing(page)
  // The line reaches over 400 x 200 px, and 3 px to either side; 4 mm are left about it.
  expect(drawing.page.width).toBeCloseTo(400 + 6 + 48, 3)
  expect(linesOf(drawing)[0]!.path.nodes[0]!.at).toEqual({
    x: expect.closeTo(27, 3) as unknown,
    y: expect.closeTo(27, 3) as unknown,
  })
  await undo(page, 3)
  expect((await savedLines(page))[0]).toEqual(before)
})

test('an SVG dropped on an open drawing offers its lines, and brings them in on layers of their own', async ({
  page,
}) => {
  await startDrawing(page)
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><path d="M10 10L90 90" stroke="#00aa00" fill="none"/><rect x="5" y="5" width="9" height="9"/></svg>'
  await dropFile(page, '[data-testid="canvas"]', { name: 'leaf.svg', type: 'image/svg+xml', content: Buffer.from(svg) })
  await expect(page.getByTestId('notice')).toContainText('"leaf.svg" holds 1 line and 1 shape')
  expect(await savedLines(page)).toHaveLength(0)
  await page.getByRole('button', { name: 'Bring them in' }).click()
  const drawing = await savedDrawing(page)
  expect(drawing.layers.map((l) => l.items.length)).toEqual([0, 1, 1])
  const [line] = linesOf(drawing)
  expect(drawing.inks.find((i) => i.id === line!.ink)!.colour).toBe('#00aa00')
  await dropFile(page, '[data-testid="canvas"]', {
    name: 'words.svg',
    type: 'image/svg+xml',
    content: Buffer.from('just words'),
  })
  await expect(page.getByTestId('notice')).toContainText(/SVG/)
  await page.keyboard.press('Control+z')
  expect((await savedDrawing(page)).layers).toHaveLength(1)
})

for (const [width, height, least] of [
  [1024, 700, 450],
  [1366, 625, 430],
  [1024, 640, 500],
  [820, 1180, 800],
  [640, 480, 370],
  [390, 844, 440],
] as const)
  test(`everything has its place at ${width} x ${height}, and the drawing the most of it`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await startDrawing(page, 'demo-garden-snail')
    const canvas = page.getByTestId('canvas')
    expect((await canvas.boundingBox())!.height).toBeGreaterThan(least)
    for (const [pass, tools] of [
      ['Sketch', []],
      ['Lines', ['Select', 'Pen', 'Bow', 'Freehand', 'Nodes', 'Figure', 'Practice']],
      ['Weight', ['Select', 'Caliper', 'Contact', 'Light', 'Match']],
      ['Shapes', []],
      ['Fill', []],
      ['Deliver', []],
    ] as const) {
      await enterPass(page, pass)
      expect(await cutOff(page), pass).toEqual([])
      const more = page.getByTestId('strip-up')
      if (height < 700 && pass !== 'Deliver') await more.click()
      if (pass !== 'Deliver') {
        await expect(page.getByTestId('strip')).toBeVisible()
        await expect(page.getByTestId('hint')).not.toBeEmpty()
      }
      expect(await crowded(page, 24), pass).toEqual([])
      for (const tool of tools) {
        await takeUp(page, tool)
        expect(await cutOff(page), `${pass}, ${tool}`).toEqual([])
        expect(await crowded(page, 24), `${pass}, ${tool}`).toEqual([])
      }
      if (pass !== 'Weight') continue
      await page.keyboard.press('Escape')
      await takeUp(page, 'Caliper')
      await page.keyboard.press('j')
      await expect(page.getByTestId('weight-graph')).toBeVisible()
      expect(await cutOff(page), 'the weight graph').toEqual([])
    }
    await expect(page.getByTestId('deliver')).toBeInViewport({ ratio: 1 })
  })

test.describe('where there is no mouse', () => {
  test.use({ hasTouch: true, isMobile: true })
  for (const [width, height] of [
    [820, 1180],
    [1024, 640],
    [1180, 820],
    [640, 480],
  ] as const)
    test(`whatever is pressed is as large as a fingertip at ${width} x ${height}, and no words are cut`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height })
      await page.goto('/')
      await expect(page.getByTestId('card').first()).toBeVisible()
      expect(await crowded(page, 44), 'the Desk').toEqual([])
      await startDrawing(page, 'demo-watering-can')
      for (const pass of ['Sketch', 'Lines', 'Weight', 'Shapes', 'Fill', 'Deliver']) {
        await enterPass(page, pass)
        const tools = page.getByTestId('tray').getByRole('toolbar').getByRole('button')
        const more = page.getByTestId('strip-up')
        for (let i = 0; i < (pass === 'Deliver' ? 1 : await tools.count()); i++) {
          if (pass !== 'Deliver') await tools.nth(i).click()
          if (height < 700 && pass !== 'Deliver' && (await more.getAttribute('aria-expanded')) === 'false')
            await more.click()
          if (pass === 'Weight' && !i) await page.keyboard.press('Control+a')
          expect(await crowded(page, 44), `${pass}, ${i + 1}`).toEqual([])
        }
        await expect(page.getByRole('button', { name: 'History' })).toBeInViewport({ ratio: 1 })
        if (pass === 'Deliver') continue
        // The keys stand beside the page, and over nothing else.
        const keys = (await page.getByTestId('screen-keys').boundingBox())!
        const canvas = (await page.getByTestId('canvas').boundingBox())!
        expect(keys.y, pass).toBeGreaterThanOrEqual(canvas.y)
        expect(keys.y + keys.height, pass).toBeLessThanOrEqual(canvas.y + canvas.height)
      }
    })
})

test('turning a tablet, or dragging the window, loses no line under way, no choice and no view', async ({ page }) => {
  await page.setViewportSize({ width: 820, height: 1180 })
  await startDrawing(page)
  await takeUp(page, 'Pen')
  await clickAt(page, { x: 200, y: 150 })
  await clickAt(page, { x: 320, y: 210 })
  await page.getByLabel('Zoom in', { exact: true }).click()
  const zoom = await page.getByTestId('zoom').inputValue()
  for (const [width, height] of [
    [1180, 820],
    [640, 480],
    [820, 1180],
  ] as const) {
    await page.setViewportSize({ width, height })
    await expect(page.getByTestId('tray')).toBeVisible()
    expect(await page.getByTestId('zoom').inputValue()).toBe(zoom)
  }
  await clickAt(page, { x: 260, y: 300 })
  await page.keyboard.press('Enter')
  const [line] = await savedLines(page)
  expect(line!.path.nodes.map((n) => [Math.round(n.at.x), Math.round(n.at.y)])).toEqual([
    [200, 150],
    [320, 210],
    [260, 300],
  ])
})

test('without a keyboard: keys on the screen are held or locked, finish and drop, and a tray button is held like its key', async ({
  page,
}) => {
  await page.setViewportSize({ width: 820, height: 1180 })
  await startDrawing(page)
  await page.getByLabel('Keys on the screen').click()
  const keys = page.getByTestId('screen-keys')
  const key = (name: string) => keys.getByRole('button', { name })
  const session = await page.context().newCDPSession(page)
  const touch = async (type: 'touchStart' | 'touchEnd', at?: { x: number; y: number }) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [{ ...at, id: 3 }] : [] })
  const middleOf = async (name: string): Promise<{ x: number; y: number }> => {
    const box = (await key(name).boundingBox())!
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', at: { x: number; y: number }, button = 'left') =>
    session.send('Input.dispatchMouseEvent', {
      type,
      ...at,
      button: button as 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force: 0.6,
    })
  const tap = async (p: { x: number; y: number }): Promise<void> => {
    const at = await onScreen(page, p)
    await pen('mouseMoved', at)
    await pen('mousePressed', at)
    await pen('mouseReleased', at)
  }
  await takeUp(page, 'Pen')
  await tap({ x: 150, y: 200 })
  // Held by the other hand: the next node lies level with the one before.
  const straight = await middleOf('Straight')
  await touch('touchStart', straight)
  await rest(page, 320)
  await tap({ x: 420, y: 214 })
  await touch('touchEnd')
  await expect(key('Straight')).toHaveAttribute('aria-pressed', 'false')
  await tap({ x: 500, y: 330 })
  await tap({ x: 300, y: 400 })
  await key('Back').click()
  await key('Finish').click()
  const [line] = await savedLines(page)
  expect(line!.path.nodes.map((n) => Math.round(n.at.y))).toEqual([200, 200, 330])
  await key('Undo').click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(0)
  await key('Redo').click()
  await expect.poll(async () => (await savedLines(page)).length).toBe(1)
  // A tap locks a key until the next tap.
  await key('Move page').click()
  await expect(key('Move page')).toHaveAttribute('aria-pressed', 'true')
  const view = () => page.getByTestId('canvas').getAttribute('data-view')
  const before = await view()
  await drag(page, 200, 200, 260, 240)
  expect(await view()).not.toBe(before)
  expect(await savedLines(page)).toHaveLength(1)
  await key('Move page').click()
  await expect(key('Move page')).toHaveAttribute('aria-pressed', 'false')
  // An instrument that a finger holds down is in hand only as long; what it is, a long press says.
  const select = page.getByTestId('tray').getByRole('button', { name: /^\w Select/ })
  const box = (await select.boundingBox())!
  await touch('touchStart', { x: box.x + 20, y: box.y + 20 })
  await expect(select).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByTestId('long-press')).toContainText('Select')
  await touch('touchEnd')
  await expect(select).toHaveAttribute('aria-pressed', 'false')
  await expect(page.getByTestId('long-press')).toHaveCount(0)
  await select.click()
  await expect(select).toHaveAttribute('aria-pressed', 'true')
  // Who asks what a thing does, does not do it.
  const undoBox = (await page.getByRole('banner').getByRole('button', { name: 'Undo' }).boundingBox())!
  await touch('touchStart', { x: undoBox.x + 12, y: undoBox.y + 12 })
  await expect(page.getByTestId('long-press')).toContainText('Undo')
  await touch('touchEnd')
  await expect(page.getByTestId('long-press')).toHaveCount(0)
  expect(await savedLines(page)).toHaveLength(1)
})

test("the pen's second button moves the page, its other end scrapes, each unless one wants nothing of it", async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Blot')
  await drag(page, 200, 200, 420, 210)
  const solids = async (): Promise<number[]> =>
    (await savedDrawing(page)).layers.flatMap((l) =>
      l.kind === 'lines' || l.kind === 'sketch' ? [] : l.items.map((s) => s.contours.length),
    )
  await expect.poll(solids).toEqual([1])
  /** A pen with a button that the browser's test interface does not know. */
  const pen = async (button: number, ...way: [number, number][]): Promise<void> => {
    const at = await Promise.all(way.map(([x, y]) => onScreen(page, { x, y })))
    await page.mouse.move(at[0]!.x, at[0]!.y)
    for (const [i, { x, y }] of [...at, at.at(-1)!].entries())
      await page.evaluate(
        ([type, x, y, button]) =>
          document.querySelector('[data-testid="canvas"]')!.dispatchEvent(
            new PointerEvent(type, {
              pointerId: 1,
              pointerType: 'pen',
              bubbles: true,
              clientX: x,
              clientY: y,
              button: type === 'pointermove' ? -1 : button,
              buttons: type === 'pointerup' ? 0 : button === 5 ? 32 : 2,
              pressure: 0.6,
            }),
          ),
        [i === 0 ? 'pointerdown' : i < at.length ? 'pointermove' : 'pointerup', x, y, button] as const,
      )
  }
  await pen(5, [300, 150], [300, 180], [302, 220], [302, 270])
  await expect.poll(solids).toEqual([2])
  await expect(page.getByTestId('tray').getByRole('button', { name: /^\w Blot/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  const view = () => page.getByTestId('canvas').getAttribute('data-view')
  const before = await view()
  await pen(2, [300, 150], [340, 180])
  const moved = await view()
  expect(moved).not.toBe(before)
  await page.getByLabel('Keys on the screen').click()
  await page.getByTestId('screen-keys').getByRole('button', { name: 'Hands' }).click()
  await page.getByLabel('Second button of the pen').selectOption('nothing')
  await page.getByLabel('Other end of the pen').selectOption('nothing')
  await page.keyboard.press('Escape')
  await pen(2, [300, 150], [340, 180])
  await pen(5, [240, 150], [240, 180], [242, 220], [242, 270])
  expect(await view()).toBe(moved)
  expect(await solids()).toEqual([2])
})
