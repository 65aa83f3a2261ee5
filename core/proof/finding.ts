import type { Drawing, Fill, Line } from '../model/model'
import type { Vec } from '../geometry/point'
import type { Paper } from '../ink/regions/regions'
import type { Ends } from '../ink/ends/ends'
import type { Poured } from '../ink/fills/fill-stage'
import type { Failure } from '../ink/outlines/outlines'
import type { Stack } from '../ink/stack/stack'

/** What Proof looks for, in the order in which it is told. */
export const KINDS = [
  'failed',
  'blunt',
  'gap',
  'past',
  'poke',
  'thin',
  'contrast',
  'doubled',
  'hidden',
  'speck',
  'off',
  'stray',
  'sliver',
  'open',
  'lump',
  'notch',
  'waiting',
  'joined',
] as const
export type FindingKind = (typeof KINDS)[number]

/** What would cure a finding, as data: `mended` puts it on. */
export type Mend =
  | { do: 'taper'; line: string; end: 'first' | 'last' }
  | { do: 'meet'; line: string; end: 'first' | 'last'; to: Vec }
  /** As meet, with an end as wide as its line where it comes to. */
  | { do: 'close'; line: string; end: 'first' | 'last'; to: Vec }
  | { do: 'tuck'; line: string; end: 'first' | 'last' }
  | { do: 'widen'; line: string; to: number }
  | { do: 'even'; line: string; ratio: number }
  | { do: 'delete'; line: string }
  | { do: 'ink'; line: string; ink: string }
  | { do: 'forget'; amendment: string }
  | { do: 'unpour'; fill: string }
  | { do: 'pour'; fill: Fill }

/** Something to look at. */
export interface Finding {
  /** The same for the same thing, as long as it is there. */
  key: string
  kind: FindingKind
  /** Page px. */
  at: Vec
  /** Ids of the lines and solids that it is about. */
  items: string[]
  /** Null where only a hand can tell. */
  mend: Mend | null
}

/** How far things may go, mm at the final size, where nothing else is said. */
export interface ProofLimits {
  /** Ink thinner than this cannot be printed, mm. */
  thin: number
  /** An end that stops short of a line by no more was meant to meet it, mm. */
  gap: number
  /** Times that the thickest place of a line may be as thick as its thinnest. */
  contrast: number
  /** Ink smaller than this is a speck, mm squared. */
  speck: number
  /** Paper between ink that is narrower than this shows as a hair, mm. */
  sliver: number
  /** A region whose edge is open by no more was meant to close, mm. */
  open: number
}

export const LIMITS: ProofLimits = { thin: 0.2, gap: 1, contrast: 6, speck: 0.1, sliver: 0.12, open: 0.2 }

/** What the looks have to go by. */
export interface Proofed {
  drawing: Drawing
  stack: Stack
  /** What ends do, by line; what is hidden by what lies in front does nothing. */
  ends: Pick<Ends, 'of'>
  /** Items that have no ink, or none that is finished as it should be. */
  failed: readonly Failure[]
  /** Ids of amendments of the outlines that found no place there. */
  waits: ReadonlySet<string>
  /** Regions of paper as they are, and with gaps bridged that were meant to close. */
  paper: Paper
  bridged: Paper
  /** What became of the fills. */
  poured: readonly Poured[]
  /** Visible lines, bottom to top, as they are seen: what lies in front of them is snipped away, and those wholly behind are left out. */
  lines: readonly Line[]
  limits: ProofLimits
  /** Px of the page for a mm. */
  pxPerMm: number
}
