import { rmSync } from 'node:fs'
import { join } from 'node:path'

/** The file of the database, of this process. */
export const databaseFile = (): string => process.env.BELLATRAIT_DB ?? 'data/bellatrait.db'

/** The folder beside the database in which lies what was worked out of drawings; it can be taken away at any time. */
const recalledFolder = (): string => `${databaseFile()}-recalled`

/** What is worked out of a drawing, each in a file of its own. */
const KINDS = ['thumbnail', 'findings', 'shapes'] as const
export type RecalledKind = (typeof KINDS)[number]

/** The file in which lies what was worked out of a drawing. */
export const recalledFile = (drawing: string, kind: RecalledKind): string =>
  join(recalledFolder(), `${encodeURIComponent(drawing)}.${kind}`)

/** Takes away what was worked out of a drawing. */
export function forgetRecalled(drawing: string): void {
  for (const kind of KINDS) rmSync(recalledFile(drawing, kind), { force: true })
}
