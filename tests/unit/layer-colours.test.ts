import { expect, it } from 'vitest'
import { LayerColours } from '~/painting/layer-colours'
import type { InkEntry } from '~/painting/paint-stack'

const entry = (id: string, layer: string): InkEntry => ({
  ...{ id, layer, colour: '#000000', parts: [], behind: [], opacity: 0.4 },
  box: { minX: 0, minY: 0, maxX: 1, maxY: 1 },
})

it('each layer has a colour of its own, and what stays is the same object', () => {
  const colours = new LayerColours()
  const all = [entry('a', 'one'), entry('b', 'two'), entry('c', 'one'), entry('poured', '')]
  const layers = [{ id: 'one' }, { id: 'two' }]
  const seen = colours.of(all, layers)
  expect(seen[0]!.colour).toBe(seen[2]!.colour)
  expect(new Set(seen.map((e) => e.colour)).size).toBe(3)
  expect(seen[3]).toBe(all[3])
  expect(seen[1]).toEqual({ ...all[1], colour: seen[1]!.colour })
  expect(colours.of([all[1]!, all[0]!], layers)).toEqual([seen[1], seen[0]])
  expect(colours.of(all, layers)[0]).toBe(seen[0])
  // A layer in another place has another colour.
  expect(colours.of(all, [...layers].reverse())[0]!.colour).toBe(seen[1]!.colour)
})
