import sharp from 'sharp'
import { describe, expect, it } from 'vitest'
import { defaultPage, newLine } from '#core/model/create'
import type { Line } from '#core/model/model'
import type { Path } from '#core/geometry/path'
import { checkDrawing } from '#core/document/check-drawing'
import { areaOfCubics } from '#core/geometry/area'
import { boxOfCubics } from '#core/geometry/bounds'
import { curvatureAt, pointAt, tangentAt } from '#core/geometry/cubic'
import { ArcLength } from '#core/geometry/arc-length'
import { cubicsOfPath, reversePath } from '#core/geometry/path'
import { isBehind } from '#core/ink/front/as-seen'
import { openInk } from '#core/ink/open-ink'
import { linesOf } from '#core/model/queries'
import { withCopies } from '#core/repetition/with-copies'
import { atOnce } from '#core/turns'
import { outlineOf } from '#core/outline/expand'
import { LineWidth } from '#core/weight/half-widths'
import { pencilSketch } from '../../demo/kit/pencil'
import { shaded } from '../../demo/kit/light'
import { behind, front } from '../../demo/kit/overlap'
import { around, joined, through } from '../../demo/kit/spline'
import { weight } from '../../demo/kit/weights'
import { documentOf, SCENARIO } from '../../demo/scenario'

const page = defaultPage()

describe.each(SCENARIO.map((make) => make()).map((inked) => [inked.name, inked] as const))('%s', (_name, inked) => {
  const lines = inked.layers.flatMap((l) => l.lines)

  it('has 25 to 100 lines and is a valid document', () => {
    expect(lines.length).toBeGreaterThanOrEqual(25)
    expect(lines.length).toBeLessThanOrEqual(100)
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

  it("keeps the craft's rule: an end that floats in space tapers, one that is full tucks under another line", () => {
    const ink = openInk(documentOf(inked, null))
    const inFront = atOnce(ink.inFront())
    const weighed = linesOf(withCopies(ink.drawing)).map((line) => {
      const arc = new ArcLength(cubicsOfPath(line.path))
      return { line, arc, width: new LineWidth(line.weight, 'centre', arc.total, line.path.closed) }
    })
    const halfAt = ({ width }: (typeof weighed)[number], s: number): number =>
      (width.at(s).left + width.at(s).right) / 2
    for (const one of weighed) {
      if (one.line.path.closed) continue
      for (const end of [0, one.arc.total]) {
        if (halfAt(one, end) < 0.8) continue
        const p = one.arc.point(end)
        if (isBehind(p, inFront.get(one.line.id))) continue
        const gaps = weighed
          .filter((o) => o !== one)
          .map((o) => {
            const near = o.arc.nearest(p)
            return near.distance - halfAt(o, near.length)
          })
        expect(Math.min(...gaps), `the end at ${Math.round(p.x)}, ${Math.round(p.y)}`).toBeLessThan(0.5)
      }
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
    expect(path.nodes.map((n) => [n.at.x, n.at.y])).toEqual([
      [0, 0],
      [40, 30],
      [90, 10],
      [120, 60],
    ])
    const cubics = cubicsOfPath(path)
    for (let i = 1; i < cubics.length; i++) {
      const [a, b] = [tangentAt(cubics[i - 1]!, 1)!, tangentAt(cubics[i]!, 0)!]
      expect(a.x * b.x + a.y * b.y).toBeGreaterThan(0.9999)
    }
  })

  it('joins paths with a corner, the curves kept', () => {
    const [a, b] = [through([0, 0], [20, 10], [40, 0]), through([40, 0], [60, -10], [80, 0])]
    const both = joined(a, b)
    expect(cubicsOfPath(both)).toEqual([...cubicsOfPath(a), ...cubicsOfPath(b)])
    expect(both.nodes.map((n) => n.joint)).toEqual(['corner', 'smooth', 'corner', 'smooth', 'corner'])
  })

  it('keeps bending the same way up to its ends', () => {
    const on = (turn: number): [number, number] => [100 * Math.cos(turn), 100 * Math.sin(turn)]
    for (const points of [
      [0, 0.5, 1, 1.5],
      [0, 0.6, 1.5],
      [0, 0.9, 1.2, 2.2, 2.6],
    ].map((turns) => turns.map(on))) {
      for (const c of cubicsOfPath(through(...points))) {
        for (const t of [0.02, 0.3, 0.7, 0.98]) {
          expect(curvatureAt(c, t)).toBeGreaterThan(0)
          expect(Math.hypot(pointAt(c, t).x, pointAt(c, t).y)).toBeCloseTo(100, -0.5)
        }
      }
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

describe('what lies behind', () => {
  const bar = (y: number): Line => newLine(through([0, y], [50, y], [100, y]), { weight: weight(6, [0, 1], [1, 0.5]) })
  const box = front(
    through([30, -20], [30, 20]),
    through([30, 20], [60, 20]),
    through([60, 20], [60, -20]),
    through([60, -20], [30, -20]),
  )

  it('is cut at the edge of what lies in front, its widths kept in their places', () => {
    const [left, right, ...rest] = behind([bar(0)], [box], 100)
    expect(rest).toHaveLength(0)
    expect(left!.path.nodes.at(-1)!.at.x).toBeCloseTo(30, 4)
    expect(right!.path.nodes[0]!.at.x).toBeCloseTo(60, 4)
    expect(right!.weight.stops[0]!.left).toBeCloseTo(0.7, 4)
  })

  it('narrows where it tucks under', () => {
    const [left] = behind([bar(0)], [box], 3)
    expect(left!.weight.stops.at(-1)!.left).toBeCloseTo(0.5, 6)
  })

  it('stays whole where nothing hides it, goes where all of it is hidden', () => {
    const free = bar(40)
    expect(behind([free], [box])).toEqual([free])
    expect(behind([newLine(through([35, 0], [45, 4], [55, 0]))], [box])).toEqual([])
  })

  it('a closed line comes out as one open stroke', () => {
    const ring = around([60, 0], [80, 20], [100, 0], [80, -20])
    const [half] = behind(
      [newLine(ring)],
      [
        front(
          through([80, -40], [80, 40]),
          through([80, 40], [140, 40]),
          through([140, 40], [140, -40]),
          through([140, -40], [80, -40]),
        ),
      ],
    )
    expect(half!.path.closed).toBe(false)
    const arc = new ArcLength(cubicsOfPath(half!.path))
    expect(arc.total / (Math.PI * 20)).toBeCloseTo(1, 1)
    for (const end of [0, arc.total]) expect(arc.point(end).x).toBeCloseTo(80, 3)
  })
})

describe('light', () => {
  it('is thin on the edge that faces it and heavy away from it, whichever way the edge runs', () => {
    const ring = around([50, 0], [0, 50], [-50, 0], [0, -50])
    const widthTowards = (path: Path, outside: 'left' | 'right', angle: number): number => {
      const arc = new ArcLength(cubicsOfPath(path))
      const at = arc.nearest({ x: 50 * Math.cos(angle), y: 50 * Math.sin(angle) }).length
      return new LineWidth(shaded(path, 10, { outside, stops: 8 }), 'centre', arc.total, true).at(at).left
    }
    for (const [path, outside] of [
      [ring, 'left'],
      [reversePath(ring), 'right'],
    ] as const) {
      const [lit, dark] = [widthTowards(path, outside, -Math.PI * 0.75), widthTowards(path, outside, Math.PI * 0.25)]
      expect(dark / lit).toBeGreaterThan(1.9)
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
      for (let dy = -8; dy <= 8; dy++)
        for (let dx = -8; dx <= 8; dx++)
          least = Math.min(least, data[(Math.round(y * 2) + dy) * info.width + Math.round(x * 2) + dx]!)
      return least
    }
    const on = pointAt(cubicsOfPath(line!.path)[1]!, 0.5)
    expect(darkest(on.x, on.y)).toBeLessThan(130)
    expect(darkest(680, 30)).toBeGreaterThan(200)
  })
})
