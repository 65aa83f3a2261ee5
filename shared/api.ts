import * as yup from 'yup'
import type { Edit } from '#core/document/edits'
import type { Drawing } from '#core/model/model'
import type { PassName } from '#core/model/pass-reached'
import { PASS_NAMES } from '#core/model/pass-reached'
import type { DeliverySettings } from '../core/formats/delivery/settings'
import { deliverySchema } from '../core/formats/delivery/settings'
import { courseSchema, samplesSchema } from '#core/document/schema'
import { idSchema, nameOf } from './fields'
import { LONGEST_PROFILE_NAME, MOST_PROFILES } from '../core/formats/profiles/read-profiles'

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

/** An edit as the journal keeps it. */
export interface JournalEntry {
  revision: number
  madeAt: string
  edit: Edit
}

/** A drawing at its head, with the steps around it in the history, the nearest last in both lists. */
export interface OpenDrawing {
  drawing: Drawing
  revision: number
  undo: JournalEntry[]
  redo: JournalEntry[]
  /** Whether there are older steps to undo than those sent. */
  hasOlder: boolean
  /** Ids of the newest edits of the journal, so that an edit whose acknowledgement was lost is known again. */
  recent: string[]
  /** Whether it is a copy for a task through which the guide goes. */
  guided?: boolean
}

/** A page of older steps to undo, the nearest last. */
export interface OlderSteps {
  undo: JournalEntry[]
  hasOlder: boolean
}

export interface AppendAnswer {
  revision: number
}

/** The answer to an append that started from an old head. */
export interface Conflict {
  revision: number
  missing: JournalEntry[]
  /** Ids of edits of the batch that the journal has from before the base. */
  known?: string[]
}

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

export const MOST_CHECKPOINTS = 200
export const LONGEST_CHECKPOINT_NAME = 80

/** How many steps of the history are sent at once. */
export const HISTORY_PAGE = 200

/** How many ids of the newest edits are sent. */
export const RECENT_IDS = 2000

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

const patch = yup
  .object({
    op: yup.string().oneOf(['add', 'remove', 'replace', 'order', 'copy', 'map', 'each']).required(),
    path: yup
      .array(yup.mixed<string | number>().test((v) => typeof v === 'string' || typeof v === 'number'))
      .required()
      .min(1)
      .max(6),
    value: yup.mixed().nullable(),
  })
  .noUnknown()

const patches = yup.array(patch.required()).required().max(100_000)

/** An edit as it is sent and kept. */
export const editSchema = yup.object({
  id: yup.string().strict().required().max(80),
  kind: yup.string().oneOf(['edit', 'undo', 'redo']).required(),
  label: yup.string().strict().required().max(200),
  patches,
  inverse: patches,
  pass: yup.string().oneOf(PASS_NAMES),
  traces: yup.lazy((all: unknown) =>
    all === undefined
      ? yup.mixed()
      : yup.object(Object.fromEntries(Object.keys(all ?? {}).map((hash) => [hash, samplesSchema]))),
  ),
})

/** Body of POST /api/drawings/:id/edits. */
export const appendSchema = yup.object({
  base: yup.number().strict().integer().min(0).required(),
  head: yup.string().strict().max(80).nullable(),
  edits: yup.array(editSchema.required()).required().min(1).max(1000),
})

export interface AppendBody {
  base: number
  /** Id of the edit that made the base, where it is known: tells a journal that was put back from the one it was. */
  head?: string | null
  edits: Edit[]
}

/** Body of POST /api/drawings: nothing for a blank drawing, or a whole one. */
export const createSchema = yup.object({
  name: yup.string().strict().trim().min(1).max(120),
  drawing: yup.mixed().nullable(),
  seat: idSchema().nullable(),
})

export const LONGEST_SHELF_NAME = 60

/** Body of POST /api/shelves and PATCH /api/shelves/:id. */
export const shelfNameSchema = yup.object({ name: nameOf('shelf', LONGEST_SHELF_NAME) })

/** Whether a Desk asks for a passphrase, and whether whoever asks has named it. */
export interface SessionState {
  locked: boolean
  within: boolean
}

export const passSchema = yup.object({ pass: yup.string().required('Enter the passphrase.').max(200) })

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
