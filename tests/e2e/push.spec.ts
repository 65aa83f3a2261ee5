import { clickAt, dragThrough, savedLines, startDrawing, takeUp, undo } from './support/desk'
import { expect, test } from './support/test'

test('several lines are pushed at once, wider and weaker by keys, undone as one step; what is not reached stays', async ({
  page,
}) => {
  await startDrawing(page)
  await takeUp(page, 'Pen')
  for (const y of [200, 230, 420]) {
    await clickAt(page, { x: 160, y })
    await clickAt(page, { x: 560, y: y + 12 })
    await page.keyboard.press('Enter')
  }
  const before = await savedLines(page)
  expect(before).toHaveLength(3)
  // The line laid last is chosen: with none chosen all are pushed.
  await page.keyboard.press('Escape')
  await page.keyboard.press('Shift+s')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByRole('slider', { name: 'Radius' })).toHaveValue('72')
  await dragThrough(page, [
    { x: 330, y: 190 },
    { x: 345, y: 220 },
    { x: 350, y: 250 },
  ])
  const pushed = await savedLines(page)
  expect(pushed[2]).toEqual(before[2])
  for (const i of [0, 1]) {
    expect(pushed[i]!.path).not.toEqual(before[i]!.path)
    // Its ends lie beyond the circle; what the push made of its middle is smooth.
    expect(pushed[i]!.path.nodes[0]!.at).toEqual(before[i]!.path.nodes[0]!.at)
    expect(pushed[i]!.path.nodes.slice(1, -1).every((n) => n.joint === 'smooth')).toBe(true)
    expect(Math.max(...pushed[i]!.path.nodes.map((n) => n.at.y))).toBeGreaterThan(before[i]!.path.nodes[1]!.at.y + 8)
  }
  await undo(page, 1)
  expect(await savedLines(page)).toEqual(before)
})
