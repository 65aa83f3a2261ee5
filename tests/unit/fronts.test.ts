import { describe, expect, it } from 'vitest'
import { changed } from '#core/document/edits'
import { patchesBetween } from '#core/document/patches-between'
import { checkDrawing } from '#core/document/check-drawing'
import { copiedLines, carriedAmendments } from '#core/editing/copies'
import { movedLine } from '#core/editing/move'
import { evenWeight, newDrawing, newLine, newLinesLayer } from '#core/model/create'
import type { Amendment, Drawing, Line, LinesLayer } from '#core/model/model'
import { openInk } from '#core/ink/open-ink'
import { overlapsOf } from '#core/ink/overlaps-of'
import { shapesOf } from '#core/ink/shapes-of'
import { windingAt } from '#core/geometry/winding-at'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import { atOnce } from '#core/turns'
import { parseSvg } from '#core/formats/svg/parse-svg'
import { writeSvg } from '#core/formats/svg/write-svg'
import { polyline } from './support/paths'
import { seeded } from './support/random-lines'
import type { Thing } from './support/scenes'
import { randomThings, sceneOf, unlikePainted } from './support/scenes'
import { few } from './support/thorough'

const byOrder = (scene: Drawing): Drawing => ({ ...scene, settings: { ...scene.settings, frontsByOrder: true } })

const idsOf = (thing: Thing): string[] => thing.map((l) => l.id)
const front = (before: Thing, after: Thing, both?: true): Amendment => ({
  id: `${before[0]!.id} over ${after[0]!.id}`,
  kind: 'front',
  front: idsOf(before),
  back: idsOf(after),
  ...(both && { both }),
})

/** A line, anywhere, changed as hands do. */
function edited(scene: Drawing, r: () => number): Drawing {
  return changed(scene, (draft) => {
    const layers = draft.layers as LinesLayer[]
    const filled = layers.filter((l) => l.items.length > 0)
    const layer = filled[Math.floor(r() * filled.length)]!
    const i = Math.floor(r() * layer.items.length)
    const line = layer.items[i]!
    const what = r()
    if (what < 0.3) {
      const d = { x: (r() - 0.5) * 40, y: (r() - 0.5) * 40 }
      layer.items = layer.items.map((l) => movedLine(l, d))
    } else if (what < 0.55) {
      const n = line.path.nodes[Math.floor(r() * line.path.nodes.length)]!
      n.at = { x: n.at.x + (r() - 0.5) * 8, y: n.at.y + (r() - 0.5) * 8 }
    } else if (what < 0.75) line.weight.size = 2 + r() * 5
    else if (what < 0.85) layers.push(...layers.splice(0, 1))
    else layer.items.splice(i, 1)
  })
}

describe('what lies in front', () => {
  it('hides what a painter would paint over, by order or as it was decided', () => {
    const wrong: string[] = []
    for (let seed = 1; seed <= few(40, 300); seed++) {
      const things = randomThings(seed)
      const scene = sceneOf(things)
      const pairs = things.flatMap((a, i) => things.slice(0, i).map((b) => front(a, b)))
      const ways = { order: byOrder(scene), decisions: { ...scene, amendments: pairs } }
      for (const [way, drawing] of Object.entries(ways)) {
        const n = unlikePainted(drawing, things)
        if (n) wrong.push(`${seed} by ${way}: ${n} px`)
      }
    }
    expect(wrong).toEqual([])
    // The judge sees what is wrong.
    const things = randomThings(3)
    expect(unlikePainted(sceneOf(things), things)).toBeGreaterThan(100)
    expect(unlikePainted(byOrder(sceneOf(things)), things.toReversed())).toBeGreaterThan(100)
  })

  it('follows every edit, and undo, as from scratch', () => {
    for (let seed = 1; seed <= few(8, 60); seed++) {
      const r = seeded(seed * 31)
      const things = randomThings(seed)
      let now: Drawing = { ...byOrder(sceneOf(things)), amendments: [front(things[0]!, things[1]!)] }
      const ink = openInk(now)
      const steps = [now]
      atOnce(ink.shapes())
      for (let k = 0; k < 10; k++) {
        const next = k % 4 === 3 && steps.length > 1 ? steps.splice(-2, 1)[0]! : edited(now, r)
        ink.apply(patchesBetween(now, next))
        now = next
        steps.push(now)
        const [kept, fresh] = [atOnce(ink.shapes()), shapesOf(now)]
        expect(kept.shapes.map((s) => s.contours)).toEqual(fresh.shapes.map((s) => s.contours))
        expect(kept.waits).toEqual(fresh.waits)
      }
    }
  })
})

/** A closed line about a middle, wider than high, cornered. */
const box = (id: string, x: number, y: number, w: number, h: number): Line => {
  const { nodes } = polyline(x, y, x + w, y + 3, x + w - 4, y + h, x + 2, y + h - 5)
  return newLine({ nodes, closed: true }, { id, weight: evenWeight(4) })
}
const drawn = (...layers: Line[][]): Drawing =>
  newDrawing('Fronts', { layers: layers.map((l, i) => newLinesLayer(`Layer ${i}`, l)) })
const inkAt = (drawing: Drawing, ...points: Vec[]): boolean[] => {
  const contours = shapesOf(drawing).shapes.flatMap((s) => s.contours.map((c) => cubicsOfPath({ ...c, closed: true })))
  return points.map((p) => windingAt(contours, p) !== 0)
}

describe('decisions about forms', () => {
  const head = box('head', 100, 100, 200, 150)
  const hat = box('hat', 150, 60, 120, 80)
  const eye = box('eye', 180, 115, 50, 50)
  const hair = newLine(polyline(90, 90, 310, 240), { id: 'hair', weight: evenWeight(4) })
  const scene = drawn([head, eye], [hat], [hair])
  // The head's upper edge within the hat, the hat's lower edge within the head, the eye within the hat, a hair over all.
  const places = [
    { x: 220, y: 101.8 },
    { x: 200, y: 137 },
    { x: 205, y: 116.5 },
    { x: 244, y: 195 },
  ]

  it('hide what is behind, with what lies within that, and leave what only crosses over', () => {
    expect(inkAt(scene, ...places)).toEqual([true, true, true, true])
    const over: Drawing = { ...scene, amendments: [front([hat], [head])] }
    expect(inkAt(over, ...places)).toEqual([false, true, false, true])
    const behind: Drawing = { ...scene, amendments: [front([head], [hat])] }
    expect(inkAt(behind, ...places)).toEqual([true, false, true, true])
    const both: Drawing = { ...byOrder(scene), amendments: [front([hat], [head], true), front([hat], [eye], true)] }
    expect(inkAt(both, ...places)).toEqual([true, true, true, true])
    // The hat moved away, everything is back.
    const away = {
      ...over,
      layers: over.layers.map((l) =>
        l.kind === 'lines' && l.items[0]!.id === 'hat' ? { ...l, items: [movedLine(hat, { x: 0, y: -200 })] } : l,
      ),
    }
    expect(inkAt(away, places[0]!, places[2]!)).toEqual([true, true])
  })

  it('stand above what covers by the stack, and hide ink of another colour under their own', () => {
    const covering = drawn([head], [{ ...hat, cover: true }])
    expect(inkAt(covering, places[0]!, places[1]!)).toEqual([false, true])
    expect(inkAt({ ...covering, amendments: [front([head], [hat])] }, places[0]!, places[1]!)).toEqual([true, false])
    const other = drawn([head], [{ ...hat, ink: 'red', weight: evenWeight(9) }])
    const inks = [...other.inks, { ...other.inks[0]!, id: 'red', name: 'Red', colour: '#c03020' }]
    const red = { ...other, inks, amendments: [front([head], [hat])] }
    const reds = shapesOf(red)
      .shapes.filter((s) => s.ink === 'red')
      .flatMap((s) => s.contours.map((c) => cubicsOfPath(c)))
    // On the head's upper edge, where the hat's side comes up to it.
    expect(windingAt(reds, { x: 152, y: 100.9 })).toBe(0)
    expect(windingAt(reds, { x: 152, y: 92 })).not.toBe(0)
  })

  it('pass the schema, travel in a file, come along with copies, and wait when their lines are gone', () => {
    const over: Drawing = { ...scene, amendments: [front([hat], [head])] }
    expect(checkDrawing(JSON.parse(JSON.stringify(byOrder(over))))).toBeTruthy()
    expect(parseSvg(writeSvg(over, { content: 'lines' })).drawing.amendments).toEqual(over.amendments)
    const copies = copiedLines([head, eye, hat], { x: 300, y: 0 }, [])
    const ids = new Map(['head', 'eye', 'hat'].map((id, i) => [id, copies[i]!.id]))
    const copied = { ...drawn(copies), amendments: carriedAmendments(over.amendments!, ids) }
    expect(inkAt(copied, ...places.slice(0, 3).map((p) => ({ x: p.x + 300, y: p.y })))).toEqual([false, true, false])
    expect(shapesOf({ ...drawn([head]), amendments: over.amendments! })).toMatchObject({
      waits: [over.amendments![0]!.id],
    })
  })

  it('are asked for where two forms cross, with a guess that says how sure it is', () => {
    // The eye belongs to the head, unless it lies on another layer.
    const belongs = overlapsOf(scene)
    expect(belongs.map((o) => o.forms.map((f) => f.key))).toEqual([['head', 'hat']])
    const apart = drawn([head], [eye], [hat], [hair])
    const found = overlapsOf(apart)
    expect(found.map((o) => o.forms.map((f) => f.key))).toEqual([
      ['head', 'hat'],
      ['eye', 'hat'],
    ])
    for (const { at, forms, guess, sure } of found) {
      expect(forms.every((f) => windingAt([cubicsOfPath(f.loop)], at) !== 0)).toBe(true)
      expect(guess).toBe(1)
      expect(sure).toBeGreaterThan(0.3)
    }
    expect(overlapsOf({ ...apart, amendments: [front([hat], [head])] }).map((o) => o.key)).toEqual([found[1]!.key])
    expect(overlapsOf(byOrder(scene))).toEqual([])
    expect(overlapsOf(drawn([head, eye], [{ ...hat, cover: true }]))).toEqual([])
    // A neck of two lines that stop at the head runs into it, and goes behind it.
    const neck = [
      newLine(polyline(170, 246, 160, 330), { id: 'neck-1' }),
      newLine(polyline(160, 330, 230, 335, 225, 247), { id: 'neck-2' }),
    ]
    const [joined] = overlapsOf(drawn([head, ...neck]))
    expect(joined?.forms.map((f) => [f.key, f.bridge !== null])).toEqual([
      ['head', false],
      ['neck-1 neck-2', true],
    ])
    expect(joined?.guess).toBe(0)
  })
})
