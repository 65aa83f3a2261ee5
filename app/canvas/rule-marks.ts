import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import type { Place } from './mark-look'
import { AMBER, lozengeAt, MUTE, PAPER, PLUM, strokedOnInk } from './mark-look'
import type { ContactMark, Mark } from './marks'

/** All ends of the lines as one shape: thousands may be looked at at once. */
export function contacts({ ends, reach, overshoot }: Extract<Mark, { kind: 'contacts' }>, place: Place): Konva.Shape {
  const per = Math.hypot(place.step({ x: 1, y: 0 }).x, place.step({ x: 1, y: 0 }).y)
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      if (reach !== null)
        rings(
          ctx,
          ends.map((e) => place(e.at)),
          reach * per,
        )
      for (const end of ends) {
        const p = place(end.at)
        const way = place.step(end.outward)
        if (end.over) overEnd(ctx, p, way, overshoot * per, reach === null ? 0 : reach * per)
        if (end.decided) byHand(ctx, p)
        if (end.found === 'meeting') dot(ctx, p, end)
        else chevron(ctx, p, Math.atan2(way.y, way.x), end)
      }
    },
  })
}

function rings(ctx: Konva.Context, at: readonly Vec[], radius: number): void {
  ctx.beginPath()
  for (const p of at) {
    ctx.moveTo(p.x + radius, p.y)
    ctx.arc(p.x, p.y, radius, 0, Math.PI * 2)
  }
  ctx.setAttr('strokeStyle', MUTE)
  ctx.setAttr('lineWidth', 0.8)
  ctx.stroke()
}

/** An end of which the person decided: a square about it. */
function byHand(ctx: Konva.Context, p: Vec): void {
  ctx.beginPath()
  ctx.rect(p.x - 9, p.y - 9, 18, 18)
  ctx.setAttr('strokeStyle', PLUM)
  ctx.setAttr('lineWidth', 1)
  ctx.stroke()
}

/** The end under the hand: how far back a crossing is looked for, and a halo. */
function overEnd(ctx: Konva.Context, p: Vec, way: Vec, back: number, ring: number): void {
  const k = Math.hypot(way.x, way.y) || 1
  ctx.beginPath()
  ctx.arc(p.x, p.y, Math.max(11, ring), 0, Math.PI * 2)
  ctx.setAttr('fillStyle', 'rgba(122, 43, 88, 0.16)')
  ctx.fill()
  ctx.beginPath()
  ctx.moveTo(p.x, p.y)
  ctx.lineTo(p.x - (way.x / k) * back, p.y - (way.y / k) * back)
  ctx.setAttr('strokeStyle', PLUM)
  ctx.setAttr('lineWidth', 1.4)
  ctx.stroke()
}

const colourOf = ({ verdict }: ContactMark): string => (verdict === 'leave' ? MUTE : PLUM)

/** A meeting end: a dot, filled where the end becomes full; one that tapers all the same has an open middle. */
function dot(ctx: Konva.Context, p: Vec, end: ContactMark): void {
  ctx.beginPath()
  ctx.arc(p.x, p.y, 4.4, 0, Math.PI * 2)
  ctx.setAttr('fillStyle', end.verdict === 'full' ? PLUM : PAPER)
  ctx.setAttr('strokeStyle', end.verdict === 'full' ? PAPER : colourOf(end))
  ctx.setAttr('lineWidth', 1.6)
  ctx.fill()
  ctx.stroke()
}

/** A free end: an open chevron that points outward, with a bar where it becomes full all the same; past a crossing it is doubled. */
function chevron(ctx: Konva.Context, p: Vec, angle: number, end: ContactMark): void {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const on = (x: number, y: number): [number, number] => [p.x + x * c - y * s, p.y + x * s + y * c]
  const shape = (): void => {
    for (const back of end.found === 'crossing' ? [0, -5] : [0]) {
      ctx.moveTo(...on(2 + back, -5.5))
      ctx.lineTo(...on(7.5 + back, 0))
      ctx.lineTo(...on(2 + back, 5.5))
    }
    if (end.verdict === 'full') {
      ctx.moveTo(...on(10.5, -5.5))
      ctx.lineTo(...on(10.5, 5.5))
    }
  }
  strokedOnInk(ctx, shape, 1.9, colourOf(end))
}

/** The light: a disc with rays. */
export function light(p: Vec, held: boolean): Konva.Shape {
  return new Konva.Shape({
    x: p.x,
    y: p.y,
    listening: false,
    sceneFunc: (ctx) => {
      const rays = (): void => {
        for (let i = 0; i < 8; i++) {
          const a = (i * Math.PI) / 4
          ctx.moveTo(Math.cos(a) * 11.5, Math.sin(a) * 11.5)
          ctx.lineTo(Math.cos(a) * 16, Math.sin(a) * 16)
        }
      }
      ctx.setAttr('lineCap', 'round')
      strokedOnInk(ctx, rays, 2)
      ctx.beginPath()
      ctx.arc(0, 0, 8, 0, Math.PI * 2)
      ctx.setAttr('fillStyle', held ? PLUM : PAPER)
      ctx.setAttr('lineWidth', 2)
      ctx.fill()
      ctx.stroke()
    },
  })
}

/** Hairs along a line on the side that is its outside. */
export function hairs({ at }: Extract<Mark, { kind: 'hairs' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      const all = (): void => {
        for (const h of at) {
          const p = place(h.at)
          const d = place.step(h.out)
          const k = Math.hypot(d.x, d.y) || 1
          ctx.moveTo(p.x + (d.x / k) * 5, p.y + (d.y / k) * 5)
          ctx.lineTo(p.x + (d.x / k) * 14, p.y + (d.y / k) * 14)
        }
      }
      strokedOnInk(ctx, all, 1.8)
    },
  })
}

/** Things to look at: amber lozenges, all of them as one shape; the one that is looked at has a ring. */
export function findings({ at, current }: Extract<Mark, { kind: 'findings' }>, place: Place): Konva.Shape {
  return new Konva.Shape({
    listening: false,
    sceneFunc: (ctx) => {
      ctx.beginPath()
      for (const p of at) lozengeAt(ctx, place(p), 5.5)
      ctx.setAttr('fillStyle', AMBER)
      ctx.setAttr('strokeStyle', PAPER)
      ctx.setAttr('lineWidth', 1.4)
      ctx.fill()
      ctx.stroke()
      if (!current) return
      const c = place(current)
      strokedOnInk(ctx, () => ctx.arc(c.x, c.y, 15, 0, Math.PI * 2), 1.6, AMBER)
    },
  })
}
