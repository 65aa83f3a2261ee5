import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyPatches } from '#core/document/apply-patches'
import { checkDrawing, checkTouched } from '#core/document/check-drawing'
import { BLACK, newDrawing, newLine, newLinesLayer, newSketchLayer } from '#core/model/create'
import { makeEdit } from '#core/document/edits'
import type {
  Amendment,
  Corner,
  Drawing,
  Fill,
  Finish,
  Ink,
  KeptTrace,
  Line,
  Settings,
  Shape,
  Sketch,
  Weight,
} from '#core/model/model'
import type { Lacking } from '#core/document/optional-fields'
import { expectExact } from './support/exact'
import { randomLine } from './support/random-lines'

const path = (seed: number) => randomLine(seed).path
const trace: KeptTrace = {
  of: 'c'.repeat(64),
  count: 9,
  at: [1, 0, 0, 1, 3, -2],
  device: 'pen',
  steadiness: 0.25,
  response: 1.5,
}
const rawLine = (seed: number): Line => ({ ...newLine(path(seed)), id: `line-${seed}`, trace })
const solid: Shape = { id: 'solid', contours: [{ ...path(7), closed: true }], ink: 'red', from: [] }
const place = { at: 0.31, ahead: -0.2, left: 1.7 }

/** One of everything that a hand can decide. */
const start: Drawing = newDrawing('All', {
  layers: [
    newSketchLayer({ id: 'sketch', image: 'a'.repeat(64), x: -3, y: 5, width: 90, height: 41, angle: 7 }),
    { ...newLinesLayer('Solids'), kind: 'shapes', items: [solid] },
    newLinesLayer('Lines', [1, 2, 3, 4, 5, 6].map(rawLine)),
  ],
  inks: [{ ...BLACK }, { id: 'red', name: 'Red', colour: '#aa2030' }],
  amendments: [
    { id: 'trim', kind: 'trim', line: 'line-2', place, over: ['line-3'], bounds: [{ by: 'line-3', side: -1 }] },
    {
      id: 'corner',
      kind: 'corner',
      ends: [
        { line: 'line-1', end: 'last' },
        { line: 'line-4', end: 'first' },
      ],
      style: 'pointed',
    },
    { id: 'fineness', kind: 'fineness', line: 'line-5', place, simplify: 0.4 },
    { id: 'retouch', kind: 'retouch', at: { x: 3, y: 9 }, to: 'cut' },
    { id: 'front', kind: 'front', front: ['line-1'], back: ['line-3'], both: true },
    { id: 'bridge', kind: 'bridge', lines: ['line-2', 'line-3'], along: 0.1, across: -0.2 },
    { id: 'cast', kind: 'cast', front: ['line-2'], gap: 0.2, width: 1, taper: 0.5 },
    { id: 'mirror', kind: 'mirror', lines: ['line-1'], from: { x: 60, y: 0 }, to: { x: 61, y: 90 }, fresh: true },
    { id: 'repeat', kind: 'repeat', lines: ['line-2'], about: { x: 60, y: 40 }, times: 5, left: [2] },
    { id: 'leave', kind: 'leave', key: 'blunt line-2 last' },
  ],
  fills: [
    {
      id: 'fill',
      ink: 'red',
      where: 'region',
      at: { x: 40, y: 61 },
      hold: [{ line: 'line-1', side: 'left', from: 0.1, to: 0.4 }],
      gap: 0.3,
    },
  ],
})

/** Values that each field can have that a record may lack: a new field of the model is missed here by the compiler. */
const VALUES: {
  line: Record<Lacking<Line>, unknown[]>
  sketch: Record<Lacking<Sketch>, unknown[]>
  weight: Record<Lacking<Weight>, unknown[]>
  finish: Record<Lacking<Finish>, unknown[]>
  trace: Record<Lacking<KeptTrace>, unknown[]>
  settings: Record<Lacking<Settings>, unknown[]>
  shapes: Record<Lacking<Settings['shapes']>, unknown[]>
  ink: Record<Lacking<Ink>, unknown[]>
  corner: Record<Lacking<Corner>, unknown[]>
  fill: Record<Lacking<Fill>, unknown[]>
  drawing: Record<Lacking<Drawing>, unknown[]>
} = {
  line: {
    contact: [{ last: 'leave' }, { first: 'taper', last: 'full' }],
    tuck: [{ first: 'under' }, { last: 'out', first: 'in' }],
    over: [{ last: ['line-3'] }, { first: ['line-1', 'line-2'] }],
    scrapes: [[{ ...path(8), closed: true }]],
    outside: ['left', 'right'],
    apart: ['beetle'],
    tint: [0, -0.4],
    name: ['Left ear'],
    hidden: [true],
    locked: [true],
  },
  sketch: {
    clean: [{ even: true, white: 0.8, black: 0.2, pencil: 1.3, specks: 4 }],
    corners: [
      [
        { x: 0.1, y: 0.02 },
        { x: 0.9, y: 0 },
        { x: 1, y: 0.97 },
        { x: 0, y: 1 },
      ],
    ],
    crop: [{ x: 0.1, y: 0.2, width: 0.5, height: 0.7 }],
    mirrored: [true],
    plain: [true],
  },
  weight: { unlit: [[{ at: 0.3, left: 1, right: 0.4 }]] },
  finish: { rough: [{ amount: 0.3, grain: 5, seed: 11 }] },
  trace: {
    least: [0.2],
    most: [0.7],
    variation: [0.9],
    fromSpeed: [true],
    unevenness: [0.1],
    widthTolerance: [0.04],
    loop: [true, false],
    squared: [true, false],
    zoom: [2.5],
    part: [[0.2, 0.7]],
    reversed: [true],
  },
  settings: {
    tuck: [true, false],
    corner: ['pointed'],
    light: [{ at: { x: 4, y: -3 }, strength: 0.4, softness: 0.8, live: false }],
    tint: [0.3, 0],
    frontsByOrder: [true],
    proof: [{ thin: 0.4 }, { gap: 0.2, open: 1 }],
  },
  shapes: { corner: [22] },
  ink: { print: [{ c: 10, m: 90, y: 3, k: 0 }] },
  corner: { behind: [0, 1], limit: [7], length: [0, 2] },
  fill: {
    under: [0, 0.7],
    shades: [[{ id: 'shade', contours: [{ ...path(9), closed: true }], tone: -0.3 }]],
    lit: [{ depth: 0.3, softness: 0.2, shade: 0.5, light: 0 }],
  },
  drawing: {
    amendments: [[], [{ id: 'other', kind: 'leave', key: 'blunt line-1 first' }]],
    fills: [[], [{ id: 'page', ink: 'red', where: 'page', at: { x: 1, y: 2 }, hold: [], gap: 0 }]],
  },
}

/** Records of a drawing that lack fields, by their kind. */
function recordsOf(d: Drawing, kind: keyof typeof VALUES): object[] {
  const lines = d.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
  switch (kind) {
    case 'line':
      return lines
    case 'weight':
    case 'finish':
      return lines.map((l) => l[kind])
    case 'trace':
      return lines.flatMap((l) => l.trace ?? [])
    case 'sketch':
      return d.layers.flatMap((l): Sketch[] => (l.kind === 'sketch' ? l.items : []))
    case 'settings':
      return [d.settings]
    case 'shapes':
      return [d.settings.shapes]
    case 'ink':
      return d.inks
    case 'corner':
      return (d.amendments ?? []).filter((a) => a.kind === 'corner')
    case 'fill':
      return d.fills ?? []
    case 'drawing':
      return [d]
  }
}

const FIELDS = Object.entries(VALUES).flatMap(([kind, fields]) =>
  Object.keys(fields).map((field) => ({ kind: kind as keyof typeof VALUES, field })),
)

/** A random value, or none, in a field of one record, or of all. */
const acts = fc.array(fc.record({ field: fc.constantFrom(...FIELDS), value: fc.nat(2), which: fc.nat(6) }), {
  minLength: 1,
  maxLength: 6,
})

function put(
  d: Drawing,
  { field: { kind, field }, value, which }: { field: (typeof FIELDS)[number]; value: number; which: number },
): void {
  const values = (VALUES[kind] as Record<string, unknown[]>)[field]!
  const records = recordsOf(d, kind)
  for (const [i, record] of records.entries()) {
    if (which < records.length && i !== which) continue
    if (value < values.length) Object.assign(record, { [field]: structuredClone(values[value]) })
    else Reflect.deleteProperty(record, field)
  }
}

describe('every edit has an exact inverse', () => {
  it('for random values in any field that a record may lack', () => {
    expect(() => checkDrawing(start)).not.toThrow()
    fc.assert(
      fc.property(fc.array(acts, { minLength: 1, maxLength: 4 }), (steps) => {
        let now = start
        for (const step of steps) {
          const made = makeEdit(now, 'Random', (d) => step.forEach((a) => put(d, a)))
          if (!made) continue
          expectExact(now, made.edit, made.drawing)
          now = made.drawing
        }
      }),
      { seed: 26, numRuns: 400 },
    )
  })

  it('for anything that an amendment says', () => {
    const others: Record<Amendment['kind'], object> = {
      trim: { line: 'line-6', over: [], bounds: [], place: { at: 0, ahead: 0, left: 0 } },
      corner: {
        ends: [
          { line: 'line-6', end: 'first' },
          { line: 'line-1', end: 'first' },
        ],
      },
      fineness: { line: 'line-6', simplify: 0 },
      retouch: { to: null },
      front: { front: ['line-6'], back: ['line-1', 'line-2'] },
      bridge: { lines: ['line-2'], along: -0.1, across: 0.3 },
      cast: { front: ['line-3'], gap: 0, width: 2, ink: 'red' },
      mirror: { lines: ['line-2', 'line-4'], from: { x: 1, y: 2 }, otherwise: ['line-4'] },
      repeat: { about: { x: 9, y: 2 }, times: 7, left: [] },
      leave: { key: 'gap line-6 first' },
    }
    for (const [i, { kind }] of start.amendments!.entries()) {
      const made = makeEdit(start, 'Other', (d) => void Object.assign(d.amendments![i]!, others[kind]))!
      expectExact(start, made.edit, made.drawing)
    }
  })

  it('shade and its being taken away are edits', () => {
    const lit = { depth: 0.3, softness: 0.2, shade: 0.5, light: 0 }
    const glowing = makeEdit(start, 'Glow', (d) => void (d.fills![0]!.lit = lit))!
    expect(glowing.edit.inverse).toEqual([{ op: 'replace', path: ['fills', 'fill', 'lit'], value: undefined }])
    const dull = makeEdit(glowing.drawing, 'Glow', (d) => void delete d.fills![0]!.lit)!
    expect(applyPatches(glowing.drawing, dull.edit.patches)).toStrictEqual(start)
  })

  it('the last amendment and the last fill leave no empty list behind', () => {
    const bare = { ...start }
    delete bare.amendments
    delete bare.fills
    const made = makeEdit(
      bare,
      'Everything',
      (d) => void Object.assign(d, { amendments: start.amendments, fills: start.fills }),
    )!
    expectExact(bare, made.edit, made.drawing)
    expect(() => checkTouched(made.drawing, made.edit.patches)).not.toThrow()
    expect(makeEdit(bare, 'Nothing', (d) => void Object.assign(d, { amendments: [], fills: [] }))).toBeNull()
    expect(checkDrawing({ ...bare, amendments: [], fills: [] })).toStrictEqual(bare)
  })
})
