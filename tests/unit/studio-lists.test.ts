import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { KeptPalette } from '../../core/formats/palettes/palettes'
import type { Belongings } from '../../core/formats/studio/belongings'
import { belongingsChangeSchema, SHIPPED } from '../../core/formats/studio/belongings'
import { lacking, partsOf } from '../../core/formats/studio/lacking'
import { listChange, withListChange } from '../../core/formats/studio/list-change'

const palette = (name: string, colour: string): KeptPalette => ({ name, inks: [{ name: 'Leaf', colour }] })
const list = fc.uniqueArray(
  fc.record({ name: fc.constantFrom(...'abcdef'), colour: fc.constantFrom('#102030', '#405060') }),
  { selector: (p) => p.name },
)
const palettes = list.map((all) => all.map((p) => palette(p.name, p.colour)))
const names = (all: readonly KeptPalette[]): string[] => all.map((p) => p.name)

it('a change leads from one list to the other, and none where they are alike', () => {
  fc.assert(
    fc.property(palettes, palettes, (before, after) => {
      const change = listChange('palettes', before, after)
      expect(change === null).toBe(JSON.stringify(before) === JSON.stringify(after))
      if (change) expect(withListChange('palettes', before, change)).toEqual(after)
    }),
    { numRuns: 200 },
  )
})

it('what two windows did to one list is all there, whoever comes first; of one thing that both did, the last', () => {
  fc.assert(
    fc.property(palettes, palettes, palettes, (base, one, other) => {
      const mine = listChange('palettes', base, one)
      const theirs = listChange('palettes', base, other)
      const first = mine ? withListChange('palettes', base, mine) : base
      const both = theirs ? withListChange('palettes', first, theirs) : first
      for (const p of one.filter((q) => !names(base).includes(q.name) && !names(other).includes(q.name)))
        expect(both).toContainEqual(p)
      for (const p of theirs?.put ?? []) expect(both).toContainEqual(p)
      for (const gone of theirs?.gone ?? []) expect(names(both)).not.toContain(gone)
      expect(new Set(names(both)).size).toBe(both.length)
    }),
    { numRuns: 200 },
  )
})

const belongings = (over: Partial<Belongings>): Belongings => ({
  choices: {},
  own: [],
  ...SHIPPED,
  ...over,
})

it('what a browser remembered comes to a seat without writing over what that has', () => {
  const seat = belongings({
    choices: { studio: { size: 7 } },
    own: ['palettes'],
    palettes: [palette('Hedge', '#304050')],
  })
  const [hair, ...others] = SHIPPED.nibs
  const tuned = { ...hair!, size: 2.25 }
  const browser = belongings({
    choices: { studio: { size: 3, nib: 'bold' }, guide: { away: true } },
    own: ['nibs', 'palettes', 'keys'],
    nibs: [...others.slice(1), tuned],
    palettes: [palette('Hedge', '#ff0000'), palette('Bee', '#e0c020')],
    keys: [{ was: 'f', is: 'j' }],
  })
  const change = lacking(seat, browser)
  expect(change).toEqual({
    choices: { studio: { nib: 'bold' }, guide: { away: true } },
    // Nobody decided on nibs here: all of theirs, one of them tuned, one taken away, in their order.
    nibs: { put: [tuned], gone: [others[0]!.id], order: [...others.slice(1), tuned].map((n) => n.id) },
    palettes: { put: [palette('Bee', '#e0c020')], gone: [], order: ['Hedge', 'Bee'] },
    keys: { put: [{ was: 'f', is: 'j' }], gone: [], order: ['f'] },
  })
  // What is sent part by part comes to the same.
  expect(partsOf(change).map((p) => Object.keys(p.choices ? Object.values(p.choices)[0]! : p)[0])).toEqual([
    'nib',
    'away',
    'nibs',
    'palettes',
    'keys',
  ])
})

it('a change that holds what no seat may have is refused, by its field', () => {
  const refused = (change: unknown): string => {
    try {
      belongingsChangeSchema.validateSync(change)
      return ''
    } catch (e) {
      return (e as Error).message
    }
  }
  const put = (item: unknown) => ({ put: [item], gone: [], order: [] })
  expect(refused({ choices: { studio: { size: 3, tapers: null } } })).toBe('')
  expect(refused({ choices: { studio: [] } })).toMatch(/studio cannot be kept/)
  expect(refused({ choices: { studio: { size: 'x'.repeat(70_000) } } })).toMatch(/studio cannot be kept/)
  expect(refused({ nibs: put({ id: 'a', name: 'A', size: -1, variation: 0, roundness: 1, angle: 0 }) })).toMatch(/size/)
  expect(refused({ palettes: put({ name: 'Hedge', inks: [{ name: 'Leaf', colour: 'green' }] }) })).toMatch(/colour/)
  expect(refused({ keys: put({ was: 'f' }) })).toMatch(/is/)
  expect(refused({ deliveries: put({ name: 'print', settings: { kind: 'pdf' } }) })).toMatch(/settings/)
  expect(belongingsChangeSchema.validateSync({ brushes: put({}) })).not.toHaveProperty('brushes')
})
