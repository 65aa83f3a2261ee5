import type { Page } from '../../model/model'
import { orElse } from '../../arrangement/as-far-as-possible'
import type { Loop } from '../../arrangement/loop'
import { loopOf, polyline, whole } from '../../arrangement/loop'
import { resolveGroups } from '../../arrangement/resolve'
import { boxOfCubics, grown, uniteBoxes } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { pointAt, reverse, tangentAt } from '../../geometry/cubic'
import type { Vec } from '../../geometry/point'
import { along, leftNormal } from '../../geometry/point'
import { windingOf } from '../../geometry/winding-at'
import { islandsOf } from '../../shapes/islands'
import type { Bridge } from './bridges'
import { Bridges } from './bridges'
import type { Face, Ground } from './faces'
import { FaceIndex } from './faces'
import type { Part } from '../stack/stack'
import { isSameList } from '../../same-list'

/** The regions of paper between the ink, gaps bridged. */
export interface Paper {
  index: FaceIndex
  bridges: readonly Bridge[]
}

/** A bridge is so many tolerances wide on either side: enough to be seen by the arrangement. */
const WIDE = 1
/** Beyond its ends it goes on by so many times its half-width. */
const OVER = 6
/** So far round all ink and the page open ground is looked at, px. */
const MARGIN = 64

/** A face, the bridges in it, and the faces into which they part it. */
interface Split {
  face: Face
  bridges: readonly Bridge[]
  faces: Face[]
}

/** The regions of a drawing, with gaps of up to `reach` px bridged: those of a face of paper are kept as long as it and its bridges are the same. */
export class Regions {
  private readonly bridges: Bridges | null
  private readonly known = new WeakMap<Face, Split>()
  /** Open ground is a new object each time. */
  private open: Split | null = null

  /** @param reach px; 0 bridges nothing */
  constructor(
    private readonly tolerance: number,
    reach: number,
  ) {
    this.bridges = reach > 0 ? new Bridges(reach) : null
  }

  /**
   * @param ground the faces that united ink of all parts leaves
   * @param index of these faces
   */
  of(
    { faces, isHollow }: Ground,
    index: FaceIndex,
    parts: readonly Part[],
    page: Pick<Page, 'width' | 'height'>,
  ): Paper {
    const bridges = this.bridges?.of(parts) ?? []
    if (!bridges.length) return { index, bridges }
    const within = new Map<Face, Bridge[]>()
    for (const bridge of bridges) {
      const face = this.faceOf(bridge, index)
      if (!face) continue
      const all = within.get(face)
      if (all) all.push(bridge)
      else within.set(face, [bridge])
    }
    return {
      index: new FaceIndex(faces.flatMap((f) => (within.has(f) ? this.split(f, within.get(f)!, page, isHollow) : [f]))),
      bridges,
    }
  }

  /** The face that a bridge crosses: what is neither on ink nor in a bounded face is open ground. */
  private faceOf(bridge: Bridge, index: FaceIndex): Face | null {
    for (const t of [0.5, 0.35, 0.65, 0.2, 0.8]) {
      const p = pointAt(bridge.curve, t)
      const face = index.at(p)
      if (face) return face
      if (!this.bridges!.isOnInk(bridge, p)) return index.open
    }
    return null
  }

  private split(
    face: Face,
    bridges: readonly Bridge[],
    page: Pick<Page, 'width' | 'height'>,
    isHollow: Ground['isHollow'],
  ): Face[] {
    const was = face.box
      ? this.known.get(face)
      : this.open && isSameList(this.open.face.contours, face.contours)
        ? this.open
        : null
    if (was && isSameList(was.bridges, bridges) && isSameList(was.face.hollow, face.hollow)) return was.faces
    const faces = this.parted(face, bridges, page, isHollow)
    if (face.box) this.known.set(face, { face, bridges, faces })
    else this.open = { face, bridges, faces }
    return faces
  }

  private parted(
    face: Face,
    bridges: readonly Bridge[],
    page: Pick<Page, 'width' | 'height'>,
    isHollow: Ground['isHollow'],
  ): Face[] {
    const bars = bridges.map((b) => barOf(b.curve, WIDE * this.tolerance))
    const loops = face.contours.map(loopOf)
    let corner: Vec | null = null
    if (!face.box) {
      const box = grown(
        uniteBoxes({ minX: 0, minY: 0, maxX: page.width, maxY: page.height }, boxOfCubics(face.contours.flat())),
        MARGIN,
      )
      corner = { x: box.minX + 1, y: box.minY + 1 }
      const [a, b] = [
        { x: box.maxX, y: box.minY },
        { x: box.minX, y: box.maxY },
      ]
      loops.push(
        polyline({ x: box.minX, y: box.minY }, a, { x: box.maxX, y: box.maxY }, b, { x: box.minX, y: box.minY }),
      )
    }
    const parted = (): Cubic[][] | null =>
      resolveGroups([loops, bars], this.tolerance, ({ winding }) => winding[0] !== 0 && winding[1] === 0)
    // Paper that cannot be parted stays in one.
    const contours = orElse(parted, null)
    if (!contours) return [face]
    return islandsOf(contours).map((places): Face => {
      const own = places.map((i) => contours[i]!)
      const isOpen = !!corner && windingOf(own[0]!, corner) !== 0
      const hollow = own.map((c, i) => i > 0 && isHollow(c))
      return isOpen
        ? { contours: own.slice(1), hollow: hollow.slice(1), box: null }
        : { contours: own, hollow, box: boxOfCubics(own[0]!) }
    })
  }
}

/** A curve as a thin closed bar that goes on a little at either end, into the ink: where that runs out to nothing, it would only be touched. */
function barOf(c: Cubic, half: number): Loop {
  const [into, out] = [tangentAt(c, 0) ?? { x: 1, y: 0 }, tangentAt(c, 1) ?? { x: 1, y: 0 }]
  const [a, b] = [leftNormal(into), leftNormal(out)]
  const side = (k: number): Cubic => ({
    p0: along(c.p0, a, k),
    p1: along(c.p1, a, k),
    p2: along(c.p2, b, k),
    p3: along(c.p3, b, k),
  })
  const [left, right] = [side(half), reverse(side(-half))]
  const on = OVER * half
  return [
    whole(left),
    ...polyline(left.p3, along(left.p3, out, on), along(right.p0, out, on), right.p0),
    whole(right),
    ...polyline(right.p3, along(right.p3, into, -on), along(left.p0, into, -on), left.p0),
  ]
}
