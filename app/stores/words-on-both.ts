import type { Edit } from '#core/document/edits'
import { clashes } from '#core/document/rebase'

/** What became of changes that were made here and elsewhere at once. */
export function wordsOnBoth(theirs: readonly Edit[], mine: readonly Edit[]): string {
  const both = clashes(theirs, mine)
  if (!both.length) return 'This drawing was also changed in another window. Both changes were kept.'
  const more = both.length > 1 ? ` and ${both.length - 1} more` : ''
  return `Another window changed the same thing as "${both[0]}"${more}. What was done here stands; the rest of both was kept.`
}
