import * as yup from 'yup'
import type { Leaving } from '../../ink/fills/knockout'
import { LEAVINGS } from '../../ink/fills/knockout'

/** What can leave: one kind of file, or all kinds in one archive. */
const DELIVERY_KINDS = ['outlines', 'pdf', 'lines', 'picture', 'traces', 'all'] as const
export type DeliveryKind = (typeof DELIVERY_KINDS)[number]

/** How shapes stand in an SVG: each by itself, or in groups by the layer or the ink that they belong to. */
const GROUPINGS = ['flat', 'layer', 'ink'] as const
type Grouping = (typeof GROUPINGS)[number]

/** How files leave; lengths in the units that are named. */
export interface DeliverySettings {
  kind: DeliveryKind
  /** How shapes lie on each other. */
  leaving: Leaving
  /** The colour of the page beneath all ink, #rrggbb; null leaves it clear. Not for PDF. */
  ground: string | null
  svg: {
    groups: Grouping
    /** What coordinates are told in. */
    unit: 'px' | 'mm'
    /** Decimals of coordinates, 0..6; null for as many as can be seen. */
    digits: number | null
  }
  /** The bleed in mm, 0..50. */
  pdf: { bleed: number; marks: boolean; separate: boolean; colours: 'screen' | 'print' }
  picture: {
    /** Whether `dpi` counts or `side`, the longer side in px. */
    by: 'dpi' | 'px'
    dpi: number
    side: number
    tones: 'colour' | 'one-bit'
  }
}

/** Largest side of a picture, px. */
export const LARGEST_PICTURE = 20_000

export const PLAIN_DELIVERY: DeliverySettings = {
  kind: 'outlines',
  leaving: 'stacked',
  ground: null,
  svg: { groups: 'flat', unit: 'px', digits: null },
  pdf: { bleed: 0, marks: false, separate: false, colours: 'screen' },
  picture: { by: 'dpi', dpi: 300, side: 2000, tones: 'colour' },
}

export interface NamedDelivery {
  name: string
  settings: DeliverySettings
}

/** Settings that are there from the start. */
export const FIRST_DELIVERIES: readonly NamedDelivery[] = [
  {
    name: 'print',
    settings: { ...PLAIN_DELIVERY, kind: 'pdf', pdf: { bleed: 3, marks: true, separate: false, colours: 'print' } },
  },
  {
    name: 'shirt',
    settings: { ...PLAIN_DELIVERY, kind: 'pdf', pdf: { bleed: 0, marks: true, separate: true, colours: 'print' } },
  },
  { name: 'cutter', settings: { ...PLAIN_DELIVERY, leaving: 'one', svg: { groups: 'flat', unit: 'mm', digits: 3 } } },
]

const within = (least: number, most: number) => yup.number().strict().required().min(least).max(most)

/** Settings as they are sent. */
export const deliverySchema = yup
  .object({
    kind: yup.string().oneOf(DELIVERY_KINDS).required(),
    leaving: yup.string().oneOf(LEAVINGS).required(),
    ground: yup
      .string()
      .strict()
      .matches(/^#[0-9a-f]{6}$/i, 'the ground is no colour')
      .nullable()
      .defined(),
    svg: yup
      .object({
        groups: yup.string().oneOf(GROUPINGS).required(),
        unit: yup.string().oneOf(['px', 'mm']).required(),
        digits: within(0, 6).integer().nullable().defined(),
      })
      .required(),
    pdf: yup
      .object({
        bleed: within(0, 50),
        marks: yup.boolean().strict().required(),
        separate: yup.boolean().strict().required(),
        colours: yup.string().oneOf(['screen', 'print']).required(),
      })
      .required(),
    picture: yup
      .object({
        by: yup.string().oneOf(['dpi', 'px']).required(),
        dpi: within(10, 4800),
        side: within(1, LARGEST_PICTURE),
        tones: yup.string().oneOf(['colour', 'one-bit']).required(),
      })
      .required(),
  })
  .noUnknown()
