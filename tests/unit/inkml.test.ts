import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { PenTrace } from '#core/model/model'
import { InputError } from '#core/errors'
import { parseInkml } from '#core/formats/inkml/parse-inkml'
import { writeInkml } from '#core/formats/inkml/write-inkml'

const number = fc.double({ min: -5000, max: 5000, noNaN: true }).map((v) => (v === 0 ? 0 : v))
const sample = (tilt: boolean) =>
  fc.record({
    x: number,
    y: number,
    t: fc.integer({ min: 0, max: 90_000 }),
    pressure: fc.double({ min: 0, max: 1, noNaN: true }).map((v) => (v === 0 ? 0 : v)),
    ...(tilt && { tiltX: fc.integer({ min: -90, max: 90 }), tiltY: fc.integer({ min: -90, max: 90 }) }),
  })
const traceOf = (samples: PenTrace['samples']): PenTrace => ({ samples, device: 'pen', steadiness: 0.4, response: 1 })
const ink = (body: string, format = ''): string => `<ink xmlns="http://www.w3.org/2003/InkML">${format}${body}</ink>`

describe('pen traces as InkML', () => {
  it.each([true, false])('come back as they went (tilt: %s), times from the first point', (tilt) => {
    fc.assert(
      fc.property(
        fc.array(fc.array(sample(tilt), { minLength: 1, maxLength: 12 }), { minLength: 1, maxLength: 4 }),
        (all) => {
          const back = parseInkml(writeInkml(all.map(traceOf)))
          expect(back).toEqual(all.map((samples) => samples.map((s) => ({ ...s, t: s.t - samples[0]!.t }))))
        },
      ),
      { seed: 1 },
    )
  })

  it('are read as first and second differences, and with any range of pressure', () => {
    const format =
      '<traceFormat><channel name="X"/><channel name="Y"/><channel name="F" min="0" max="1023"/></traceFormat>'
    const [trace] = parseInkml(ink(`<trace>10 20 0, '2 '-1 '1023, "1 "0 "-1023, 3 0 0, !50 !60 !511.5</trace>`, format))
    expect(trace!.map((s) => [s.x, s.y])).toEqual([
      [10, 20],
      [12, 19],
      [15, 18],
      [21, 17],
      [50, 60],
    ])
    expect(trace!.map((s) => s.pressure)).toEqual([0, 1, 1, 1, 0.5])
    expect(trace!.map((s) => s.t)).toEqual([0, 8, 16, 24, 32])
  })

  it('of one point, and with times in seconds, are traces too', () => {
    const format =
      '<definitions><traceFormat><channel name="T" units="s"/><channel name="X"/><channel name="Y"/></traceFormat></definitions>'
    expect(parseInkml(ink('<trace>4.5 1 2</trace>', format))).toEqual([[{ x: 1, y: 2, t: 0, pressure: 0.5 }]])
    expect(parseInkml(ink('<trace>4.5 1 2, 4.508 3 4</trace>', format))[0]![1]!.t).toBeCloseTo(8, 9)
  })

  it.each([
    ['', /empty/],
    ['not xml', /not well-formed InkML/],
    ['<svg xmlns="http://www.w3.org/2000/svg"/>', /no InkML file: it begins with <svg>/],
    [ink(''), /holds no trace/],
    [ink('<trace>1 2, 3</trace>'), /Point 2 of trace 1 .* the 2 numbers/],
    [ink('<trace>1 2, three 4</trace>'), /Point 2 of trace 1/],
    [ink('<trace>1 2</trace>', '<traceFormat><channel name="F"/><channel name="T"/></traceFormat>'), /no X and Y/],
    ['<!DOCTYPE ink [<!ENTITY a "b">]><ink/>', /entities/],
    ['<a>'.repeat(300), /begins with <a>/],
  ])('that cannot be used are refused in words: %j', (text, words) => {
    expect(() => parseInkml(text)).toThrow(InputError)
    expect(() => parseInkml(text)).toThrow(words)
  })

  it('long runs of spaces and too many points take no long time and end in a sentence', () => {
    const ink = (trace: string): string => `<ink xmlns="http://www.w3.org/2003/InkML"><trace>${trace}</trace></ink>`
    expect(parseInkml(ink(`1 2, 3${' '.repeat(400_000)}4`))[0]).toHaveLength(2)
    expect(() => parseInkml(ink(`1 2,${' '.repeat(400_000)}x`))).toThrow(InputError)
    expect(() => parseInkml(ink('1 2,'.repeat(60_000)))).toThrow(/60,001 points or more; up to 50,000/)
    expect(() => parseInkml(ink('1 2,'.repeat(1_200_000)))).toThrow(/1,200,001 points or more; up to 200,000/)
  })
})
