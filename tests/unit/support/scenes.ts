import { Resvg } from '@resvg/resvg-js'
import { evenWeight, newDrawing, newLine, newLinesLayer, roundFinish } from '#core/model/create'
import type { Drawing, Line } from '#core/model/model'
import type { PathNode } from '#core/geometry/path'
import { pathData } from '#core/geometry/path'
import { writeSvg } from '#core/formats/svg/write-svg'
import { shapesOf } from '#core/ink/shapes-of'
import { seeded } from './random-lines'
import { unlikePixels } from './wrong-pixels'

const PAGE = 300
const ZOOM = 4
/** Paper and ink differ by more. */
const APART = 100

/** A thing with a closed outline of one to four lines. */
export type Thing = Line[]

/** Closed outlines bent at random, each of one to four lines that go on from one another; from the back to the front. */
export function randomThings(seed: number): Thing[] {
  const r = seeded(seed)
  for (let i = 0; i < 8; i++) r()
  const count = 3 + Math.floor(r() * 10)
  return Array.from({ length: count }, (_, k) => {
    const [x, y, size] = [60 + r() * 180, 60 + r() * 180, 22 + r() * 46]
    const corners = 5 + Math.floor(r() * 4)
    const points = Array.from({ length: corners }, (_, i) => {
      const turn = (2 * Math.PI * (i + 0.5 * r())) / corners
      const far = size * (0.65 + 0.5 * r())
      return { x: x + 1.3 * far * Math.cos(turn), y: y + far * Math.sin(turn) }
    })
    const nodes = points.map((at, i): PathNode => {
      const [a, b] = [points.at(i - 1)!, points[(i + 1) % corners]!]
      const arm = { x: (b.x - a.x) / 6, y: (b.y - a.y) / 6 }
      return {
        at,
        in: { x: at.x - arm.x, y: at.y - arm.y },
        out: { x: at.x + arm.x, y: at.y + arm.y },
        joint: 'smooth',
      }
    })
    const weight = evenWeight(2 + r() * 4)
    const parts = 1 + Math.floor(r() * 4)
    const made = (own: PathNode[], closed: boolean, i: number): Line =>
      newLine({ nodes: own, closed }, { id: `thing-${k}-${i}`, weight, finish: { ...roundFinish(), join: 'round' } })
    if (parts === 1) return [made(nodes, true, 0)]
    const cuts = Array.from({ length: parts }, (_, i) => Math.floor((i * corners) / parts))
    return cuts.map((from, i) => {
      const to = cuts[i + 1] ?? corners + cuts[0]!
      const own = Array.from({ length: to - from + 1 }, (_, j) => nodes[(from + j) % corners]!)
      const line = made(own, false, i)
      // As hands do, every other one is drawn the other way.
      return i % 2 ? { ...line, path: { ...line.path, nodes: own.map(turned).reverse() } } : line
    })
  })
}

const turned = (n: PathNode): PathNode => ({ ...n, in: n.out, out: n.in })

export const sceneOf = (things: readonly Thing[], over: Partial<Drawing> = {}): Drawing => {
  const drawing = newDrawing('Scene', {
    page: { width: PAGE, height: PAGE, unit: 'px', pxPerMm: 4 },
    layers: things.map((lines, i) => newLinesLayer(`Layer ${i}`, lines)),
    ...over,
  })
  return { ...drawing, settings: { ...drawing.settings, shapes: { ...drawing.settings.shapes, simplify: 0 } } }
}

/** Things painted from back to front, with paper inside their outlines: the order is that of the list. */
function painted(things: readonly Thing[]): string {
  const all = things.map((lines) => {
    const width = lines[0]!.weight.size
    // The lines of a thing in the order in which they were cut, all in one direction.
    const round = lines.map((l, i) => (i % 2 ? { ...l.path, nodes: l.path.nodes.map(turned).reverse() } : l.path))
    const whole = round.flatMap((p) => (p.closed ? p.nodes : p.nodes.slice(0, -1)))
    const d = pathData({ nodes: whole, closed: true })
    const strokes = lines
      .map(
        (l) =>
          `<path d="${pathData(l.path)}" fill="none" stroke="#000" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`,
      )
      .join('')
    return `<path d="${d}" fill="#fff"/>${strokes}`
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PAGE} ${PAGE}"><rect width="100%" height="100%" fill="#fff"/>${all.join('')}</svg>`
}

const pixelsOf = (svg: string): Uint8Array =>
  new Resvg(svg.replace('<svg ', '<svg shape-rendering="crispEdges" '), {
    fitTo: { mode: 'width', value: PAGE * ZOOM },
    background: '#fff',
  }).render().pixels

/** How many px at four times the size show, with those beside them, other ink in the delivered file than the painter's order does. */
export function unlikePainted(drawing: Drawing, things: readonly Thing[]): number {
  const { shapes } = shapesOf(drawing)
  const [a, b] = [painted(things), writeSvg(drawing, { content: 'outlines', shapes })].map(pixelsOf) as [
    Uint8Array,
    Uint8Array,
  ]
  return unlikePixels(a, b, PAGE * ZOOM, APART)
}
