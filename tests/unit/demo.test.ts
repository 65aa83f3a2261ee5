import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage } from '#core/drawing/create'
import { checkDrawing } from '#core/drawing/schema'
import { areaOfCubics } from '#core/geometry/area'
import { boxOfCubics } from '#core/geometry/bounds'
import { curvatureAt, pointAt, tangentAt } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { outlineOf } from '#core/outline/expand'
import { pencilSketch } from '../../demo/kit/pencil'
import { around, through } from '../../demo/kit/spline'
import { documentOf, SCENARIO } from '../../demo/scenario'

const page = defaultPage()

describe.each(SCENARIO.map((make) => make()).map((inked) => [inked.name, inked] as const))('%s', (_name, inked) => {
  const lines = inked.layers.flatMap((l) => l.lines)

  it('has 25 to 60 lines and is a valid document', () => {
    expect(lines.length).toBeGreaterThanOrEqual(25)
    expect(lines.length).toBeLessThanOrEqual(60)
    expect(checkDrawing(JSON.parse(JSON.stringify(documentOf(inked, 'a'.repeat(64)))))).toBeTruthy()
  })

  it('every line makes ink, on the page', () => {
    for (const line of lines) {
      const outline = outlineOf(line, 0.05)
      expect(outline.reduce((a, c) => a + areaOfCubics(c), 0)).toBeGreaterThan(1)
      const box = boxOfCubics(outline.flat())
      expect(box.minX).toBeGreaterThan(0)
      expect(box.minY).toBeGreaterThan(0)
      expect(box.maxX).toBeLessThan(page.width)
      expect(box.maxY).toBeLessThan(page.height)
    }
  })

  it('varies its weight, but keeps looking drawn: no line is heavier than 12 px', () => {
    const sizes = lines.map((l) => l.weight.size)
    expect(Math.max(...sizes) / Math.min(...sizes)).toBeGreaterThan(2)
    expect(Math.max(...sizes)).toBeLessThanOrEqual(12)
  })
})

describe('the spline of the kit', () => {
  it('goes through its points and joins them smoothly', () => {
    const path = through([0, 0], [40, 30], [90, 10], [120, 60])
    expect(path.nodes.map((n) => [n.at.x, n.at.y])).toEqual([[0, 0], [40, 30], [90, 10], [120, 60]])
    const cubics = cubicsOfPath(path)
    for (let i = 1; i < cubics.length; i++) {
      const [a, b] = [tangentAt(cubics[i - 1]!, 1)!, tangentAt(cubics[i]!, 0)!]
      expect(a.x * b.x + a.y * b.y).toBeGreaterThan(0.9999)
    }
  })

  it('draws nearly a circle through four points of one', () => {
    for (const c of cubicsOfPath(around([100, 0], [0, 100], [-100, 0], [0, -100]))) {
      for (const t of [0.1, 0.5, 0.9]) {
        expect(Math.hypot(pointAt(c, t).x, pointAt(c, t).y)).toBeCloseTo(100, 0)
        expect(Math.abs(curvatureAt(c, t))).toBeCloseTo(0.01, 3)
      }
    }
  })
})

describe('the pencil sketch', () => {
  it('is a PNG of the page at twice its size, dark along the lines, the same for the same seed', async () => {
    const [line] = SCENARIO[0]!().layers[0]!.lines
    const bytes = await pencilSketch([line!], page, 5)
    expect(bytes.equals(await pencilSketch([line!], page, 5))).toBe(true)
    const { data, info } = await sharp(bytes).greyscale().raw().toBuffer({ resolveWithObject: true })
    expect([info.width, info.height]).toEqual([page.width * 2, page.height * 2])
    const darkest = (x: number, y: number): number => {
      let least = 255
      for (let dy = -8; dy <= 8; dy++) for (let dx = -8; dx <= 8; dx++) least = Math.min(least, data[(Math.round(y * 2) + dy) * info.width + Math.round(x * 2) + dx]!)
      return least
    }
    const on = pointAt(cubicsOfPath(line!.path)[1]!, 0.5)
    expect(darkest(on.x, on.y)).toBeLessThan(130)
    expect(darkest(680, 30)).toBeGreaterThan(200)
  })
})
