import type { CrestKind } from '#core/sketch/crests'
import type { CornerStyle, LitFill, Taper, TuckChoice } from '#core/model/model'
import type { Bend } from '#core/geometry/bow'
import type { FigureShape } from '#core/editing/figures'
import type { SnapKind } from '#core/geometry/snap'
import { LENGTH, LIMIT } from '#core/ink/ends/corner-finish'
import type { KeptPalette } from '#core/formats/palettes/palettes'
import type { DeliverySettings, NamedDelivery } from '#core/formats/delivery/settings'
import { FIRST_DELIVERIES, PLAIN_DELIVERY } from '#core/formats/delivery/settings'
import type { WeightPart } from '#core/weight/copy-weight'
import type { NamedNib } from '#core/weight/nibs'
import { NIBS } from '#core/weight/nibs'
import type { Gather } from './gather'

/** A pressure curve: pressure between `least` and `most` raised to the exponent. */
interface Response {
  exponent: number
  least: number
  most: number
}

/** Choices that stay with the person, across drawings. */
export interface Preferences {
  /** Size of the next line, px. */
  size: number
  /** Id of the shelf profile of the next line. */
  profile: string
  /** How the ends of the next line run out. */
  tapers: Record<'start' | 'end', Taper | null>
  /** Steadiness of freehand lines, 0..1. */
  steadiness: number
  /** Whether a pen's pressure becomes the line's profile. */
  pressure: boolean
  /** Whether near-straight runs become straight and turns corners. */
  squareUp: boolean
  /** How pressure counts: the curve's exponent, and the pressures between which it runs, 0..1. */
  response: Response
  /** By what share of its size a line thins at the least pressure, 0..1. */
  variation: number
  /** Whether the speed of the hand makes the width where there is no pressure. */
  fromSpeed: boolean
  /** Random variation of the width, 0..1. */
  unevenness: number
  /** How the pen's clicked points join: corners or as dragged, smoothly by themselves, or always straight. */
  penJoins: 'free' | 'smooth' | 'straight'
  /** How far a new width stop changes the line on either side, as a share of its length; 0 up to the next stops. */
  swellReach: number
  /** Whether a bow goes on smoothly from the one before. */
  bowsJoin: boolean
  /** A freehand stroke that comes back this near to its start is closed, screen px; 0: never. */
  closesWithin: number
  /** Whether a bow is a part of a circle or like a rod that is bent. */
  bend: Bend
  /** The figure that is drawn next. */
  figure: FigureShape
  /** Width of the blotting brush and of the scraper, px, and whether a blot becomes one with the shapes that it touches. */
  blotSize: number
  scrapeSize: number
  blotMerges: boolean
  /** The practice pen's trace, and whether it plays faster than it was drawn. */
  practice: { trace: string; fast: boolean }
  /** Named nibs, from fine to bold, and the one in hand. */
  nibs: NamedNib[]
  /** Roundness and angle as the hand has set them; null: those of the nib. */
  point: { roundness: number; angle: number } | null
  nib: string
  /** How a drag over paper chooses. */
  gather: Gather
  /** What points are drawn to while lines are laid and nodes are moved. */
  snaps: Record<SnapKind, boolean>
  /** Spacing of the grid, px. */
  gridSize: number
  /** A drag changes both sides of a width; apart, only the side it takes hold of. */
  sidesLinked: boolean
  /** Whether the weight graph measures in px, or in shares of the length and the size. */
  graphIn: 'px' | 'share'
  /** Scaling what is chosen scales its weights too. */
  scaleWeights: boolean
  /** By contact: reach and overshoot in px, strength 0..1, taper in % of the line, and whether pinned lines are weighed too. */
  contact: { reach: number; overshoot: number; strength: number; taper: number; pinned: boolean }
  /** Mirror match: the side whose lines give their weight, and how far apart a pair lies, px. */
  match: { from: 'left' | 'right'; reach: number }
  /** Whether lines are mirrored at an axis or repeated about a point, so many times. */
  copies: { way: 'mirror' | 'repeat'; times: number }
  /** How wide a push is, px of the page, and how strong, 0..1. */
  push: { radius: number; strength: number }
  /** What of the copied weight is painted on. */
  sweepPart: WeightPart
  /** How a click finishes a corner, and an end that meets a line. */
  corner: { style: CornerStyle; behind: 0 | 1; limit: number; length: number }
  endChoice: TuckChoice | 'over'
  /** At a fence, pieces up to so many widths of their line are trimmed. */
  fenceWidths: number
  /**
   * Pouring: gaps up to so many mm are bridged, fills run so far beneath the ink, mm (below 0: to its middle), regions
   * smaller than so many mm squared are none, loose ink in a region is cleared away; the tone of a shade, and shade from the light.
   */
  fill: { gap: number; under: number; least: number; clear: boolean; tone: number; lit: LitFill }
  /** How strongly lines are drawn to the pencil beneath them, 0..1, within so many screen px, and to what of a bundle of strokes. */
  cling: { strength: number; reach: number; to: CrestKind }
  /** How shade is laid: drawn round, or painted with a brush of a width, px. */
  shade: { by: 'round' | 'brush'; width: number }
  /** Proposals: how plain a line must be to be shown, how far apart strokes may be that are one, how faint a line may be, and whose weight one gets that is taken. */
  /** `mergeBy`: how far apart strokes may lie that are one line is found from the picture, or set by hand. */
  proposals: { from: number; merge: number; mergeBy: 'itself' | 'hand'; faint: number; weight: 'next' | 'pencil' }
  /** Palettes that are kept apart from any drawing. */
  palettes: KeptPalette[]
  /** By light: strength and softness 0..1, and where it was last, as shares of the page. */
  light: { strength: number; softness: number; x: number; y: number }
  /** How files leave, and settings that were given a name. */
  delivery: DeliverySettings
  deliveries: NamedDelivery[]
}

export const DEFAULTS: Preferences = {
  size: 6,
  swellReach: 0.2,
  profile: 'even',
  tapers: { start: null, end: null },
  steadiness: 0.4,
  pressure: true,
  squareUp: false,
  response: { exponent: 1, least: 0, most: 1 },
  variation: 0.6,
  fromSpeed: false,
  unevenness: 0,
  penJoins: 'free',
  bowsJoin: true,
  closesWithin: 14,
  bend: 'arc',
  figure: { kind: 'ellipse', sides: 5, depth: 0.5, turns: 3 },
  blotSize: 24,
  scrapeSize: 18,
  blotMerges: true,
  practice: { trace: 'radish-leaf', fast: false },
  nibs: NIBS.map((n) => ({ ...n })),
  point: null,
  nib: 'middle',
  gather: 'box',
  snaps: {
    end: true,
    node: true,
    crossing: true,
    middle: false,
    tangent: false,
    line: true,
    align: false,
    grid: false,
  },
  gridSize: 24,
  sidesLinked: true,
  graphIn: 'px',
  scaleWeights: true,
  contact: { reach: 1.5, overshoot: 8, strength: 1, taper: 40, pinned: false },
  match: { from: 'left', reach: 12 },
  copies: { way: 'mirror', times: 6 },
  push: { radius: 60, strength: 0.8 },
  sweepPart: 'all',
  corner: { style: 'pointed', behind: 0, limit: LIMIT, length: LENGTH },
  endChoice: 'in',
  fenceWidths: 3,
  fill: {
    gap: 0.3,
    under: -1,
    least: 0.3,
    clear: false,
    tone: -0.3,
    lit: { depth: 0.35, softness: 0.3, shade: 0.25, light: 0 },
  },
  cling: { strength: 0, reach: 12, to: 'middle' },
  shade: { by: 'round', width: 30 },
  palettes: [],
  proposals: { from: 0.3, merge: 3.6, mergeBy: 'itself', faint: 0.5, weight: 'next' },
  light: { strength: 0.6, softness: 0.6, x: 0.12, y: 0.08 },
  delivery: structuredClone(PLAIN_DELIVERY),
  deliveries: FIRST_DELIVERIES.map((d) => structuredClone(d)),
}

/** How the hand draws, as a trace keeps it. */
export const handOf = ({
  steadiness,
  squareUp,
  response,
  variation,
  fromSpeed,
  unevenness,
}: Readonly<Preferences>) => ({
  steadiness,
  squared: squareUp,
  response: response.exponent,
  least: response.least,
  most: response.most,
  variation,
  fromSpeed,
  unevenness,
})
