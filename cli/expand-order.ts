import type { FindingKind } from '../core/proof/finding'
import type { Leaving } from '#core/ink/fills/knockout'
import type { Speck, SpeckLimits } from '../core/shapes/specks'

/** How files are expanded. */
export interface ExpandSettings {
  /** px; undefined for what suits the page. */
  tolerance: number | undefined
  union: boolean
  /** How shapes leave; it unites them, too. */
  leaving: Leaving
  /** Ends keep within what they meet, whatever the file says. */
  tuck: boolean
  simplify: number
  /** What is dropped: below this area, px squared, or this mean width, px. */
  limits: SpeckLimits
  /** Proof looks at what comes in. */
  findings: boolean
}

/** What became of a file. */
export interface FileReport {
  file: string
  strokes: number
  contours: number
  nodes: number
  milliseconds: number
  dropped: Speck[]
  /** What Proof finds in the file as it came, by kind. */
  findings: Partial<Record<FindingKind, number>>
  warnings: string[]
  error?: string
}

/** Where a file is, where what becomes of it goes, and how. */
export interface ExpandOrder {
  file: string
  target: string
  settings: ExpandSettings
}
