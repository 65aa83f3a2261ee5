import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Viewport } from '~/canvas/viewport'
import { boxInView, changedAt, matrixOf, showing, stepToScreen, tidyAngle, toPage, toScreen } from '~/canvas/viewport'

const viewport = fc.record({
  x: fc.double({ min: -1e3, max: 1e3, noNaN: true }),
  y: fc.double({ min: -1e3, max: 1e3, noNaN: true }),
  zoom: fc.double({ min: 0.05, max: 64, noNaN: true }),
  angle: fc.oneof(fc.constantFrom(0, 90, 180, -90), fc.double({ min: -180, max: 180, noNaN: true })),
  mirrored: fc.boolean(),
})
const point = fc.record({
  x: fc.double({ min: -2e3, max: 2e3, noNaN: true }),
  y: fc.double({ min: -2e3, max: 2e3, noNaN: true }),
})

describe('the viewport', () => {
  it('leads from the page to the screen and back, and its matrix says the same', () => {
    fc.assert(
      fc.property(viewport, point, (v, p) => {
        const s = toScreen(v, p)
        const back = toPage(v, s)
        expect(back.x).toBeCloseTo(p.x, 6)
        expect(back.y).toBeCloseTo(p.y, 6)
        const [a, b, c, d, e, f] = matrixOf(v, 2)
        expect(a * p.x + c * p.y + e).toBeCloseTo(2 * s.x, 5)
        expect(b * p.x + d * p.y + f).toBeCloseTo(2 * s.y, 5)
      }),
      { seed: 4 },
    )
  })

  it('keeps the point under the hand when zoom, turn or mirroring change', () => {
    fc.assert(
      fc.property(viewport, point, viewport, (v, at, to) => {
        const under = toPage(v, at)
        const s = toScreen(changedAt(v, at, { zoom: to.zoom, angle: to.angle, mirrored: to.mirrored }), under)
        expect(Math.hypot(s.x - at.x, s.y - at.y)).toBeLessThan(1e-6)
      }),
      { seed: 5 },
    )
  })

  it('turns clockwise on the screen, and mirrors left to right', () => {
    const v: Viewport = { x: 0, y: 0, zoom: 2, angle: 90, mirrored: false }
    expect(stepToScreen(v, { x: 1, y: 0 })).toEqual({ x: 0, y: 2 })
    expect(stepToScreen({ ...v, angle: 0, mirrored: true }, { x: 1, y: 1 })).toEqual({ x: -2, y: 2 })
    expect(tidyAngle(-190)).toBe(170)
    expect(tidyAngle(540)).toBe(180)
  })

  it('shows a whole turned page with its margin', () => {
    fc.assert(
      fc.property(viewport, (v) => {
        const view = { width: 800, height: 600 }
        const page = { width: 720, height: 524 }
        const fit = showing(v, page, view, 26)
        for (const p of [
          { x: 0, y: 0 },
          { x: 720, y: 0 },
          { x: 720, y: 524 },
          { x: 0, y: 524 },
        ]) {
          const s = toScreen(fit, p)
          expect(s.x).toBeGreaterThanOrEqual(26 - 1e-6)
          expect(s.x).toBeLessThanOrEqual(774 + 1e-6)
          expect(s.y).toBeGreaterThanOrEqual(26 - 1e-6)
          expect(s.y).toBeLessThanOrEqual(574 + 1e-6)
        }
        const box = boxInView(fit, view)
        expect(box.minX).toBeLessThanOrEqual(0)
        expect(box.maxY).toBeGreaterThanOrEqual(524)
      }),
      { seed: 6 },
    )
  })
})
