/** Something of that name is there already. */
export class NameTaken extends Error {}

/**
 * Does what writes a name that is the only one of its kind.
 *
 * @param sentence what is said where it is taken
 * @throws NameTaken
 */
export function unlessTaken<T>(sentence: string, write: () => T): T {
  try {
    return write()
  } catch (e) {
    if ((e as { code?: string }).code === 'SQLITE_CONSTRAINT_UNIQUE') throw new NameTaken(sentence)
    throw e
  }
}
