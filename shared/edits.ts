import * as yup from 'yup'
import type { Edit } from '#core/document/edits'
import type { Drawing } from '#core/model/model'
import { PASS_NAMES } from '#core/model/pass-reached'
import { samplesSchema } from '#core/document/trace-schema'

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

/** How many steps of the history are sent at once. */
export const HISTORY_PAGE = 200

/** How many ids of the newest edits are sent. */
export const RECENT_IDS = 2000

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
