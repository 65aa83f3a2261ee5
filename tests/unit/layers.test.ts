import { describe, expect, it } from 'vitest'
import { newDrawing, newFillsLayer, newLinesLayer, newSketchLayer } from '#core/model/create'
import { alike, copiedLayer, freeLayerName } from '#core/editing/layers'
import type { LinesLayer } from '#core/model/model'
import { plainLine } from './support/desk'

describe('layers', () => {
  it('are copied with all in them under fresh ids, snips bound by the copies', () => {
    const lines = [
      {
        ...plainLine({ x: 0, y: 0 }, { x: 9, y: 0 }),
        id: 'a',
        snips: [
          { from: 0.5, to: 1, fromBy: 'b' },
          { from: 0, to: 0.2, toBy: 'elsewhere' },
        ],
      },
      { ...plainLine({ x: 5, y: -5 }, { x: 5, y: 5 }), id: 'b' },
    ]
    const layer = newLinesLayer('Leaf', lines)
    const copy = copiedLayer(layer, 'Leaf copy') as LinesLayer
    expect(copy.name).toBe('Leaf copy')
    expect(new Set([layer.id, copy.id, 'a', 'b', ...copy.items.map((l) => l.id)]).size).toBe(6)
    expect(copy.items[0]!.snips).toEqual([
      { from: 0.5, to: 1, fromBy: copy.items[1]!.id },
      { from: 0, to: 0.2, toBy: 'elsewhere' },
    ])
    expect(copy.items[1]!.path).toBe(lines[1]!.path)
  })

  it('get a name that is free', () => {
    const drawing = newDrawing('Test', { layers: ['Leaf', 'Leaf copy', 'Leaf copy 2'].map((n) => newLinesLayer(n)) })
    expect(freeLayerName(drawing, 'Leaf copy')).toBe('Leaf copy 3')
    expect(freeLayerName(drawing, 'Root')).toBe('Root')
  })

  it('become one only with their like', () => {
    const sketch = newSketchLayer({ id: 's', image: '', x: 0, y: 0, width: 1, height: 1, angle: 0 })
    expect(alike(newLinesLayer('a'), newLinesLayer('b'))).toBe(true)
    expect(alike(newFillsLayer('a'), { ...newFillsLayer('b'), kind: 'shapes' })).toBe(true)
    expect(alike(newLinesLayer('a'), newFillsLayer('b'))).toBe(false)
    expect(alike(newLinesLayer('a'), sketch)).toBe(false)
  })
})
