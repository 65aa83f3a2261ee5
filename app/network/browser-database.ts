import type { DBSchema, IDBPDatabase, OpenDBCallbacks } from 'idb'
import { openDB } from 'idb'

/** A database of this browser, opened when it is first asked for, and again where it was closed or could not be opened. */
export function browserDatabase<S extends DBSchema>(
  name: string,
  version: number,
  upgrade: NonNullable<OpenDBCallbacks<S>['upgrade']>,
): () => Promise<IDBPDatabase<S>> {
  let opening: Promise<IDBPDatabase<S>> | null = null
  return () =>
    (opening ??= openDB<S>(name, version, {
      upgrade,
      // A window of a newer version waits for this one to let go.
      blocking: () => void opening?.then((db) => db.close()).finally(() => (opening = null)),
      terminated: () => (opening = null),
    }).catch((e: unknown) => {
      opening = null
      throw e
    }))
}
