import { evenWeight, newDrawing, newLine, newLinesLayer, newFillsLayer, roundFinish } from '#core/model/create'
import type { Cap, Drawing, Join, Line, Shape } from '#core/model/model'
import type { Vec } from '#core/geometry/point'
import type { Path, PathNode } from '#core/geometry/path'
import { mapPath, reversePath } from '#core/geometry/path'
import { seeded } from './random-lines'

const INKS = [
  ['ink-a', 'Leaf', '#2f6b3a'],
  ['ink-b', 'Husk', '#b98a3e'],
  ['ink-c', 'Soil', '#4a3527'],
] as const

/**
 * A drawing of figures as people trace them: each a fill and a stroke on one path, some of them again with coordinates
 * rounded to 1, 2 or 3 decimals, moved by 0.001 to 0.3 px, doubled, run backwards, cut in two, in several inks, with dots
 * and lines of no length among them.
 */
export function aimedDrawing(seed: number): Drawing {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const pick = <T>(...of: T[]): T => of[Math.floor(r() * of.length)]!
  const size = pick(24, 72, 200, 640)
  const inks = 1 + Math.floor(r() * INKS.length)
  const ink = (): string => INKS[Math.floor(r() * inks)]![0]
  const items: (Line | Shape)[] = []
  let count = 0
  const add = (path: Path): void => {
    const id = `i${count++}`
    if (path.closed && r() < 0.5) items.push({ id, contours: [path], ink: ink(), from: [] })
    else {
      // Others know but one cap for both ends.
      const cap = pick<Cap>('butt', 'round', 'square')
      items.push(
        newLine(path, {
          id,
          ink: ink(),
          weight: evenWeight(size * pick(0.002, 0.006, 0.012, 0.02)),
          finish: {
            ...roundFinish(),
            startCap: cap,
            endCap: cap,
            join: pick<Join>('miter', 'round', 'bevel'),
          },
        }),
      )
    }
  }
  for (let figures = 1 + Math.floor(r() * 4); figures > 0; figures--) {
    const path = figure(r, size)
    add(path)
    for (let again = 1 + Math.floor(r() * 4); again > 0; again--) {
      let next = path
      if (r() < 0.6) next = rounded(next, pick(1, 2, 3))
      if (r() < 0.3) next = moved(next, 10 ** (-3 + 2.5 * r()), r() * 2 * Math.PI)
      if (r() < 0.3) next = reversePath(next)
      if (r() < 0.2)
        next = {
          ...next,
          nodes: next.nodes.flatMap((n) => [
            { ...n, out: null },
            { ...n, in: null },
          ]),
        }
      if (r() < 0.2 && next.nodes.length > 2) next = { closed: false, nodes: next.nodes.slice(0, -1) }
      add(next)
    }
    const dot = { ...path.nodes[0]!, in: null, out: null }
    if (r() < 0.3) add({ nodes: [dot], closed: false })
    if (r() < 0.2) add({ nodes: [dot, dot], closed: r() < 0.5 })
  }
  const lines = items.filter((i): i is Line => 'path' in i)
  const solids = items.filter((i): i is Shape => !('path' in i))
  const layers = [newFillsLayer('Fills', solids), newLinesLayer('Lines', lines)]
  const drawing = newDrawing(`Aimed ${seed}`, {
    page: { width: size, height: size, unit: 'px', pxPerMm: 3.78 },
    layers: r() < 0.5 ? layers : layers.reverse(),
    inks: INKS.map(([id, name, colour]) => ({ id, name, colour })),
  })
  const { shapes } = drawing.settings
  return {
    ...drawing,
    settings: {
      ...drawing.settings,
      tuck: r() < 0.5,
      shapes: { ...shapes, tolerance: pick(0.5, 0.05, 0.01), unite: r() < 0.9 },
    },
  }
}

/** A closed or open figure of straight and bent segments; some of its corners are arcs, as in icons. */
function figure(r: () => number, size: number): Path {
  const count = 2 + Math.floor(r() * 5)
  const centre = { x: size * (0.2 + 0.6 * r()), y: size * (0.2 + 0.6 * r()) }
  const nodes = Array.from({ length: count }, (_, i): PathNode => {
    const angle = (2 * Math.PI * (i + 0.6 * r())) / count
    const radius = size * (0.05 + 0.3 * r())
    const at = { x: centre.x + radius * Math.cos(angle), y: centre.y + radius * Math.sin(angle) }
    const arm = 0.3 * radius
    const lean = angle + Math.PI / 2 + (r() - 0.5) * 0.8
    const by = { x: arm * Math.cos(lean), y: arm * Math.sin(lean) }
    return {
      at,
      in: r() < 0.3 ? null : { x: at.x - by.x, y: at.y - by.y },
      out: r() < 0.3 ? null : { x: at.x + by.x, y: at.y + by.y },
      joint: 'corner',
    }
  })
  return { nodes, closed: r() < 0.8 }
}

function rounded(path: Path, decimals: number): Path {
  const k = 10 ** decimals
  return mapPath(path, ({ x, y }: Vec) => ({ x: Math.round(x * k) / k, y: Math.round(y * k) / k }))
}

const moved = (path: Path, by: number, way: number): Path =>
  mapPath(path, ({ x, y }: Vec) => ({ x: x + by * Math.cos(way), y: y + by * Math.sin(way) }))
