import Konva from 'konva'
import type { Path } from '#core/drawing/model'
import { cubicsOfPath } from '#core/geometry/path'
import type { Vec } from '#core/geometry/point'
import type { Mark, MarkRef } from './marks'
import type { Viewport } from './viewport'
import { stepToScreen, toScreen } from './viewport'

const PLUM = '#7a2b58'
const PAPER = '#fffdf8'
const INK = '#211c1a'
const MUTE = '#6f665d'

const REACH = 12

/** Page to screen: of points, and of directions. */
interface Place {
  (p: Vec): Vec
  step: (d: Vec) => Vec
}

/** Draws marks with Konva, all of them anew when they change: there are few. */
export class MarksLayer {
  private readonly stage: Konva.Stage
  private readonly layer = new Konva.Layer()

  constructor(container: HTMLDivElement) {
    this.stage = new Konva.Stage({ container, width: 1, height: 1 })
    this.stage.add(this.layer)
  }

  resize(width: number, height: number): void {
    this.stage.size({ width, height })
  }

  render(marks: readonly Mark[], viewport: Viewport): void {
    this.layer.destroyChildren()
    const place: Place = Object.assign((p: Vec) => toScreen(viewport, p), { step: (d: Vec) => stepToScreen(viewport, d) })
    for (const mark of marks) for (const shape of shapesOf(mark, place)) this.layer.add(shape)
    this.layer.draw()
  }

  /** The mark under a point of the screen, if one wants the hand. */
  at(p: Vec): MarkRef | null {
    const shape = this.stage.getIntersection(p)
    return (shape?.getAttr('mark') as MarkRef | undefined) ?? null
  }

  destroy(): void {
    this.stage.destroy()
  }
}

function shapesOf(mark: Mark, place: Place): Konva.Shape[] {
  switch (mark.kind) {
    case 'paths':
      return [centrelines(mark, place)]
    case 'node':
      return [node(mark, place(mark.at))]
    case 'handle':
      return handle(place(mark.from), place(mark.at), mark.ref)
    case 'jaws':
      return jaws(mark, place)
    case 'tag':
      return tag(place(mark.at), mark.text)
    case 'end':
      return [openEnd(place(mark.at), place.step(mark.outward), mark.ref, !!mark.hot)]
    case 'box':
      return [box(cornersBetween(mark.from, mark.to).map(place))]
    case 'frame':
      return [...frame(mark.corners.map(place)), ...(mark.turner ? [turner(place(mark.turner), place(mark.corners[0]), place(mark.corners[1]))] : [])]
    case 'closer':
      return [closer(place(mark.at), mark.ref)]
    case 'brush':
      return [brush(place(mark.at), Math.hypot(place.step({ x: mark.width, y: 0 }).x, place.step({ x: mark.width, y: 0 }).y))]
    case 'snap':
      return snapped(place(mark.at), mark.along && place.step(mark.along), mark.text)
    case 'belly':
      return [belly(mark, place(mark.at), place.step(mark.along))]
  }
}

/** Any number of centrelines as one shape: thousands may be chosen at once. */
function centrelines(mark: Extract<Mark, { kind: 'paths' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      for (const path of mark.paths) trace(ctx, path, place)
      ctx.setAttr('strokeStyle', mark.tone === 'mute' ? MUTE : PLUM)
      ctx.setAttr('lineWidth', { plum: 1.25, mute: 1, next: 1, strong: 3 }[mark.tone])
      ctx.setLineDash(mark.tone === 'next' ? [5, 4] : [])
      ctx.stroke()
    },
  })
}

function trace(ctx: Konva.Context, path: Path, place: Place): void {
  const start = place(path.nodes[0]!.at)
  ctx.moveTo(start.x, start.y)
  for (const c of cubicsOfPath(path)) {
    const [p, q, r] = [place(c.p1), place(c.p2), place(c.p3)]
    ctx.bezierCurveTo(p.x, p.y, q.x, q.y, r.x, r.y)
  }
}

/** Smooth node: ring. Corner node: lozenge. Chosen: filled plum. */
function node(mark: Extract<Mark, { kind: 'node' }>, p: Vec): Konva.Shape {
  const smooth = mark.joint === 'smooth'
  const k = mark.small ? 0.5 : 1
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: mark.ref,
    listening: !!mark.ref,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      if (smooth) ctx.arc(0, 0, 4.2 * k, 0, Math.PI * 2)
      else lozenge(ctx, 5.4 * k)
      ctx.setAttr('fillStyle', mark.chosen ? PLUM : PAPER)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', mark.small ? 1.1 : 1.6)
      ctx.fill()
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
}

function lozenge(ctx: Konva.Context, r: number): void {
  ctx.moveTo(0, -r)
  ctx.lineTo(r, 0)
  ctx.lineTo(0, r)
  ctx.lineTo(-r, 0)
  ctx.closePath()
}

const target =
  (reach: number) =>
  (ctx: Konva.Context, shape: Konva.Shape): void => {
    ctx.beginPath()
    ctx.arc(0, 0, reach / 1.5, 0, Math.PI * 2)
    ctx.fillShape(shape)
  }

/** A thin stem with a crossbar at its end. */
function handle(from: Vec, to: Vec, ref: MarkRef | null): Konva.Shape[] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x)
  const stem = new Konva.Line({ points: [from.x, from.y, to.x, to.y], stroke: PLUM, strokeWidth: 1, opacity: 0.75, listening: false })
  const bar = new Konva.Shape({
    x: to.x,
    y: to.y,
    mark: ref,
    listening: !!ref,
    sceneFunc: (ctx) => {
      ctx.rotate(angle)
      ctx.beginPath()
      ctx.moveTo(0, -5)
      ctx.lineTo(0, 5)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 2.6)
      ctx.setAttr('lineCap', 'round')
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
  return [stem, bar]
}

/** A width stop: a pair of measuring jaws across the line. */
function jaws(mark: Extract<Mark, { kind: 'jaws' }>, place: Place): Konva.Shape[] {
  const [left, right, centre] = [place(mark.left), place(mark.right), place(mark.centre)]
  const across = Math.atan2(left.y - right.y, left.x - right.x)
  const gap = 3
  // The jaws stand a little off the ink, so that they do not hide it.
  const off = (p: Vec, way: 1 | -1): Vec => ({ x: p.x + Math.cos(across) * gap * way, y: p.y + Math.sin(across) * gap * way })
  const [l, r] = [off(left, 1), off(right, -1)]
  const width = mark.chosen ? 2.4 : 1.6
  const bar = new Konva.Line({ points: [l.x, l.y, r.x, r.y], stroke: PLUM, strokeWidth: 1, opacity: 0.8, listening: false })
  const jaw = (p: Vec, side: 'left' | 'right'): Konva.Shape =>
    new Konva.Shape({
      x: p.x,
      y: p.y,
      mark: { kind: 'jaw', line: mark.line, index: mark.index, side } satisfies MarkRef,
      sceneFunc: (ctx) => {
        const way = side === 'left' ? 1 : -1
        ctx.rotate(across)
        ctx.beginPath()
        ctx.moveTo(way * 3, -6)
        ctx.lineTo(0, -6)
        ctx.lineTo(0, 6)
        ctx.lineTo(way * 3, 6)
        ctx.setAttr('strokeStyle', PLUM)
        ctx.setAttr('lineWidth', width)
        ctx.stroke()
      },
      hitFunc: target(REACH),
    })
  const pin = new Konva.Circle({
    x: centre.x,
    y: centre.y,
    radius: mark.chosen ? 3.6 : 2.8,
    fill: mark.chosen ? PLUM : PAPER,
    stroke: PLUM,
    strokeWidth: 1.4,
    mark: { kind: 'stop', line: mark.line, index: mark.index } satisfies MarkRef,
    hitFunc: target(REACH),
  } as Konva.CircleConfig)
  return [bar, jaw(l, 'left'), jaw(r, 'right'), pin]
}

function tag(p: Vec, text: string): Konva.Shape[] {
  const words = new Konva.Text({ text, fontFamily: 'IBM Plex Mono', fontSize: 12, fill: '#fff', listening: false })
  const width = words.width() + 18
  words.position({ x: p.x + 9, y: p.y - 6 })
  return [
    new Konva.Rect({ x: p.x, y: p.y - 12, width, height: 24, cornerRadius: 6, fill: INK, listening: false }),
    words,
  ]
}

/** An open chevron at a free end, pointing outwards. */
function openEnd(p: Vec, outward: Vec, ref: MarkRef | null, hot: boolean): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: ref,
    listening: !!ref,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      ctx.beginPath()
      ctx.moveTo(5, -5)
      ctx.lineTo(10, 0)
      ctx.lineTo(5, 5)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', ref ? 2.4 : 1.6)
      ctx.stroke()
      if (!hot) return
      ctx.beginPath()
      ctx.arc(9, 0, 10, 0, Math.PI * 2)
      ctx.stroke()
    },
    // The chevron takes the hand, not the end itself: there another line may begin.
    hitFunc: (ctx, shape) => {
      ctx.rotate(Math.atan2(outward.y, outward.x))
      ctx.beginPath()
      ctx.arc(9, 0, 7, 0, Math.PI * 2)
      ctx.fillShape(shape)
    },
  })
}

/** Corners of the upright box of the page between two points. */
const cornersBetween = (a: Vec, b: Vec): Vec[] => [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }]

const box = (corners: Vec[]): Konva.Shape =>
  new Konva.Line({
    points: corners.flatMap((c) => [c.x, c.y]),
    closed: true,
    stroke: PLUM,
    strokeWidth: 1,
    dash: [4, 3],
    fill: 'rgba(122, 43, 88, 0.06)',
    listening: false,
  })

function frame(corners: Vec[]): Konva.Shape[] {
  const outline = new Konva.Line({ points: corners.flatMap((c) => [c.x, c.y]), closed: true, stroke: PLUM, strokeWidth: 1.2, listening: false })
  const grips = corners.map(
    (c, index) =>
      new Konva.Shape({
        x: c.x,
        y: c.y,
        mark: { kind: 'corner', index } satisfies MarkRef,
        sceneFunc: (ctx) => {
          ctx.beginPath()
          lozenge(ctx, 7)
          ctx.setAttr('fillStyle', PAPER)
          ctx.setAttr('strokeStyle', PLUM)
          ctx.setAttr('lineWidth', 1.6)
          ctx.fill()
          ctx.stroke()
        },
        hitFunc: target(18),
      }),
  )
  return [outline, ...grips]
}

/** What a frame is turned by: an open ring on a stem. */
function turner(p: Vec, a: Vec, b: Vec): Konva.Shape {
  const foot = { x: (a.x + b.x) / 2 - p.x, y: (a.y + b.y) / 2 - p.y }
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: { kind: 'turner' } satisfies MarkRef,
    sceneFunc: (ctx) => {
      const way = Math.atan2(foot.y, foot.x)
      ctx.beginPath()
      ctx.moveTo(foot.x, foot.y)
      ctx.lineTo(Math.cos(way) * 6, Math.sin(way) * 6)
      ctx.arc(0, 0, 6, way, way + Math.PI * 1.6)
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 1.6)
      ctx.stroke()
    },
    hitFunc: target(REACH * 1.2),
  })
}

/** A halo round an end of a path: pressing it closes the line, or goes on from there. */
const closer = (p: Vec, ref: MarkRef): Konva.Shape =>
  new Konva.Circle({
    x: p.x,
    y: p.y,
    radius: 9,
    stroke: PLUM,
    strokeWidth: 1.4,
    dash: [3, 3],
    mark: ref,
    hitFunc: target(REACH),
  } as Konva.CircleConfig)

/** The middle of a bow: two short strokes along it, to be pulled. */
function belly(mark: Extract<Mark, { kind: 'belly' }>, p: Vec, along: Vec): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    mark: { kind: 'belly', index: mark.index } satisfies MarkRef,
    sceneFunc: (ctx) => {
      ctx.rotate(Math.atan2(along.y, along.x))
      ctx.beginPath()
      for (const off of [-3.2, 3.2]) {
        ctx.moveTo(-5, off)
        ctx.lineTo(5, off)
      }
      ctx.setAttr('strokeStyle', PAPER)
      ctx.setAttr('lineWidth', 4.6)
      ctx.setAttr('lineCap', 'round')
      ctx.stroke()
      ctx.setAttr('strokeStyle', PLUM)
      ctx.setAttr('lineWidth', 2.2)
      ctx.stroke()
    },
    hitFunc: target(REACH),
  })
}

/** How wide a brush is, about the pointer. */
const brush = (p: Vec, width: number): Konva.Shape =>
  new Konva.Circle({ x: p.x, y: p.y, radius: Math.max(2, width / 2), stroke: PLUM, strokeWidth: 1, opacity: 0.8, listening: false })

/** A place that the hand is drawn to: a sight about it, with a dash along the line it lies on, and what it is in words. */
function snapped(p: Vec, along: Vec | null, text: string): Konva.Shape[] {
  const sight = new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      ctx.rotate(along ? Math.atan2(along.y, along.x) : Math.PI / 4)
      for (const [colour, width] of [[PAPER, 4], [PLUM, 1.8]] as const) {
        ctx.beginPath()
        ctx.moveTo(-13, 0)
        ctx.lineTo(-5, 0)
        ctx.moveTo(5, 0)
        ctx.lineTo(13, 0)
        if (!along) {
          ctx.moveTo(0, -13)
          ctx.lineTo(0, -5)
          ctx.moveTo(0, 5)
          ctx.lineTo(0, 13)
        }
        ctx.setAttr('strokeStyle', colour)
        ctx.setAttr('lineWidth', width)
        ctx.stroke()
      }
    },
  })
  return [sight, ...tag({ x: p.x + 9, y: p.y + 24 }, text)]
}
