import type { Vec } from '#core/geometry/point'
import type { Mark } from './marks'

/** A place on a mark by which a hand takes it, and what is there, in words. */
export interface Grip {
  /** page px */
  at: Vec
  /** How far it lies off that point, screen px, and which way on the page. */
  off?: { by: number; way: Vec }
  what: string
}

const WHICH = { first: 'start', last: 'end' }

/** The places by which a mark is taken; none for marks that only show something. */
export function gripsOf(mark: Mark): Grip[] {
  switch (mark.kind) {
    case 'node':
      return mark.ref ? [{ at: mark.at, what: `${mark.joint} node` }] : []
    case 'handle':
      return mark.ref ? [{ at: mark.at, what: 'handle' }] : []
    case 'end':
      return mark.ref ? [{ at: mark.at, what: 'end of a line' }] : []
    case 'closer':
      return [{ at: mark.at, what: 'first node, to close the line' }]
    case 'jaws':
      return [
        { at: mark.centre, what: 'width stop' },
        { at: mark.left, what: 'left jaw' },
        { at: mark.right, what: 'right jaw' },
      ]
    case 'tip':
      return [{ at: mark.at, off: { by: 14, way: mark.outward }, what: `${WHICH[mark.end]} without a taper` }]
    case 'taper':
      return [{ at: mark.at, off: { by: 21, way: mark.across }, what: `taper at the ${WHICH[mark.end]}` }]
    case 'belly':
      return [{ at: mark.at, what: 'middle of a bow' }]
    case 'light':
      return [{ at: mark.at, what: 'light' }]
    case 'contacts':
      return mark.ends.map((e) => ({ at: e.at, what: `${e.found} end` }))
    case 'frame':
      return [
        ...mark.corners.map((at) => ({ at, what: 'corner of the frame' })),
        ...(mark.turner ? [{ at: mark.turner, what: 'turner' }] : []),
      ]
    default:
      return []
  }
}
