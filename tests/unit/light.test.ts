import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newDrawing, newLine, newLinesLayer } from '#core/model/create'
import { applyEdit, changed, makeEdit, walkOver } from '#core/document/edits'
import type { Drawing, LightRule, Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { reversePath } from '#core/geometry/path'
import { courseOf } from '#core/geometry/course'
import { lightAlong, litLine, unlitWeight } from '#core/weight/light'
import { outsidesOf } from '#core/relations/outside'
import { Profile } from '#core/weight/profile'
import { flipEnds } from '#core/weight/shelf'
import { widenStop } from '#core/weight/stops'
import { SCENARIO } from '../../demo/scenario'
import { gardenSnail } from '../../demo/drawings/garden-snail'
import { around, through } from '../../demo/kit/spline'
import { plainLine } from './support/desk'
import { randomLines } from './support/random-strokes'

const RULE: LightRule = { at: { x: -200, y: 100 }, strength: 1, softness: 0.6, live: false }

const ring = (cx: number, cy: number, r: number): Path => around([cx - r, cy], [cx, cy - r], [cx + r, cy], [cx, cy + r])
const line = (id: string, path: Path): Line => ({ ...newLine(path), id })
const sideOf = (lines: Line[], id: string) => outsidesOf(lines).get(id)

/** All lines under a light, by the outsides found among them. */
function lit(lines: readonly Line[], rule = RULE): Line[] {
  const outsides = outsidesOf(lines)
  return lines.map((l) => litLine(l, outsides.get(l.id) ?? null, rule))
}

describe('the outside of a line', () => {
  it('is away from what a closed line encloses, whichever way it runs', () => {
    const path = ring(100, 100, 40)
    const a = sideOf([line('a', path)], 'a')
    const b = sideOf([line('a', reversePath(path))], 'a')
    expect(new Set([a, b])).toEqual(new Set(['left', 'right']))
    // Travelling along the top from left to right, up is left.
    expect(a).toBe('left')
  })

  it('is away from a form that several open lines bound together, small gaps or not', () => {
    const top = through([20, 100], [60, 60], [100, 50], [140, 60], [180, 100])
    const foot = through([21, 103], [60, 150], [100, 160], [140, 150], [179, 104])
    const lines = [line('top', top), line('foot', foot)]
    expect(sideOf(lines, 'top')).toBe('left')
    expect(sideOf(lines, 'foot')).toBe('right')
  })

  it('tells a form from the ground even where the edge is hollow', () => {
    // The lower edge bulges into the form: by its bow alone its outside would be above.
    const lines = [
      line('top', through([20, 100], [100, 40], [180, 100])),
      line('hollow', through([20, 100], [100, 80], [180, 100])),
    ]
    expect(sideOf(lines, 'hollow')).toBe('right')
    expect(sideOf([lines[1]!], 'hollow')).toBe('left')
  })

  it('is unknown of a straight line alone, and as the person says where they said so', () => {
    expect(
      sideOf(
        [plainLine({ x: 0, y: 0 }, { x: 100, y: 0 })].map((l) => ({ ...l, id: 'a' })),
        'a',
      ),
    ).toBeNull()
    expect(sideOf([{ ...line('a', ring(50, 50, 30)), outside: 'right' }], 'a')).toBe('right')
  })
})

describe('weight by light', () => {
  it('is thin towards the light and thick away from it', () => {
    const [l] = lit([line('a', ring(100, 100, 40))])
    const p = new Profile(l!.weight.stops, true)
    // The ring starts at its left, facing the light; half way round it faces away.
    expect(p.sampleLeft(0).value).toBeCloseTo(0.3, 2)
    expect(p.sampleLeft(0.5).value).toBeCloseTo(1.5, 2)
    expect(p.sampleLeft(0.25).value).toBeGreaterThan(0.8)
    expect(p.sampleLeft(0.25).value).toBeLessThan(1.2)
  })

  it('passes faster the harder it is, and not at all at no strength', () => {
    const ringLine = line('a', ring(100, 100, 40))
    const nearTurn = (softness: number): number =>
      lightAlong(ringLine, 'left', { ...RULE, softness })[Math.round(0.3 * courseOf(ringLine.path).x.length)]!
    expect(nearTurn(0)).toBeGreaterThan(nearTurn(1) + 0.05)
    expect(lit([ringLine], { ...RULE, strength: 0 })[0]).toBe(ringLine)
  })

  it('carries the exact light within one part in a hundred of the width, in few stops, at its extremes', () => {
    const lines = SCENARIO.flatMap((make) => make().layers.flatMap((x) => x.lines)).map((l) => ({
      ...l,
      weight: { ...l.weight, stops: [{ at: 0, left: 1, right: 1 }] },
    }))
    const outsides = outsidesOf(lines)
    let stops = 0
    let near = 0
    let all = 0
    for (const l of lit(lines)) {
      const outside = outsides.get(l.id)
      if (!outside) continue
      stops += l.weight.stops.length
      const p = new Profile(l.weight.stops, l.path.closed)
      const { at } = courseOf(l.path)
      const light = lightAlong(l, outside, RULE)
      const widest = Math.max(...light)
      // A corner turns the edge at once: next to it stops cannot stand as near as it asks.
      const off = [...light].map((f, i) => Math.abs(p.sampleLeft(at[i]!).value - f) / widest)
      near += off.filter((d) => d <= 0.0105).length
      all += off.length
      const most = at.findIndex((_, i) => light[i] === widest)
      expect(
        l.weight.stops.some((s) => Math.abs(s.at - at[most]!) < 0.03 || Math.abs(s.left - widest) < 0.02 * widest),
      ).toBe(true)
    }
    expect(near / all).toBeGreaterThan(0.995)
    expect(stops / lines.length).toBeLessThan(7)
  })

  it('leaves pinned lines, falls the same again, comes off without a trace and is undone in one step', () => {
    fc.assert(
      fc.property(randomLines, (lines) => {
        const once = lit(lines)
        once.forEach((l, i) => {
          if (l.weight.pinned) expect(l).toBe(lines[i])
        })
        expect(lit(once).map((l) => l.weight)).toEqual(once.map((l) => l.weight))
        expect(once.map((l) => unlitWeight(l.weight))).toEqual(lines.map((l) => l.weight))
        const drawing = newDrawing('D', { layers: [newLinesLayer('L', lines)] })
        const made = makeEdit(drawing, 'Light', (draft) => void (draft.layers[0]!.items = once))
        if (made) expect(applyEdit(made.drawing, walkOver(made.edit, 'undo'))).toEqual(drawing)
      }),
      { numRuns: 40, seed: 3 },
    )
  })

  it('is heavier on the shaded side of the snail, as its author drew it', () => {
    const lines = gardenSnail().layers.flatMap((l) => l.lines)
    const rule: LightRule = { ...RULE, at: { x: -2000, y: -2000 } }
    const outsides = outsidesOf(lines)
    let all = 0
    let alike = 0
    for (const l of lines) {
      const outside = outsides.get(l.id)
      if (!outside) continue
      const { at } = courseOf(l.path)
      const f = lightAlong(l, outside, rule)
      const p = new Profile(l.weight.stops, l.path.closed)
      const inner = [...at.keys()].filter((i) => l.path.closed || (at[i]! > 0.2 && at[i]! < 0.8))
      for (const i of inner) {
        for (const k of inner) {
          const [light, author] = [f[i]! - f[k]!, p.sampleLeft(at[i]!).value - p.sampleLeft(at[k]!).value]
          if (k <= i || Math.abs(light) < 0.3 || Math.abs(author) < 0.05) continue
          all++
          if (light * author > 0) alike++
        }
      }
    }
    expect(all).toBeGreaterThan(500)
    expect(alike / all).toBeGreaterThan(0.9)
  })
})

describe('a light that follows edits', () => {
  const live = (drawing: Drawing): Drawing =>
    changed(drawing, (draft) => void (draft.settings.light = { ...RULE, live: true }))
  const first = (drawing: Drawing): Line => drawing.layers[0]!.items[0] as Line
  const start = (): Drawing => live(newDrawing('D', { layers: [newLinesLayer('L', [line('a', ring(100, 100, 40))])] }))

  it('falls on lines as they are laid, moved and given a profile', () => {
    const lit = start()
    expect(first(lit).weight.stops.length).toBeGreaterThan(3)
    const flipped = changed(
      lit,
      (draft) => void ((draft.layers[0]!.items[0] as Line).weight = flipEnds(first(lit).weight)),
    )
    expect(first(flipped).weight.stops).toEqual(first(lit).weight.stops)
    const more = changed(lit, (draft) => void (draft.layers[0]!.items as Line[]).push(line('b', ring(300, 100, 30))))
    expect((more.layers[0]!.items[1] as Line).weight.unlit).toHaveLength(1)
  })

  it('leaves a line alone once a hand has set its stops', () => {
    const lit = start()
    const wide = widenStop(first(lit).weight, 0, 'both', 3)
    const after = changed(lit, (draft) => void ((draft.layers[0]!.items[0] as Line).weight = wide))
    expect(first(after).weight).toEqual(wide)
    expect(wide.pinned).toBe(true)
    expect(wide.unlit).toBeUndefined()
  })
})
