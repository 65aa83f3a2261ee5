import * as yup from 'yup'
import type { NamedDelivery } from '../delivery/settings'
import { deliverySchema, FIRST_DELIVERIES } from '../delivery/settings'
import type { KeptPalette } from '../palettes/palettes'
import { paletteSchema } from '../palettes/palettes'
import type { NamedNib } from '../../weight/nibs'
import { NIBS } from '../../weight/nibs'

/** A key of one's own: what it was at first, and what it is now. */
export interface OwnKey {
  was: string
  is: string
}

/** The lists that belong to a seat, besides its shelf of profiles. */
export interface BelongingLists {
  nibs: NamedNib[]
  palettes: KeptPalette[]
  deliveries: NamedDelivery[]
  keys: OwnKey[]
}

export type ListName = keyof BelongingLists

/** Last choices by the thing that they are about, field by field. */
export type Choices = Record<string, Record<string, unknown>>

/** All that belongs to a seat. */
export interface Belongings extends BelongingLists {
  choices: Choices
  /** Lists that the seat has made its own; others are as they ship. */
  own: ListName[]
}

export const LIST_NAMES: readonly ListName[] = ['nibs', 'palettes', 'deliveries', 'keys']

/** Lists as they ship. */
export const SHIPPED: Readonly<BelongingLists> = {
  nibs: [...NIBS],
  palettes: [],
  deliveries: [...FIRST_DELIVERIES],
  keys: [],
}

/** What an item of a list is known by. */
export const idOf: { [L in ListName]: (item: BelongingLists[L][number]) => string } = {
  nibs: (nib) => nib.id,
  palettes: (palette) => palette.name,
  deliveries: (delivery) => delivery.name,
  keys: (key) => key.was,
}

/** So many items a list holds, and so many letters a choice takes, as JSON. */
export const MOST_ITEMS = 500
const LONGEST_CHOICE = 64_000

const name = (longest: number) => yup.string().strict().min(1).max(longest).required()
const within = (least: number, most: number) => yup.number().strict().min(least).max(most).required()

const nibSchema = yup
  .object({
    id: name(80),
    name: name(60),
    size: within(0.1, 1000),
    variation: within(0, 1),
    roundness: within(0.01, 1),
    angle: within(-360, 360),
  })
  .noUnknown()

const keySchema = yup.object({ was: name(12), is: name(12) }).noUnknown()

const namedDeliverySchema = yup.object({ name: name(60), settings: deliverySchema.required() }).noUnknown()

const SCHEMAS = { nibs: nibSchema, palettes: paletteSchema, deliveries: namedDeliverySchema, keys: keySchema } as const

/** Schema of the items of one list. */
export const itemSchema = (list: ListName): yup.Schema => SCHEMAS[list]

const listChange = (list: ListName) =>
  yup
    .object({
      put: yup.array(itemSchema(list).required()).required().max(MOST_ITEMS),
      gone: yup.array(yup.string().strict().required().max(200)).required().max(MOST_ITEMS),
      order: yup.array(yup.string().strict().required().max(200)).required().max(MOST_ITEMS),
    })
    .default(undefined)
    .noUnknown()

const isShort = (value: unknown): boolean => (JSON.stringify(value) ?? '').length <= LONGEST_CHOICE

const choices = yup.lazy((all: unknown) =>
  yup.object(
    Object.fromEntries(
      Object.keys((all ?? {}) as object).map((thing) => [
        thing,
        yup.mixed().test('choices', `choices about ${thing.slice(0, 40)} cannot be kept`, (fields) => {
          const named = fields && typeof fields === 'object' && !Array.isArray(fields) ? Object.entries(fields) : null
          return (
            thing.length <= 40 &&
            !!named &&
            named.length <= 100 &&
            named.every(([field, value]) => field.length <= 40 && isShort(value))
          )
        }),
      ]),
    ),
  ),
)

const whole = (list: ListName) => yup.array(itemSchema(list).required()).required().max(MOST_ITEMS)

/** Schema of all that belongs to a seat. */
export const belongingsSchema = yup
  .object({
    choices,
    own: yup.array(yup.string().oneOf(LIST_NAMES).required()).required(),
    nibs: whole('nibs'),
    palettes: whole('palettes'),
    deliveries: whole('deliveries'),
    keys: whole('keys'),
  })
  .required()

/** Schema of a change of what belongs to a seat. */
export const belongingsChangeSchema = yup
  .object({
    choices,
    nibs: listChange('nibs'),
    palettes: listChange('palettes'),
    deliveries: listChange('deliveries'),
    keys: listChange('keys'),
  })
  .noUnknown()
