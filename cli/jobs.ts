import type { Band } from '#core/ink/session/bands'
import type { ExpandOrder, FileReport } from './expand-order'

/** What a thread can be asked to do: what it is given, and what comes of it. */
export interface Jobs {
  expand: { of: ExpandOrder; made: FileReport }
  /** What follows from a band of a drawing, as a page of a book. */
  band: { of: { band: Band; engine: string }; made: Uint8Array }
}

export type Asked = { [K in keyof Jobs]: { what: K; of: Jobs[K]['of'] } }[keyof Jobs]
export type Answered = { made: Jobs[keyof Jobs]['made'] } | { why: string }
