import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { WidthStop } from '#core/model/model'
import { InputError } from '#core/errors'
import { PROFILE_FORMAT, readProfiles } from '#core/formats/profiles/read-profiles'
import { writeProfiles } from '#core/formats/profiles/write-profiles'
import type { ShelfProfile } from '#core/weight/shelf'
import { SHELF } from '#core/weight/shelf'

const factor = fc.double({ min: 0, max: 3, noNaN: true }).map((v) => v + 0)
const stops = fc
  .uniqueArray(
    fc.double({ min: 0, max: 1, noNaN: true }).map((v) => v + 0),
    { minLength: 1, maxLength: 9 },
  )
  .chain((places) =>
    fc
      .tuple(
        ...places.sort((a, b) => a - b).map((at) => fc.record({ at: fc.constant(at), left: factor, right: factor })),
      )
      .map((all): WidthStop[] => all),
  )
const profile = fc.record({
  id: fc.uuid(),
  name: fc.string({ minLength: 1, maxLength: 30 }).map((s) => s.replace(/[^\w ]/g, 'x').trim() || 'Leaf'),
  stops,
  start: fc.constantFrom(null, { length: 20, unit: '%' as const, tip: 0.2, ease: 'needle' as const }),
  end: fc.constant(null),
})

const file = (...profiles: unknown[]): string => JSON.stringify({ format: PROFILE_FORMAT, profiles })
const even: WidthStop[] = [{ at: 0, left: 1, right: 1 }]

describe('a file of profiles', () => {
  it('brings back what was shared, but for the ids', () => {
    fc.assert(
      fc.property(fc.array(profile, { minLength: 1, maxLength: 5 }), (all) => {
        const back = readProfiles(writeProfiles(all as ShelfProfile[]))
        expect(back).toEqual(all.map(({ name, stops, start, end }) => ({ name, stops, start, end })))
      }),
      { seed: 3 },
    )
    expect(readProfiles(writeProfiles(SHELF))).toHaveLength(SHELF.length)
  })

  it('puts unsorted stops in order, and names what has no name', () => {
    const [p] = readProfiles(
      file({
        stops: [
          { at: 1, left: 0, right: 0 },
          { at: 0.2, left: 1, right: 1 },
        ],
        start: null,
        end: null,
      }),
    )
    expect(p!.stops.map((s) => s.at)).toEqual([0.2, 1])
    expect(p!.name).toBe('Profile 1')
  })

  it('keeps names to one plain line of sane length; markup in them is only text', () => {
    const [p] = readProfiles(file({ name: '  <script>alert(1)</script>\n\u0000\u202eLeaf ', stops: even }))
    expect(p!.name).toBe('<script>alert(1)</script> Leaf')
    expect(readProfiles(file({ name: 'x'.repeat(500), stops: even }))[0]!.name).toHaveLength(60)
  })

  it.each([
    ['not JSON', 'stops: 1', /no JSON/],
    ['other JSON', '{"profiles":[]}', /no file of profiles/],
    ['null', 'null', /no file of profiles/],
    ['nothing in it', file(), /no profile/],
    ['no stops', file({ name: 'Leaf', stops: [] }), /Profile "Leaf" cannot be used/],
    [
      'a width that is no number',
      file({ name: 'Leaf', stops: [{ at: 0, left: null, right: 1 }] }),
      /Profile "Leaf" cannot be used: stops\[0\].left/,
    ],
    ['NaN, which JSON lacks', '{"format":"bellatrait profiles","profiles":[{"stops":[{"at":NaN}]}]}', /no JSON/],
    ['a place off the line', file({ name: 'Leaf', stops: [{ at: 1.5, left: 1, right: 1 }] }), /stops\[0\].at/],
    ['a negative width', file({ name: 'Leaf', stops: [{ at: 0, left: -1, right: 1 }] }), /stops\[0\].left/],
    [
      'a hundred thousand stops',
      file({
        name: 'Leaf',
        stops: Array.from({ length: 100_000 }, (_, i) => ({ at: i / 100_000, left: 1, right: 1 })),
      }),
      /100000 width stops, and a line takes 1000/,
    ],
    ['too many profiles', file(...Array.from({ length: 201 }, () => ({ stops: even }))), /201 profiles/],
    [
      'a taper that is none',
      file({ name: 'Leaf', stops: even, start: { length: -5 } }),
      /Profile "Leaf" cannot be used/,
    ],
  ])('with %s is refused with a sentence', (_, text, sentence) => {
    expect(() => readProfiles(text)).toThrow(InputError)
    expect(() => readProfiles(text)).toThrow(sentence)
  })
})
