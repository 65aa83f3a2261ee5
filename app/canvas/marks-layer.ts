import Konva from 'konva'
import type { Vec } from '#core/geometry/point'
import { box, brush, cornersBetween, frame, keyHand, snapped, tag, turner } from './guide-marks'
import { contacts, findings, hairs, light } from './rule-marks'
import { formsInLight, hatched } from './form-marks'
import { belly, closer, handle, node, openEnd } from './path-marks'
import { jaws, placeMark, taper, tip } from './weight-marks'
import type { Place } from './mark-look'
import { AMBER, MUTE, PLUM, tracePath } from './mark-look'
import { bridges, region } from './region-marks'
import { halo } from './halo-mark'
import { joint, pieces } from './piece-marks'
import type { Mark, MarkRef } from './marks'
import type { Viewport } from './viewport'
import { matrixOf } from './viewport'

// Marks are drawn when told, in the frame of what they belong to; by itself Konva would draw them once more in the next.
Konva.autoDrawEnabled = false

const HERE: readonly Vec[] = [{ x: 0, y: 0 }]
/** What a finger touches: with the reach of the marks themselves, a target of 24 screen px. */
const FINGER: readonly Vec[] = [
  ...HERE,
  ...Array.from({ length: 8 }, (_, i) => ({ x: 4 * Math.cos((i * Math.PI) / 4), y: 4 * Math.sin((i * Math.PI) / 4) })),
]

/** Draws marks with Konva, all of them anew when they change: there are few. */
export class MarksLayer {
  private readonly stage: Konva.Stage
  private readonly layer = new Konva.Layer()
  /** The hit canvas is drawn only once someone asks for the mark at a place: no drag does. */
  private hitsAreStale = true

  constructor(container: HTMLDivElement) {
    this.stage = new Konva.Stage({ container, width: 1, height: 1 })
    this.stage.add(this.layer)
  }

  resize(width: number, height: number): void {
    this.stage.size({ width, height })
    this.draw()
  }

  render(marks: readonly Mark[], viewport: Viewport): void {
    this.layer.destroyChildren()
    const [a, b, c, d, e, f] = matrixOf(viewport)
    const place: Place = Object.assign((p: Vec) => ({ x: a * p.x + c * p.y + e, y: b * p.x + d * p.y + f }), {
      step: (s: Vec) => ({ x: a * s.x + c * s.y, y: b * s.x + d * s.y }),
    })
    for (const mark of marks) for (const shape of shapesOf(mark, place)) this.layer.add(shape)
    this.draw()
  }

  /** The mark under a point of the screen, if one wants the hand; a finger is `broad` and takes what lies close by as well. */
  at(p: Vec, broad = false): MarkRef | null {
    if (this.hitsAreStale) this.layer.drawHit()
    this.hitsAreStale = false
    for (const d of broad ? FINGER : HERE) {
      const mark = this.stage.getIntersection({ x: p.x + d.x, y: p.y + d.y })?.getAttr('mark') as MarkRef | undefined
      if (mark) return mark
    }
    return null
  }

  destroy(): void {
    this.stage.destroy()
  }

  private draw(): void {
    this.layer.drawScene()
    this.hitsAreStale = true
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
      return [
        ...frame(mark.corners.map(place)),
        ...(mark.turner ? [turner(place(mark.turner), place(mark.corners[0]), place(mark.corners[1]))] : []),
      ]
    case 'closer':
      return [closer(place(mark.at), mark.ref)]
    case 'brush': {
      const angle = ((mark.nib?.angle ?? 0) * Math.PI) / 180
      // The long way of the nib, as the page lies on the screen.
      const along = place.step({ x: mark.width * Math.cos(angle), y: mark.width * Math.sin(angle) })
      const turn = (Math.atan2(along.y, along.x) * 180) / Math.PI
      return [brush(place(mark.at), Math.hypot(along.x, along.y), mark.nib ?? null, turn)]
    }
    case 'snap':
      return snapped(place(mark.at), mark.along && place.step(mark.along), mark.text)
    case 'tip':
      return [tip(mark, place(mark.at), place.step(mark.outward))]
    case 'taper':
      return [taper(mark, place(mark.at), place.step(mark.across))]
    case 'place':
      return [placeMark(place(mark.at), place.step(mark.across))]
    case 'contacts':
      return [contacts(mark, place)]
    case 'light':
      return [light(place(mark.at), mark.held)]
    case 'hairs':
      return [hairs(mark, place)]
    case 'pieces':
      return [pieces(mark, place)]
    case 'region':
      return [region(mark, place)]
    case 'forms':
      return [formsInLight(mark, place)]
    case 'hatched':
      return mark.of.length ? [hatched(mark, place)] : []
    case 'halo':
      return mark.strays.length ? [halo(mark, place)] : []
    case 'bridges':
      return mark.paths.length ? [bridges(mark, place)] : []
    case 'joint':
      return [joint(mark, place(mark.at))]
    case 'findings':
      return [findings(mark, place)]
    case 'hand':
      return [keyHand(place(mark.at), mark.pressed)]
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
      for (const path of mark.paths) tracePath(ctx, path, place)
      ctx.setAttr('strokeStyle', { plum: PLUM, mute: MUTE, next: PLUM, strong: PLUM, before: AMBER }[mark.tone])
      ctx.setAttr('lineWidth', { plum: 1.25, mute: 1, next: 1, strong: 3, before: 1 }[mark.tone])
      ctx.setLineDash(mark.tone === 'next' ? [5, 4] : [])
      ctx.stroke()
    },
  })
}
