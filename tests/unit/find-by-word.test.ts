import { expect, it } from 'vitest'
import type { Findable } from '~/commands/find-by-word'
import { foundByWord } from '~/commands/find-by-word'

const thing = (title: string, kind = 'Command', says = ''): Findable => ({
  title,
  kind,
  says,
  key: '',
  go: () => title,
})
const ALL = [
  thing('Flip ends'),
  thing('Whole page; held: for as long'),
  thing('Snip', 'Instrument of Lines', 'hide the part of a line beyond a crossing'),
  thing('Snapping', 'Setting in Lines', 'What points are drawn to'),
  thing('Page and unit', 'Setting in Sketch'),
]
const names = (typed: string): string[] => foundByWord(ALL, typed).map((t) => t.title)

it('finds by a few letters: the title first, then what is said of it, then letters in order', () => {
  expect(names('')).toEqual([])
  expect(names('sn')).toEqual(['Snip', 'Snapping'])
  expect(names('page')).toEqual(['Page and unit', 'Whole page; held: for as long'])
  expect(names('CROSS')).toEqual(['Snip'])
  expect(names('spp')).toEqual(['Snapping'])
  expect(names('flip snip')).toEqual([])
  expect(names('line sn')).toEqual(['Snip', 'Snapping'])
  expect(names('zzz')).toEqual([])
})
