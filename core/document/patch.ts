import type { Matrix } from '../geometry/matrix'

/**
 * One change of a drawing. Layers and items are named by their ids, not by their places, so that a patch still meets its
 * target after others have changed the drawing, and says no more than what changed.
 *
 * | path                                 | op        | value                                        |
 * | ------------------------------------ | --------- | -------------------------------------------- |
 * | `[field]`                            | `replace` | `name`, `page`, `inks` or `settings`         |
 * | `['settings', field]`, `['settings', 'shapes', field]` | `replace` | the setting; none: it goes |
 * | `[list, place]`                      | `add`     | an ink, an amendment or a fill; `list` is `inks`, `amendments` or `fills` |
 * | `[list, id]`                         | `remove`  |                                              |
 * | `['inks', id, field]`                | `replace` | its `name` or `colour`                       |
 * | `['amendments', id, field]`, `['fills', id, field]` | `replace` | any of its fields but id and kind |
 * | `['layers', place]`                  | `add`     | the layer; the place is counted from the bottom |
 * | `['layers', id]`                     | `remove`  |                                              |
 * | `['layers', id, field]`              | `replace` | `name`, `visible`, `locked` or `opacity`     |
 * | `['layers', id, 'items', place]`     | `add`     | the item                                     |
 * | `['layers', id, 'items', id]`        | `remove`  |                                              |
 * | `['layers', id, 'items', id, field]` | `replace` | any field of the item but its id; none: the field goes |
 * | `['layers', id, 'items', id, 'weight', 'finish' or 'trace', field]` | `replace` | that field of the line's weight, finish or trace |
 * | `['layers']`, `['layers', id, 'items']`, `[list]` | `order` | ids in their new order          |
 * | `['layers', id, 'items']`            | `copy`    | `Copies`: lines that are others of the layer once more |
 * | `['layers', id, 'items']`            | `map`     | `Mapping`: points of many items, all put through one matrix |
 * | `['layers', id, 'items']`            | `each`    | `Each`: one field of many items              |
 */
export interface Patch {
  op: 'add' | 'remove' | 'replace' | 'order' | 'copy' | 'map' | 'each'
  path: (string | number)[]
  value?: unknown
}

/** Copies of lines of a layer under other ids, put through a matrix, in a row from a place on. */
export interface Copies {
  place: number
  by: Matrix
  items: [of: string, id: string][]
}

/**
 * Items whose points go through a matrix and onto the grid. Where rounding leaves them beside where they were, the steps
 * of the grid by which each coordinate is off go along, in the order of the points.
 */
export interface Mapping {
  by: Matrix
  items: (string | [id: string, ...off: number[]])[]
}

/** A field of many items, and what it is in each. */
export interface Each {
  field: string[]
  of: [id: string, value: unknown][]
}

/** A patch that does not fit the drawing: what it changes is not there, or what it adds is there already. */
export class UnfitPatch extends Error {}

/** Lists of a drawing, besides its layers, that are changed item by item. */
export const LISTS = ['inks', 'amendments', 'fills'] as const

/** Records that are changed field by field, so that two windows that change different fields both keep theirs. */
export const BY_FIELD: readonly string[] = ['weight', 'finish', 'trace', 'settings', 'shapes']

/** Whether a value is a plain record: no list, not null. */
export const isRecord = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)
