import fc from 'fast-check'
import { ValidationError } from 'yup'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { Patch } from '#core/document/patch'
import { applyPatches } from '#core/document/apply-patches'
import { UnfitPatch } from '#core/document/patch'
import { checkDrawing, checkTouched } from '#core/document/check-drawing'
import { InputError } from '#core/errors'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { hasInbornKeys } from '#core/formats/json'
import { readProfiles } from '#core/formats/profiles/read-profiles'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import { fitTrace } from '#core/fit/fit-trace'
import { LiveFit } from '#core/fit/live-fit'
import { expandLine } from '#core/outline/expand'
import { createSchema, renameSchema, shelfSchema } from '../../../shared/api'
import { appendSchema } from '../../../shared/edits'

/** A refusal that names what is wrong is an answer; anything else that is thrown fails. */
function answers(work: () => unknown, ...typed: (abstract new (...args: never[]) => Error)[]): void {
  try {
    work()
  } catch (e) {
    if (![InputError, ValidationError, ...typed].some((T) => e instanceof T)) throw e
    expect((e as Error).message).not.toBe('')
  }
}

const key = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.constantFrom(
      'id',
      'path',
      'nodes',
      'at',
      'x',
      'stops',
      'weight',
      'layers',
      'items',
      'kind',
      'patches',
      'edits',
      '__proto__',
      'toString',
      'constructor',
    ),
  },
  { weight: 1, arbitrary: fc.string() },
)
const json = fc.letrec<{ value: unknown }>((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom(null, true, 0, -1, 1e300, 1e-300, '', 'lines', 'px', 'corner'),
    fc.double({ noNaN: true }),
    fc.string(),
    fc.array(tie('value'), { maxLength: 4 }),
    // As a parser makes it: "__proto__" is a key like any other.
    fc
      .array(fc.tuple(key, tie('value')), { maxLength: 5 })
      .map(
        (pairs) =>
          JSON.parse(
            `{${pairs.map(([k, v]) => `${JSON.stringify(k)}:${JSON.stringify(v) ?? 'null'}`).join()}}`,
          ) as unknown,
      ),
  ),
})).value

const line = newLine(
  {
    nodes: [
      { at: { x: 1, y: 2 }, in: null, out: { x: 9, y: 9 }, joint: 'corner' },
      { at: { x: 30, y: 4 }, in: null, out: null, joint: 'corner' },
    ],
    closed: false,
  },
  { id: 'line' },
)
const drawing = newDrawing('Pod', { id: 'pod', layers: [{ ...newLinesLayer('A', [line]), id: 'layer' }] })

/** A copy of a value with one place in it changed. */
function spoilt<T>(value: T, place: number, by: unknown): T {
  let left = place
  const walk = (v: unknown): unknown => {
    if (left-- === 0) return by
    if (Array.isArray(v)) return v.map(walk)
    if (typeof v === 'object' && v !== null) return Object.fromEntries(Object.entries(v).map(([k, x]) => [k, walk(x)]))
    return v
  }
  return walk(value) as T
}

describe('every door answers arbitrary JSON with a result or a typed error', () => {
  const runs = { seed: 7, numRuns: 800 }

  it('documents and request bodies', () => {
    fc.assert(
      fc.property(json, fc.nat(60), (value, place) => {
        answers(() => checkDrawing(value))
        answers(() => checkDrawing(spoilt(drawing, place, value)))
        if (!hasInbornKeys(value))
          for (const schema of [appendSchema, createSchema, renameSchema, shelfSchema])
            answers(() => void schema.validateSync(value))
      }),
      runs,
    )
  })

  it('patches: what is accepted is what JSON keeps, and is replayed to the same', () => {
    const step = fc.oneof(
      key,
      fc.constantFrom('layers', 'layer', 'items', 'line', 'settings', 'shapes', 'inks', 'black', 'weight'),
      fc.nat(3),
    )
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            op: fc.constantFrom<Patch['op']>('add', 'remove', 'replace', 'order'),
            path: fc.array(step, { minLength: 1, maxLength: 6 }),
            value: fc.oneof(json, fc.constant(line), fc.constant(drawing.layers[0])),
          }),
          { minLength: 1, maxLength: 3 },
        ),
        (patches) => {
          const stored = JSON.parse(JSON.stringify(patches)) as Patch[]
          answers(
            () => {
              const next = applyPatches(drawing, stored)
              checkTouched(next, stored)
              // Whatever was let in is a whole drawing that says the same after a restart.
              expect(checkDrawing(JSON.parse(JSON.stringify(next)))).toEqual(JSON.parse(JSON.stringify(next)))
            },
            UnfitPatch,
            Error,
          )
          expect(({} as Record<string, unknown>).polluted).toBeUndefined()
        },
      ),
      { ...runs, numRuns: 2000 },
    )
  })

  it('files of profiles, InkML and SVG', () => {
    const svg = writeSvg(drawing, { content: 'lines' })
    fc.assert(
      fc.property(json, fc.nat(svg.length - 1), fc.nat(40), fc.string({ maxLength: 6 }), (value, from, count, by) => {
        const text = JSON.stringify(value) ?? ''
        answers(() => readProfiles(text))
        answers(() => readProfiles(JSON.stringify({ format: 'bellatrait profiles', profiles: [value] })))
        answers(() =>
          parseInkml(`<ink xmlns="http://www.w3.org/2003/InkML"><trace>${text.replace(/[<&]/g, ' ')}</trace></ink>`),
        )
        answers(() => parseSvg(svg.slice(0, from) + by + svg.slice(from + count)))
      }),
      runs,
    )
  })

  it('lines and traces of one place, the same place twice, and nibs of no height', () => {
    for (const height of [0, 1e-300, 1]) {
      for (const size of [0, 1e-300, 5, 1e4]) {
        const dot: Line = {
          ...line,
          path: { nodes: [line.path.nodes[1]!, line.path.nodes[1]!], closed: false },
          weight: { ...line.weight, size, nib: { width: 1, height, angle: 30 } },
        }
        for (const closed of [false, true])
          answers(() => expandLine({ ...dot, path: { ...dot.path, closed } }, { tolerance: 0.05 }))
        answers(() =>
          expandLine({ ...dot, path: { nodes: dot.path.nodes.slice(1), closed: false } }, { tolerance: 0.05 }),
        )
      }
    }
    const sample = { x: 5, y: 5, t: 0, pressure: 0.5 }
    for (const samples of [[sample], [sample, sample], [sample, sample, { ...sample, x: 5.0000001 }]]) {
      expect(
        fitTrace({ samples, device: 'pen', steadiness: 0.4, response: 1 }, { steadiness: 0.4, tolerance: 0.7 }).path
          .nodes,
      ).toHaveLength(1)
      expect(new LiveFit({ steadiness: 0.4, tolerance: 0.7, grain: 1 }).path(samples).nodes).toHaveLength(1)
    }
  })

  it('the drawing that all this was tried on is as it was', () => {
    expect(checkDrawing(drawing as Drawing).layers).toHaveLength(1)
  })
})
