import type { PathNode } from '../geometry/path'
import type { Vec } from '../geometry/point'

/**
 * What an edit of an outline hangs on: a line, the place along it (a share 0..1 of its length), how far ahead of there and to its
 * left it was made, as multiples of the half-width there; which way the line went there, rad, and that half-width, px, when it was.
 */
export interface Hanging {
  line: string
  at: number
  ahead: number
  left: number
  turn: number
  half: number
  /** The node as it was before it was edited, between those before and after it on its outline. */
  was?: [before: PathNode, node: PathNode, after: PathNode]
}

/**
 * An edit of one node of a derived outline: the node that lay at `at` becomes `to`, goes (null), or is put in there; or the
 * outline through it, which nodes were dragged across, is cut where it crosses itself or another of its shape. It is put on
 * anew whenever the outlines are made again: where the line that it hangs on has taken it, as long as the outline still runs there.
 */
export interface Retouch {
  id: string
  kind: 'retouch'
  at: Vec
  to: PathNode | null | 'add' | 'cut'
  by?: Hanging
}

/**
 * Where a point lies by a line: at a share 0..1 of its length, and so far ahead of there and to its left, as multiples of
 * half its size.
 */
export interface PlaceBy {
  at: number
  ahead: number
  left: number
}

/**
 * A piece of a line's ink that is taken away: the one about `place` among those into which other outlines divide the ink,
 * as long as the same lines and solids cover it (`over`) and bound it, before it (-1), after it (1) or on both sides of it (0) along the line.
 * Without either it is all of the line's ink.
 */
export interface Trim {
  id: string
  kind: 'trim'
  line: string
  place: PlaceBy
  over: string[]
  bounds: { by: string; side: -1 | 0 | 1 }[]
}

/**
 * How two ends that come together are finished: as their caps are, each within the other; one behind the other; the outer
 * edges extended till they meet; rounded off; or each going on beyond the other.
 */
export type CornerStyle = 'caps' | 'tucked' | 'pointed' | 'rounded' | 'crossing'

/** What the person decided about a corner. */
export interface Corner {
  id: string
  kind: 'corner'
  ends: [{ line: string; end: 'first' | 'last' }, { line: string; end: 'first' | 'last' }]
  style: CornerStyle
  /** Tucked: which of the two ends lies behind; the first when absent. */
  behind?: 0 | 1
  /** Pointed: how far the point may lie from the corner, in half-widths. */
  limit?: number
  /** Crossing: by how many of its sizes each goes on. */
  length?: number
}

/** An island that is simplified by a tolerance of its own: the one that the ink of a line belongs to at a place by it. */
export interface Fineness {
  id: string
  kind: 'fineness'
  line: string
  place: PlaceBy
  /** px of the usual page; 0 leaves the island as expanded. */
  simplify: number
}

/**
 * Of two forms that overlap, which lies in front; each is known by the lines that bound it. What lies behind is hidden where it
 * lies within the other; where `both` show, nothing is.
 */
export interface Front {
  id: string
  kind: 'front'
  front: string[]
  back: string[]
  both?: true
}

/**
 * How the bridge runs that closes an open form, which is known by the lines that bound it: the middle of it lies so far from the
 * middle between its ends, as multiples of what lies between them: along, from the end that comes first by its line's id, and to
 * the left of that way.
 */
export interface FormBridge {
  id: string
  kind: 'bridge'
  lines: string[]
  along: number
  across: number
}

/**
 * What a form throws on what lies behind it, along its edge and away from the light: from `gap` mm off the edge on so many mm
 * wide where the edge faces straight away, and thinner as it turns, the faster the larger `taper`, 0..1.
 */
export interface Cast {
  id: string
  kind: 'cast'
  front: string[]
  gap: number
  width: number
  taper: number
  /** Id of an ink; that of the form when absent. */
  ink?: string
}

/**
 * Lines that are drawn once and stand on the page once more, mirrored at the way from one point to another, px. Those that end
 * on it are joined across it, smoothly where they come to it nearly straight across, else with a corner; those named do otherwise.
 */
export interface Mirror {
  id: string
  kind: 'mirror'
  lines: string[]
  from: Vec
  to: Vec
  otherwise?: string[]
  /** What is drawn from now on goes along. */
  fresh?: true
}

/** Lines that are drawn once and stand on the page so many times, turned about a point, px. */
export interface Repeat {
  id: string
  kind: 'repeat'
  lines: string[]
  about: Vec
  /** 2..24, the lines themselves among them. */
  times: number
  /** Which of them were set free, 1 the first after the lines themselves. */
  left?: number[]
  /** What is drawn from now on goes along. */
  fresh?: true
}

/** A finding of Proof that is meant to be so. */
interface Leave {
  id: string
  kind: 'leave'
  key: string
}

/** What a hand changed of the derived shapes: put on whenever they are made, in this order. */
export type Amendment = Retouch | Trim | Corner | Fineness | Front | FormBridge | Cast | Mirror | Repeat | Leave
