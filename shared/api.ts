import * as yup from 'yup'
import type { PassName } from '#core/model/pass-reached'
import { PASS_NAMES } from '#core/model/pass-reached'
import { courseSchema } from '#core/document/line-schema'
import { idSchema, nameOf } from './fields'
import { LONGEST_PROFILE_NAME, MOST_PROFILES } from '../core/formats/profiles/read-profiles'

export interface ImageInfo {
  sha256: string
  width: number
  height: number
  mediaType: string
}

/** A named moment in the history. */
export interface Checkpoint {
  id: string
  revision: number
  name: string
  madeAt: string
  /** The pass whose first visit set it by itself. */
  pass: PassName | null
}

export const MOST_CHECKPOINTS = 200
export const LONGEST_CHECKPOINT_NAME = 80

export const LIMITS = {
  /** Largest body of an edit or a drawing, bytes. */
  document: 64 * 1024 * 1024,
  /** Largest picture, bytes. */
  image: 64 * 1024 * 1024,
  /** All pictures together, bytes. */
  allImages: 8 * 1024 ** 3,
  /** Largest backup, bytes, as it is sent and unpacked. */
  backup: 512 * 1024 * 1024,
  unpackedBackup: 1536 * 1024 * 1024,
  /** Largest picture, pixels. */
  pixels: 60_000_000,
} as const

/** Pictures are looked at in no larger size than this, px of the longer side: memory stays bounded, whatever the scan. */
export const LARGEST_PART = 2880

const shareOf = (of: string) => yup.number().min(0, `${of} is less than 0`).max(1, `${of} is more than 1`)

/** Which part of a picture is asked for, as shares of its width and height; all of it when nothing is said. */
export const partQuery = yup.object({
  x: shareOf('x').default(0),
  y: shareOf('y').default(0),
  width: shareOf('width').default(1),
  height: shareOf('height').default(1),
})

export const checkpointSchema = yup
  .object({
    name: yup
      .string()
      .strict()
      .matches(/\S/, 'A checkpoint needs a name.')
      .required('A checkpoint needs a name.')
      .max(LONGEST_CHECKPOINT_NAME, `A name has ${LONGEST_CHECKPOINT_NAME} letters at most.`),
    /** The pass that is about to be seen for the first time. */
    pass: yup.string().oneOf(PASS_NAMES),
  })
  .noUnknown()

/** Body of POST /api/drawings: nothing for a blank drawing, or a whole one. */
export const createSchema = yup.object({
  name: yup.string().strict().trim().min(1).max(120),
  drawing: yup.mixed().nullable(),
  seat: idSchema().nullable(),
})

/** Whether a Desk asks for a passphrase, and whether whoever asks has named it. */
export interface SessionState {
  locked: boolean
  within: boolean
}

export const passSchema = yup.object({ pass: yup.string().required('Enter the passphrase.').max(200) })

export interface CopyBody {
  name: string
  /** With all its steps and checkpoints, or as it is alone. */
  history: boolean
  /** As it was at a revision; then without its history. */
  revision?: number
  /** Whose the copy is. */
  seat?: string | null
}

/** Body of POST /api/drawings/:id/copy. */
export const copySchema = yup.object({
  name: nameOf('drawing', 120),
  history: yup.boolean().strict().default(false),
  revision: yup.number().strict().integer().min(0),
  seat: idSchema().nullable(),
})

/** Body of POST /api/drawings/:id/let-go: steps made before this moment go, ISO 8601. */
export const letGoSchema = yup.object({
  before: yup
    .string()
    .strict()
    .matches(/^\d{4}-\d\d-\d\dT/, 'Say until when steps are let go, as a date.')
    .required('Say until when steps are let go.'),
})

/** Body of PATCH /api/drawings/:id. */
export const renameSchema = yup.object({
  name: yup
    .string()
    .strict()
    .trim()
    .min(1, 'A drawing needs a name.')
    .max(120, 'A name can have 120 letters at most.')
    .required('A drawing needs a name.'),
})

const profile = courseSchema.shape({
  id: yup.string().strict().required().max(80),
  name: yup
    .string()
    .strict()
    .matches(/\S/, 'A profile needs a name.')
    .max(LONGEST_PROFILE_NAME, `A profile's name can have ${LONGEST_PROFILE_NAME} letters at most.`)
    .required('A profile needs a name.'),
})

const shelf = () =>
  yup
    .array(profile.required())
    .max(MOST_PROFILES, `A shelf takes ${MOST_PROFILES} profiles at most.`)
    .test(
      'ids',
      'Two profiles have one id.',
      (all: unknown) =>
        !Array.isArray(all) || new Set(all.map((p: { id?: string } | null) => p?.id)).size === all.length,
    )

/** Body of PUT /api/profiles: the whole shelf of own profiles, and the one that it was made from. */
export const shelfSchema = yup.object({ profiles: shelf().required(), base: shelf().nullable().default(null) })
