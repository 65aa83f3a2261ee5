import * as yup from 'yup'
import type { DrawingCard } from './desk'
import { idSchema, nameOf } from './fields'

/** Somebody's place at this Desk. */
export interface Seat {
  id: string
  name: string
  /** #rrggbb */
  colour: string
  /** How many drawings on the Desk are theirs. */
  drawings: number
}

/** A drawing that was handed out to seats, a copy each. */
export interface Task {
  id: string
  name: string
  madeAt: string
  copies: number
}

/** A task with its copies as they are now. */
export interface OpenTask extends Task {
  /** Whether there still is what later comers are handed. */
  hasTemplate: boolean
  cards: DrawingCard[]
}

export const LONGEST_SEAT_NAME = 40
export const LONGEST_TASK_NAME = 100
export const MOST_SEATS = 500

const colour = () =>
  yup
    .string()
    .strict()
    .matches(/^#[0-9a-f]{6}$/i, 'This is no colour.')

/** Body of POST /api/seats. */
export const newSeatSchema = yup.object({
  name: nameOf('seat', LONGEST_SEAT_NAME),
  colour: colour().required('A seat needs a colour.'),
})

/** Body of PATCH /api/seats/:id: a name, a colour, or both. */
export const seatSchema = yup.object({ name: nameOf('seat', LONGEST_SEAT_NAME).optional(), colour: colour() })

export interface TaskBody {
  name: string
  template: string
  seats: string[]
  guided: boolean
}

const seatIds = () => yup.array(idSchema().required()).required().min(1, 'No seat is chosen.').max(MOST_SEATS)

/** Body of POST /api/tasks. */
export const taskSchema = yup.object({
  name: nameOf('task', LONGEST_TASK_NAME),
  template: idSchema().required(),
  seats: seatIds(),
  guided: yup.boolean().strict().default(false),
})

/** Body of POST /api/tasks/:id/copies: who gets one, too. */
export const copiesSchema = yup.object({ seats: seatIds() })
