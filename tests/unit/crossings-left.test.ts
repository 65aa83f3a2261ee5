import { describe, expect, it } from 'vitest'
import type { Path } from '#core/geometry/path'
import type { Shape } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import { pathsOfData } from '#core/formats/svg/paths'
import { IDENTITY } from '#core/geometry/matrix'
import { flatten } from '#core/geometry/cubic'
import { cubicsOfPath } from '#core/geometry/path'
import { unionShapes } from '#core/shapes/combine'
import { seeded } from './support/random-lines'

type Edge = readonly [a: Vec, b: Vec]

const edgesOf = (contours: readonly Path[], fine: number): Edge[] =>
  contours.flatMap((c) =>
    cubicsOfPath({ ...c, closed: true }).flatMap((cubic) => {
      const points = flatten(cubic, fine)
      return points.slice(1).map((b, i): Edge => [points[i]!, b])
    }),
  )

/** Winding number of edges about a point, by the crossings of a ray to the right. */
function winding(edges: readonly Edge[], { x, y }: Vec): number {
  let sum = 0
  for (const [a, b] of edges) {
    if (a.y <= y === b.y <= y) continue
    if (a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x) > x) sum += b.y > a.y ? 1 : -1
  }
  return sum
}

/** Places where two edges that do not follow one another cross, found by trying every pair. */
function meetings(edges: readonly Edge[]): Vec[] {
  const out: Vec[] = []
  for (let i = 0; i < edges.length; i++) {
    const [a, b] = edges[i]!
    for (let j = i + 2; j < edges.length; j++) {
      const [c, d] = edges[j]!
      const det = (b.x - a.x) * (d.y - c.y) - (b.y - a.y) * (d.x - c.x)
      if (det === 0) continue
      const t = ((c.x - a.x) * (d.y - c.y) - (c.y - a.y) * (d.x - c.x)) / det
      const u = ((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / det
      if (t > 0 && t < 1 && u > 0 && u < 1) out.push({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) })
    }
  }
  return out
}

/** Whether contours cross by more than `width`: near a crossing, a disc that wide is wound about twice, or backwards. */
function crossWider(contours: readonly Path[], width: number): boolean {
  const edges = edgesOf(contours, width / 40)
  const around = (n: number): Vec[] =>
    Array.from({ length: n }, (_, i) => ({
      x: Math.cos((2 * Math.PI * i) / n + 0.01),
      y: Math.sin((2 * Math.PI * i) / n + 0.01),
    }))
  const isBad = (p: Vec): boolean => ![0, 1].includes(winding(edges, p))
  const disc = (p: Vec): boolean =>
    isBad(p) && around(8).every((d) => isBad({ x: p.x + (width / 2) * d.x, y: p.y + (width / 2) * d.y }))
  return meetings(edges).some((x) =>
    [1, 2, 4, 8].some((far) =>
      around(32).some((d) => disc({ x: x.x + far * width * d.x, y: x.y + far * width * d.y })),
    ),
  )
}

const loop = (d: string): Path => pathsOfData(d, IDENTITY)[0]!
const shape = (d: string): Shape => ({ id: d, ink: 'black', from: [], contours: [loop(d)] })
/** Curves so close to each other at a coarse tolerance that their chords do not tell where they cross. */
const KNOWN: [tolerance: number, ...paths: string[]][] = [
  [
    2,
    'M10 98C38 68 14 64 7 53C1 1 38 22 49 39C46 88 14 35 10 98Z',
    'M15 92C90 4 56 85 16 33C65 59 72 57 25 42C15 65 85 94 15 92Z',
  ],
  [
    0.5,
    'M48 25C85 65 28 91 57 15C3 29 1 61 39 97C96 76 61 36 48 25Z',
    'M7 6C55 29 19 13 69 56C83 67 3 55 57 26C71 16 99 56 40 47C54 88 87 43 7 6Z',
  ],
  [
    2,
    'M57 55C42 87 31 53 30 90C10 6 64 0 57 55C38 25 23 30 57 55Z',
    'M19 75C30 60 24 87 8 24C27 10 91 32 18 16C44 50 97 11 6 10C1 33 75 7 19 75Z',
  ],
  [
    2,
    'M79 81C92 36 78 96 18 82C38 26 27 19 36 67C57 73 78 51 72 86C84 90 97 38 79 81Z',
    'M74 16C27 43 19 98 20 89C57 39 92 41 74 16Z',
  ],
]

describe('no contour of a union crosses itself or another by more than a 128th of the tolerance', () => {
  it.each(KNOWN)('at %s', (tolerance, ...paths) => {
    expect(crossWider(unionShapes(paths.map(shape), { tolerance }), tolerance / 128)).toBe(false)
  })

  it('of random loops at a coarse tolerance', () => {
    const r = seeded(77)
    const at = (): string => `${Math.round(r() * 100)} ${Math.round(r() * 100)}`
    for (let k = 0; k < 150; k++) {
      const paths = [0, 1].map(
        () => `M${at()}${Array.from({ length: 2 + Math.floor(r() * 3) }, () => `C${at()} ${at()} ${at()}`).join('')}Z`,
      )
      expect(crossWider(unionShapes(paths.map(shape), { tolerance: 2 }), 2 / 128), paths.join(' ')).toBe(false)
    }
  })

  it('is told by this measure: a figure of eight crosses itself', () => {
    expect(crossWider([loop('M0 0C10 0 10 10 21 11C30 10 30 0 20 0C10 0 9 10 0 10Z')], 0.1)).toBe(true)
  })
})
