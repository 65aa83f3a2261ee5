import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer, newSketchLayer } from '#core/model/create'
import { changed } from '#core/document/edits'
import type { Drawing, Layer, Line } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { applyPatches } from '#core/document/apply-patches'
import { patchesBetween } from '#core/document/patches-between'
import { UnfitPatch } from '#core/document/patch'
import { checkDrawing, checkTouched } from '#core/document/check-drawing'
import { randomLine } from './support/random-lines'

const fresh = (seed: number): Line => ({ ...newLine(randomLine(seed).path), id: `line-${seed}` })

const start = newDrawing('Start', {
  layers: [
    newLinesLayer('A', [1, 2, 3, 4].map(fresh)),
    newLinesLayer('B', [5, 6].map(fresh)),
    newSketchLayer({ id: 's', image: 'a'.repeat(64), x: 0, y: 0, width: 9, height: 9, angle: 0 }),
  ],
})

type Act = {
  kind: 'add' | 'remove' | 'weigh' | 'swap' | 'carry' | 'layer' | 'unlayer' | 'shuffle' | 'dim' | 'rename'
  a: number
  b: number
}

const acts = fc.array(
  fc.record({
    kind: fc.constantFrom<Act['kind']>(
      'add',
      'remove',
      'weigh',
      'swap',
      'carry',
      'layer',
      'unlayer',
      'shuffle',
      'dim',
      'rename',
    ),
    a: fc.nat(30),
    b: fc.nat(30),
  }),
  { maxLength: 12 },
)

let seed = 100

/** The drawing after a random act: whatever a hand could do to layers and lines. */
function act(drawing: Drawing, { kind, a, b }: Act): Drawing {
  return changed(drawing, (d) => {
    const layers = d.layers.filter((l) => l.kind === 'lines')
    const layer = layers[a % Math.max(1, layers.length)]
    const items = (layer?.items ?? []) as Line[]
    const i = b % Math.max(1, items.length)
    if (kind === 'rename') d.name = `Name ${a}`
    else if (kind === 'layer')
      d.layers.splice(b % (d.layers.length + 1), 0, newLinesLayer(`Layer ${a}`, [fresh(++seed)]))
    else if (kind === 'unlayer' && layer) d.layers.splice(d.layers.indexOf(layer), 1)
    else if (kind === 'shuffle') d.layers.reverse()
    else if (kind === 'dim' && layer) layer.opacity = (a % 10) / 10
    else if (kind === 'add' && layer) items.splice(i, 0, fresh(++seed))
    else if (kind === 'remove') items.splice(i, 1)
    else if (kind === 'weigh' && items[i]) items[i].weight.size = b + 1
    else if (kind === 'swap' && items.length > 1) items.unshift(...items.splice(i, 1))
    else if (kind === 'carry' && items.length)
      layers[(a + 1) % layers.length]!.items.push(items.splice(i, 1)[0] as never)
  })
}

const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T
const paths = (all: Patch[]): string[] => all.map((p) => `${p.op} ${p.path.join('/')}`)

describe('patches between two drawings', () => {
  it('lead from one to the other and back, also through JSON', () => {
    fc.assert(
      fc.property(acts, (all) => {
        const end = all.reduce(act, start)
        expect(applyPatches(plain(start), plain(patchesBetween(start, end)))).toEqual(end)
        expect(applyPatches(end, patchesBetween(end, start))).toEqual(start)
        expect(() => checkTouched(end, patchesBetween(start, end))).not.toThrow()
      }),
      { seed: 1, numRuns: 300 },
    )
  })

  it('are none where nothing changed, also when it was made anew', () => {
    expect(patchesBetween(start, start)).toEqual([])
    expect(patchesBetween(start, plain(start))).toEqual([])
  })

  it('say no more than what changed', () => {
    const [a] = start.layers
    const without = changed(start, (d) => void d.layers[0]!.items.splice(1, 1))
    expect(paths(patchesBetween(start, without))).toEqual([`remove layers/${a!.id}/items/line-2`])
    expect(paths(patchesBetween(without, start))).toEqual([`add layers/${a!.id}/items/1`])
    const heavier = changed(start, (d) => void ((d.layers[0]!.items[2] as Line).weight.size = 40))
    expect(paths(patchesBetween(start, heavier))).toEqual([`replace layers/${a!.id}/items/line-3/weight/size`])
    const raised = changed(start, (d) => void d.layers.reverse())
    expect(paths(patchesBetween(start, raised))).toEqual(['order layers'])
  })

  it('leave what they do not touch the same objects', () => {
    const next = applyPatches(start, [{ op: 'replace', path: ['layers', start.layers[0]!.id, 'opacity'], value: 0.5 }])
    expect(next.layers[1]).toBe(start.layers[1])
    expect(next.layers[0]!.items).toBe(start.layers[0]!.items)
    expect(applyPatches(start, [{ op: 'replace', path: ['name'], value: 'x' }]).layers).toBe(start.layers)
    expect(start.name).toBe('Start')
  })
})

describe('patches on a drawing that others changed', () => {
  const [a, b] = start.layers as [Layer, Layer, Layer]

  it('meet their line wherever it is now', () => {
    const mine = patchesBetween(
      start,
      changed(start, (d) => void ((d.layers[0]!.items[3] as Line).weight.size = 40)),
    )
    const theirs = changed(start, (d) => void d.layers[0]!.items.splice(0, 2))
    const both = applyPatches(theirs, mine).layers[0]!.items as Line[]
    expect(both.map((l) => [l.id, l.weight.size])).toEqual([
      ['line-3', 6],
      ['line-4', 40],
    ])
  })

  it('keep lines that an order does not know', () => {
    const mine: Patch[] = [
      { op: 'order', path: ['layers', a.id, 'items'], value: ['line-4', 'line-3', 'line-2', 'line-1'] },
    ]
    const theirs = changed(start, (d) => void d.layers[0]!.items.push(fresh(77) as never))
    expect(applyPatches(theirs, mine).layers[0]!.items.map((i) => i.id)).toEqual([
      'line-4',
      'line-77',
      'line-3',
      'line-2',
      'line-1',
    ])
  })

  it.each<[string, Patch]>([
    ['a line that is gone', { op: 'replace', path: ['layers', a.id, 'items', 'gone', 'weight'], value: null }],
    ['a line on another layer', { op: 'remove', path: ['layers', b.id, 'items', 'line-1'] }],
    ['a layer that is gone', { op: 'replace', path: ['layers', 'gone', 'name'], value: 'x' }],
    ['a line that is there already', { op: 'add', path: ['layers', a.id, 'items', 0], value: fresh(1) }],
    ['an unknown field', { op: 'replace', path: ['layers', a.id, 'kind'], value: 'fills' }],
    ['the id', { op: 'replace', path: ['id'], value: 'x' }],
    [
      'a path that leads nowhere',
      { op: 'replace', path: ['layers', a.id, 'items', 'line-1', 'path', 'closed'], value: true },
    ],
    [
      'a field of everything',
      { op: 'replace', path: ['layers', a.id, 'items', 'line-1', 'weight', '__proto__'], value: {} },
    ],
    ['an ink that is gone', { op: 'replace', path: ['inks', 'gone', 'colour'], value: '#000000' }],
    ['an unknown setting', { op: 'replace', path: ['settings', 'shapes', 'toString'], value: 1 }],
    ['a place that is no number', { op: 'add', path: ['layers', 'top'], value: b }],
    ['an order that is no list', { op: 'order', path: ['layers'], value: 'abc' }],
    ['a line of nothing', { op: 'add', path: ['layers', a.id, 'items', 0], value: null }],
  ])('do not fit %s', (_name, patch) => {
    expect(() => applyPatches(start, [patch])).toThrow(UnfitPatch)
  })
})

describe('ids', () => {
  it('are unique among layers and among lines, on whichever layer', () => {
    const [a] = start.layers
    expect(() => checkDrawing({ ...start, layers: [a, a] })).toThrow(/two parts have the id/)
    const patch: Patch = { op: 'add', path: ['layers', start.layers[1]!.id, 'items', 0], value: fresh(1) }
    expect(() => checkTouched(applyPatches(start, [patch]), [patch])).toThrow(/two parts have the id "line-1"/)
  })
})

describe('the limits of lists', () => {
  it('a full layer takes no more lines, and says so', () => {
    const [a] = start.layers
    const line = fresh(1)
    const full = {
      ...start,
      layers: [{ ...a!, items: Array.from({ length: 50_001 }, (_, i) => ({ ...line, id: `l${i}` })) } as Layer],
    }
    expect(() =>
      checkTouched(full, [{ op: 'add', path: ['layers', a!.id, 'items', 0], value: { ...line, id: 'l0' } }]),
    ).toThrow(/layer "A" is full/)
  })
})
