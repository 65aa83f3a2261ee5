import * as yup from 'yup'
import type { PassName } from '#core/model/pass-reached'
import { PASS_NAMES } from '#core/model/pass-reached'
import { belongingsSchema } from '../../core/formats/studio/belongings'
import { LONGEST_CHECKPOINT_NAME, MOST_CHECKPOINTS, shelfSchema } from '../../shared/api'
import { LONGEST_SHELF_NAME } from '../../shared/desk'
import { LONGEST_SEAT_NAME, LONGEST_TASK_NAME, MOST_SEATS, newSeatSchema } from '../../shared/seats'
import { BACKUP_FORM } from './backup-form'

/** A revision that a database can hold and JavaScript counts exactly. */
const revision = () =>
  yup
    .number()
    .strict()
    .integer()
    .min(0)
    .max(Number.MAX_SAFE_INTEGER - 1, 'a number of a step is none')

/** A moment as it is written: ISO 8601 in UTC. */
export const moment = () =>
  yup
    .string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'a date is none')
    .test('date', 'a date is none', (v) => typeof v !== 'string' || !Number.isNaN(Date.parse(v)))

const named = (what: string, most: number) =>
  yup
    .string()
    .strict()
    .matches(/\S/, `${what} has no name`)
    .max(most, `the name of ${what} has more than ${most} letters`)

const plainId = (what: string) =>
  yup
    .string()
    .strict()
    .matches(/^[\w-]{1,80}$/, `the id of ${what} is none`)

const unique = (what: string, key: string) =>
  [
    `one ${what} twice`,
    `it holds ${what} twice`,
    (all: unknown) => isUnique(listed(all).map((item) => item?.[key])),
  ] as const

/** The items of a list that may turn out to be none. */
const listed = (all: unknown): (Record<string, unknown> | null | undefined)[] => (Array.isArray(all) ? all : [])

const isUnique = (values: unknown[]): boolean => {
  const told = values.filter((v) => v !== null && v !== undefined)
  return new Set(told).size === told.length
}

/** Schema of the index of a backup. */
export const indexSchema = yup.object({
  form: yup.number().strict().integer().min(1, `it says form \${value}; forms are 1 to ${BACKUP_FORM}`).required(),
  made: moment().required(),
  drawings: yup
    .array(
      yup
        .object({
          folder: yup
            .string()
            .strict()
            .required()
            .matches(/^drawings\/[^/]{1,120}$/, 'the folder of a drawing is none'),
          id: yup.string().strict().required().max(80),
          name: named('a drawing', 120).required(),
        })
        .required(),
    )
    .required()
    .test(...unique('a drawing', 'id'))
    .test(...unique('a folder', 'folder')),
  files: yup.object().required(),
})

/** Schema of the seats of a backup, each with what belongs to it. */
export const wholeSeatsSchema = yup
  .array(
    yup
      .object({
        name: named('a seat', LONGEST_SEAT_NAME).required(),
        colour: newSeatSchema.fields.colour,
        profiles: shelfSchema.fields.profiles,
        belongings: belongingsSchema,
      })
      .required(),
  )
  .required()
  .max(MOST_SEATS)
  .test(...unique('a seat', 'name'))

/** Schema of the tasks of a backup. */
export const wholeTasksSchema = yup
  .array(
    yup
      .object({
        id: plainId('a task').required(),
        name: named('a task', LONGEST_TASK_NAME).required(),
        madeAt: moment().required(),
        template: plainId('a drawing').nullable().defined(),
        guided: yup.boolean().strict().required(),
      })
      .required(),
  )
  .required()
  .test(...unique('a task', 'id'))

const checkpoint = yup
  .object({
    id: yup.string().strict().required().min(1).max(80),
    revision: revision().required(),
    name: named('a checkpoint', LONGEST_CHECKPOINT_NAME).required(),
    madeAt: moment().required(),
    pass: yup.mixed<PassName>().oneOf(PASS_NAMES).nullable().defined(),
  })
  .required()

/** Schema of what a backup says about a drawing beside its documents and steps. */
export const aboutSchema = yup
  .object({
    id: plainId('a drawing').required(),
    name: named('a drawing', 120).required(),
    revision: revision().required(),
    firstRevision: revision().required(),
    template: yup.boolean().strict().required(),
    shelf: named('a shelf', LONGEST_SHELF_NAME).nullable().defined(),
    // Backups of earlier versions know of no seats and tasks.
    seat: named('a seat', LONGEST_SEAT_NAME).nullable().default(null),
    task: plainId('a task').nullable().default(null),
    createdAt: moment().required(),
    updatedAt: moment().required(),
    deletedAt: moment().nullable().defined(),
    checkpoints: yup
      .array(checkpoint)
      .required()
      .max(MOST_CHECKPOINTS + PASS_NAMES.length)
      .test(...unique('a checkpoint', 'id'))
      .test(...unique("a pass's checkpoint", 'pass')),
  })
  .test('order', 'its steps end before they begin', (about) => about.firstRevision <= about.revision)
  .test(
    'checkpoints',
    'a checkpoint lies past its last step',
    ({ checkpoints, revision }) => !listed(checkpoints).some((c) => Number(c?.revision) > revision),
  )
