import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newLine, newLinesLayer, newSketchLayer } from '#core/model/create'
import type { Drawing, Line, Sketch, SketchLayer } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import {
  cornersOf,
  croppedTo,
  fromShares,
  mirroredAcross,
  mirroredOver,
  toShares,
  uncropped,
} from '#core/sketch/sketch-place'
import { sketchLayers } from '#core/model/find'
import { changeSketchAndPage } from '#core/editing/page-of-sketch'
import { CropSketch } from '~/instruments/crop-sketch'
import { LevelSketch } from '~/instruments/level-sketch'
import { PlaceSketch } from '~/instruments/place-sketch'
import { drag, hand, TestWorktop } from '../support/desk'
import { polyline } from '../support/paths'

describe('placing the sketch', () => {
  const withSketch = (locked: boolean, angle = 0) => {
    const worktop = new TestWorktop()
    const layer = {
      ...newSketchLayer({ id: 'sk', image: 'a'.repeat(64), x: 10, y: 20, width: 200, height: 100, angle }),
      locked,
    }
    worktop.now = { ...worktop.now, layers: [layer, ...worktop.now.layers] }
    const sketch = () => (worktop.now.layers[0] as SketchLayer).items[0]!
    return { worktop, sketch }
  }

  it('moves it, and scales it from the opposite corner with its proportions', () => {
    const { worktop, sketch } = withSketch(false)
    const tool = new PlaceSketch(worktop)
    drag(tool, [50, 50, 60, 55, 70, 60])
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 200 })
    drag(tool, [230, 130, 130, 80], { mark: { kind: 'corner', index: 2 } })
    expect(sketch()).toMatchObject({ x: 30, y: 30, width: 100, height: 50 })
    expect(worktop.labels).toEqual(['Move the sketch', 'Scale the sketch'])
  })

  it('keeps the opposite corner of a turned sketch where it is', () => {
    const { worktop, sketch } = withSketch(false, 30)
    const before = cornersOf(sketch())
    drag(
      new PlaceSketch(worktop),
      [
        [before[1].x, before[1].y],
        [before[1].x + 40, before[1].y - 10],
      ],
      { mark: { kind: 'corner', index: 1 } },
    )
    const after = cornersOf(sketch())
    expect(after[3].x).toBeCloseTo(before[3].x, 9)
    expect(after[3].y).toBeCloseTo(before[3].y, 9)
    expect(sketch().width / sketch().height).toBeCloseTo(2, 9)
    expect(sketch().width).not.toBeCloseTo(200, 0)
  })

  it('never scales it away or inside out', () => {
    const { worktop, sketch } = withSketch(false)
    drag(new PlaceSketch(worktop), [210, 120, -900, -900], { mark: { kind: 'corner', index: 2 } })
    expect(sketch().width).toBeGreaterThan(0)
    expect(sketch().height).toBeCloseTo(8, 6)
  })

  it('says why a locked one does not move', () => {
    const { worktop, sketch } = withSketch(true)
    const tool = new PlaceSketch(worktop)
    drag(tool, [50, 50, 90, 90])
    expect(sketch().x).toBe(10)
    expect(worktop.said[0]).toContain('is locked. Unlock it')
    expect(tool.marks()).toEqual([])
  })

  it('nudges with the arrows and takes a move back with Escape', () => {
    const { worktop, sketch } = withSketch(false)
    const tool = new PlaceSketch(worktop)
    tool.key('ArrowDown', true)
    expect(sketch().y).toBe(30)
    tool.press(hand(50, 50))
    tool.move(hand(90, 90))
    tool.key('Escape', false)
    tool.release()
    expect(sketch()).toMatchObject({ x: 10, y: 30 })
  })
})

describe('a sketch made straight', () => {
  const desk = (over: Partial<Sketch> = {}) => {
    const worktop = new TestWorktop()
    const of = (id: string, more: Partial<Sketch> = {}): SketchLayer => ({
      ...newSketchLayer({ id, image: 'a'.repeat(64), x: 100, y: 50, width: 200, height: 100, angle: 0, ...more }),
      id: `layer ${id}`,
      locked: false,
    })
    worktop.now = { ...worktop.now, layers: [of('one', { x: 400 }), of('two', over), ...worktop.now.layers] }
    return {
      worktop,
      sketch: (id = 'two') =>
        sketchLayers(worktop.now)
          .flatMap((l) => l.items)
          .find((s) => s.id === id)!,
    }
  }
  const near = (p: Vec, q: Vec): void => expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-9)

  it('is turned by its ring about its middle, in steps with Shift; a click takes up another', () => {
    const { worktop, sketch } = desk()
    const tool = new PlaceSketch(worktop)
    drag(tool, [200, 34, 300, 100], { mark: { kind: 'turner' } })
    expect(sketch().angle).toBeCloseTo(90, 6)
    near(fromShares(sketch(), { x: 0.5, y: 0.5 }), { x: 200, y: 100 })
    drag(tool, [300, 100, 299, 112], { mark: { kind: 'turner' }, shift: true })
    expect(sketch().angle).toBeCloseTo(90, 6)
    drag(tool, [500, 100, 510, 100])
    expect([sketch('one').x, worktop.sketchInHand]).toEqual([410, 'layer one'])
  })

  it('is level, or upright, along a line that is drawn', () => {
    for (const [to, wanted] of [
      [[190, 30], 0],
      [[110, 190], 90],
    ] as const) {
      const { worktop, sketch } = desk()
      const seen = [
        { x: 100, y: 20 },
        { x: to[0], y: to[1] },
      ].map((p) => toShares(sketch(), p))
      drag(new LevelSketch(worktop), [[100, 20], [to[0] - 5, to[1]], [...to]])
      const [a, b] = seen.map((p) => fromShares(sketch(), p))
      expect(Math.abs((Math.atan2(b!.y - a!.y, b!.x - a!.x) * 180) / Math.PI)).toBeCloseTo(wanted, 6)
      near(fromShares(sketch(), { x: 0.5, y: 0.5 }), { x: 200, y: 100 })
      // A dab says nothing.
      drag(new LevelSketch(worktop), [100, 20, 103, 22])
      expect(worktop.labels).toEqual(['Level the sketch'])
    }
  })

  it('keeps what lies in a box where it is, also turned and from behind, and is whole again as it was', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -170, max: 170, noNaN: true }),
        fc.boolean(),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (angle, mirrored, r) => {
          const whole: Sketch = {
            id: 's',
            image: '',
            x: 40,
            y: 30,
            width: 300,
            height: 200,
            angle,
            ...(mirrored && { mirrored }),
          }
          // Where a point of the picture is seen on the page.
          const seen = (s: Sketch, p: Vec): Vec => {
            const c = s.crop ?? { x: 0, y: 0, width: 1, height: 1 }
            const u = (p.x - c.x) / c.width
            return fromShares(s, { x: s.mirrored ? 1 - u : u, y: (p.y - c.y) / c.height })
          }
          const once = croppedTo(whole, { x: r[0]!, y: r[1]! }, { x: r[2]!, y: r[3]! })
          const twice = croppedTo(once, { x: r[4]!, y: r[5]! }, { x: r[6]!, y: r[7]! })
          for (const s of [once, twice, uncropped(twice)]) {
            const p = { x: r[0]!, y: r[5]! }
            const [a, b] = [seen(s, p), seen(whole, p)]
            expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-6)
          }
          expect(uncropped(twice).width).toBeCloseTo(300, 6)
        },
      ),
    )
    const { worktop, sketch } = desk()
    drag(new CropSketch(worktop), [150, 75, 200, 90, 250, 100])
    expect(sketch()).toMatchObject({
      x: 150,
      y: 75,
      width: 100,
      height: 25,
      crop: { x: 0.25, y: 0.25, width: 0.5, height: 0.25 },
    })
    drag(new CropSketch(worktop), [700, 75, 720, 90, 730, 100])
    expect(worktop.said.at(-1)).toContain('beside the sketch')
  })

  it('takes the page along that took its size from it, with what is drawn, and back again', () => {
    const { worktop, sketch } = desk()
    const line = newLine(polyline(210, 93))
    worktop.now = {
      ...worktop.now,
      page: { width: 300, height: 160, unit: 'mm', pxPerMm: 6 },
      layers: [
        ...worktop.now.layers.map((l) =>
          l.kind === 'sketch' ? { ...l, items: [{ ...sketch(), x: 0, y: 0, width: 300, height: 160.4, angle: 0 }] } : l,
        ),
        newLinesLayer('Ink', [line]),
      ] as Drawing['layers'],
    }
    const before = worktop.now
    drag(new CropSketch(worktop), [60, 20, 100, 50, 250, 140])
    expect(worktop.now.page).toMatchObject({ width: 190.2, height: 120 })
    expect(sketch()).toMatchObject({
      x: expect.closeTo(0, 6) as number,
      y: expect.closeTo(0, 6) as number,
      width: expect.closeTo(190, 6) as number,
    })
    expect((worktop.now.layers.at(-1)!.items[0] as Line).path.nodes[0]!.at).toEqual({ x: 150, y: 73 })
    worktop.edit('All of it', (d) => changeSketchAndPage(d, sketch().id, uncropped))
    expect(worktop.now.page).toMatchObject({ width: 300 })
    expect((worktop.now.layers.at(-1)!.items[0] as Line).path.nodes[0]!.at).toEqual({ x: 210, y: 93 })
    // A page of its own stays.
    worktop.now = { ...before, page: { ...before.page, width: 420 } }
    drag(new CropSketch(worktop), [60, 20, 100, 50, 250, 140])
    expect(worktop.now.page).toMatchObject({ width: 420, height: 160 })
  })

  it('mirrored twice is as it was; across a line it lies as far beyond it', () => {
    const s: Sketch = { id: 's', image: '', x: 40, y: 30, width: 300, height: 200, angle: 25 }
    const back = mirroredOver(mirroredOver(s))
    expect(back.mirrored).toBeUndefined()
    cornersOf(back).forEach((p, i) =>
      expect(Math.hypot(p.x - cornersOf(s)[i]!.x, p.y - cornersOf(s)[i]!.y)).toBeLessThan(1e-9),
    )
    const [a, b] = [cornersOf(s), cornersOf(mirroredAcross(s, 360))]
    // Seen from behind, left and right have changed places.
    ;[1, 0, 3, 2].forEach((k, i) => expect(Math.hypot(b[i]!.x - (720 - a[k]!.x), b[i]!.y - a[k]!.y)).toBeLessThan(1e-9))
  })
})
