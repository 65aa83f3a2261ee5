import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import type { Nib } from '#core/model/line'
import { INK, lozenge, PAPER, PLUM, REACH, strokedOnInk, target } from './mark-look'
import type { MarkRef } from './marks'

export function tag(p: Vec, text: string): Konva.Shape[] {
  const words = new Konva.Text({ text, fontFamily: 'IBM Plex Mono', fontSize: 12, fill: '#fff', listening: false })
  const width = words.width() + 18
  words.position({ x: p.x + 9, y: p.y - 6 })
  return [
    new Konva.Rect({ x: p.x, y: p.y - 12, width, height: 24, cornerRadius: 6, fill: INK, listening: false }),
    words,
  ]
}

/** Corners of the upright box of the page between two points. */
export const cornersBetween = (a: Vec, b: Vec): Vec[] => [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }]

export const box = (corners: Vec[]): Konva.Shape =>
  new Konva.Line({
    points: corners.flatMap((c) => [c.x, c.y]),
    closed: true,
    stroke: PLUM,
    strokeWidth: 1,
    dash: [4, 3],
    fill: 'rgba(122, 43, 88, 0.06)',
    listening: false,
  })

export function frame(corners: Vec[]): Konva.Shape[] {
  const outline = new Konva.Line({
    points: corners.flatMap((c) => [c.x, c.y]),
    closed: true,
    stroke: PLUM,
    strokeWidth: 1.2,
    listening: false,
  })
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
export function turner(p: Vec, a: Vec, b: Vec): Konva.Shape {
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

/** How wide a brush is, about the pointer. */
export const brush = (p: Vec, width: number, nib: Nib | null, turn: number): Konva.Shape =>
  new Konva.Ellipse({
    x: p.x,
    y: p.y,
    radiusX: Math.max(2, (width * (nib?.width ?? 1)) / 2),
    radiusY: Math.max(2, (width * (nib?.height ?? 1)) / 2),
    rotation: turn,
    stroke: PLUM,
    strokeWidth: 1,
    opacity: 0.8,
    listening: false,
  })

/** A place that the hand is drawn to: a sight about it, with a dash along the line it lies on, and what it is in words. */
export function snapped(p: Vec, along: Vec | null, text: string): Konva.Shape[] {
  const sight = new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      ctx.rotate(along ? Math.atan2(along.y, along.x) : Math.PI / 4)
      const dashes = (): void => {
        ctx.moveTo(-13, 0)
        ctx.lineTo(-5, 0)
        ctx.moveTo(5, 0)
        ctx.lineTo(13, 0)
        if (along) return
        ctx.moveTo(0, -13)
        ctx.lineTo(0, -5)
        ctx.moveTo(0, 5)
        ctx.lineTo(0, 13)
      }
      strokedOnInk(ctx, dashes, 1.8)
    },
  })
  return [sight, ...tag({ x: p.x + 9, y: p.y + 24 }, text)]
}

/** The hand that keys move: four arms about an open middle, closed while it presses. */
export const keyHand = (p: Vec, pressed: boolean): Konva.Shape =>
  new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      const arms = (): void => {
        for (const [x, y] of [
          [1, 0],
          [0, 1],
          [-1, 0],
          [0, -1],
        ] as const) {
          ctx.moveTo(x * (pressed ? 2 : 5), y * (pressed ? 2 : 5))
          ctx.lineTo(x * 15, y * 15)
        }
      }
      strokedOnInk(ctx, arms, 2)
    },
  })
