import * as yup from 'yup'
import type { PassName } from '#core/model/pass-reached'
import type { DeliverySettings } from '../core/formats/delivery/settings'
import { deliverySchema } from '../core/formats/delivery/settings'
import { idSchema, nameOf } from './fields'

/** What a card on the Desk shows. */
export interface DrawingCard {
  id: string
  name: string
  revision: number
  lineCount: number
  updatedAt: string
  /** The farthest pass whose work it holds. */
  pass: PassName
  /** The id of the shelf on which it lies, or null. */
  shelf: string | null
  template: boolean
  /** The id of the seat whose it is, or null. */
  seat: string | null
  /** The id of the task that it is a copy for, or null. */
  task: string | null
  /** Findings of Proof at this revision; null where Proof was not asked yet. */
  findings: number | null
  /** When it was put into the bin, where it is there. */
  deletedAt: string | null
}

/** A shelf of the Desk: a class, or a client. */
export interface Shelf {
  id: string
  name: string
}

/** What became of the drawings of a backup, by their names. */
export interface RestoreReport {
  /** Were not here. */
  added: string[]
  /** Were here with all that the backup holds of them. */
  here: string[]
  /** Were here otherwise, and came in beside. */
  copied: string[]
}

/** How far the delivery of several drawings is. */
export interface ManyState {
  id: string
  done: number
  total: number
  /** The drawing at hand, by its name. */
  name: string
  state: 'making' | 'ready' | 'failed'
  /** Drawings that are not in the archive, each with a sentence that says why. */
  left: { name: string; why: string }[]
  /** Bytes of the archive, once it is ready. */
  size: number
}

export const LONGEST_SHELF_NAME = 60

/** Body of POST /api/shelves and PATCH /api/shelves/:id. */
export const shelfNameSchema = yup.object({ name: nameOf('shelf', LONGEST_SHELF_NAME) })

/** What can be done with several drawings at once. */
const ACTS = ['shelve', 'hand over', 'bin', 'restore', 'erase', 'template', 'no template'] as const

export interface ActBody {
  ids: string[]
  act: (typeof ACTS)[number]
  /** For `shelve`: the id of the shelf, or null for none. */
  shelf?: string | null
  /** For `hand over`: the id of the seat. */
  seat?: string
}

/** Body of POST /api/desk. */
export const actSchema = yup.object({
  ids: yup.array(yup.string().strict().required().max(80)).required().min(1, 'No drawing is chosen.').max(10_000),
  act: yup.string().oneOf(ACTS).required(),
  shelf: idSchema().nullable(),
  seat: idSchema(),
})

/** How long a drawing lies in the bin before it is thrown away, days. */
export const DAYS_IN_BIN = 30

export interface ManyBody {
  ids: string[]
  settings: DeliverySettings
}

/** Body of POST /api/deliveries. */
export const manySchema = yup.object({
  ids: yup.array(yup.string().strict().required().max(80)).required().min(1, 'No drawing is chosen.').max(10_000),
  settings: deliverySchema.required(),
})
