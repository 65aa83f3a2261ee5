import { expect } from 'vitest'
import { applyPatches } from '#core/document/apply-patches'
import type { Edit } from '#core/document/edits'
import type { Drawing } from '#core/model/model'

/** As the server keeps it. */
const stored = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/** An edit leads, through storage too, from one drawing to the other, and its inverse back: deeply equal, no field more or less. */
export function expectExact(before: Drawing, edit: Pick<Edit, 'patches' | 'inverse'>, after: Drawing): void {
  expect(stored(applyPatches(before, stored(edit.patches)))).toStrictEqual(stored(after))
  expect(stored(applyPatches(after, stored(edit.inverse)))).toStrictEqual(stored(before))
}
