import type { Path } from '../geometry/path'

/** `at` is 0..1 of arc length; `left` and `right` are half-widths as multiples of size / 2, looking along the line. */
export interface WidthStop {
  at: number
  left: number
  right: number
  sharp?: boolean
}

/** What is done with an end: it tapers, it is as full as what it tucks under allows, or it stays as it is. */
export const VERDICTS = ['taper', 'full', 'leave'] as const
export type Verdict = (typeof VERDICTS)[number]

export type TaperEase = 'straight' | 'round' | 'needle'

/** `tip` is 0..1 of the width that the profile gives at the end. */
export interface Taper {
  length: number
  unit: 'px' | '%'
  tip: number
  ease: TaperEase
}

/** Ellipse axes as multiples of size; angle in degrees. */
export interface Nib {
  width: number
  height: number
  angle: number
}

export interface Weight {
  size: number
  stops: WidthStop[]
  start: Taper | null
  end: Taper | null
  nib: Nib | null
  /** Set by hand: rules leave it alone unless asked. */
  pinned: boolean
  /** The profile without the light, where the stops are those under a light. */
  unlit?: WidthStop[]
}

export type Cap = 'butt' | 'round' | 'square'
export type Join = 'miter' | 'round' | 'bevel'
export type Align = 'centre' | 'left' | 'right'

/** An unevenness of both edges: how far they swing and how long a swing is, px; the same seed gives the same edge. */
export interface Rough {
  amount: number
  grain: number
  seed: number
}

export interface Finish {
  startCap: Cap
  endCap: Cap
  join: Join
  miterLimit: number
  align: Align
  dash: number[]
  rough?: Rough
}

export interface TraceSample {
  x: number
  y: number
  /** Milliseconds from the first sample. */
  t: number
  /** 0..1 */
  pressure: number
  tiltX?: number
  tiltY?: number
}

/** How a trace becomes a line: its path by steadiness and squaring up, its width by pressure. All of it can be changed later. */
export interface PenTrace {
  samples: TraceSample[]
  device: 'pen' | 'mouse' | 'touch' | 'practice'
  /** 0 as drawn .. 1 very steady. */
  steadiness: number
  /** Exponent of the pressure curve; 1 is even. */
  response: number
  /** Pressure 0..1 up to which the line is thinnest, and from which it is as wide as its size; 0 and 1 when absent. */
  least?: number
  most?: number
  /** By what share of its size the line thins where it is thinnest, 0..1. */
  variation?: number
  /** Width from the speed of the hand, where the device has no pressure: the slower, the wider. */
  fromSpeed?: boolean
  /** Gentle random variation of the width, as a share of the size, 0..1. */
  unevenness?: number
  /** How far the profile may lie from the widths that pressure asks for, as a share of the size. */
  widthTolerance?: number
  /** Near-straight runs are straight, and turns are corners. */
  squared?: boolean
  /** The hand came back to where it began: the line is closed. */
  loop?: boolean
  /** Screen px a page px when it was drawn, 1 when absent: what was drawn from nearer has finer detail. */
  zoom?: number
}

/**
 * A pen trace whose samples are kept apart, once, by the hash of their JSON; where they lie on the page, which part of
 * them it is (shares 0..1 of their length) and whether they go the other way.
 */
export interface KeptTrace extends Omit<PenTrace, 'samples'> {
  /** sha-256, hexadecimal */
  of: string
  /** How many samples. */
  count: number
  /** From the samples to the page, as in SVG. */
  at: [number, number, number, number, number, number]
  part?: [from: number, to: number]
  reversed?: true
}

/**
 * A hidden stretch of a line, as fractions 0..1 of its arc length; on a closed line, from > to goes round by way of its
 * first node. A bound at a crossing follows that crossing when either line is edited.
 */
export interface Snip {
  from: number
  to: number
  /** Ids of the lines whose crossings are the bounds; the line's own where it crosses itself; none at its ends. */
  fromBy?: string
  toBy?: string
  /** A crossing that bounds it is gone: it hides nothing until the lines cross again. */
  idle?: boolean
}

/**
 * An end shows past what it comes to, keeps within it even where it goes past it, or lies beneath it: then it does not
 * show over it either.
 */
export type TuckChoice = 'out' | 'in' | 'under'

export interface Line {
  id: string
  path: Path
  weight: Weight
  finish: Finish
  /** Id of an ink. */
  ink: string
  /** With its samples where it is fresh or comes from a file; a drawing that is stored holds kept ones. */
  trace: PenTrace | KeptTrace | null
  snips: Snip[]
  cover: boolean
  /** What the person decided about its ends; an end without such keeps within what it meets. */
  tuck?: Partial<Record<'first' | 'last', TuckChoice>>
  /** What the person decided that its ends get by what they touch; an end without such is as the rule proposes. */
  contact?: Partial<Record<'first' | 'last', Verdict>>
  /** Ids of lines over which its ends lie: they keep within others that they meet, not within these. */
  over?: Partial<Record<'first' | 'last', string[]>>
  /** Closed contours in which its ink is scraped away. */
  scrapes?: Path[]
  /** Which side is the outside of what it bounds, where the person said so. */
  outside?: 'left' | 'right'
  /** Lines with the same word here unite with each other, and with nothing else: a figure in front of another. */
  apart?: string
  /** It has a darker (above 0) or lighter tone of the fill that it bounds, -1..1; 0 keeps its own ink whatever the drawing's lines have. */
  tint?: number
  /** What a person calls it. */
  name?: string
  /** It alone is not seen and leaves no ink, or no hand may take it, whatever its layer is. */
  hidden?: true
  locked?: true
}
