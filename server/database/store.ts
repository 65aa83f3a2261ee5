import { AccessTable } from './access'
import { BelongingTables } from './belongings'
import { CheckpointTable } from './checkpoints'
import type { Connection, Migration } from './sqlite'
import { openDatabase, watched } from './connection'
import { ImageTable } from './images'
import { Journal } from './journal'
import { databaseFile, forgetRecalled } from './recalled'
import { ProfileTable } from './profiles'
import { ProofTable } from './proofs'
import { SeatTable } from './seats'
import { ShelfTable } from './shelves'
import { TaskTable } from './tasks'
import { TraceTable } from './traces'
import { ThumbnailTable } from './thumbnails'
import { WholeDrawings } from './whole-drawing'

export interface Store {
  connection: Connection
  journal: Journal
  images: ImageTable
  traces: TraceTable
  thumbnails: ThumbnailTable
  profiles: ProfileTable
  checkpoints: CheckpointTable
  shelves: ShelfTable
  proofs: ProofTable
  access: AccessTable
  seats: SeatTable
  belongings: BelongingTables
  tasks: TaskTable
  whole: WholeDrawings
  /** Throws `DatabaseGone` where the file was deleted or replaced. */
  check: () => void
}

export function openStore(file: string, migrations: readonly Migration[]): Store {
  const connection = openDatabase(file, migrations)
  const journal = new Journal(connection)
  return {
    connection,
    journal,
    images: new ImageTable(connection),
    traces: new TraceTable(connection),
    thumbnails: new ThumbnailTable(connection),
    profiles: new ProfileTable(connection),
    checkpoints: new CheckpointTable(connection),
    shelves: new ShelfTable(connection),
    proofs: new ProofTable(connection),
    access: new AccessTable(connection),
    seats: new SeatTable(connection),
    belongings: new BelongingTables(connection),
    tasks: new TaskTable(connection),
    whole: new WholeDrawings(connection, (id) => {
      journal.forget(id)
      forgetRecalled(id)
    }),
    check: watched(file),
  }
}

let opened: Promise<Store> | null = null

/** Opens the server's store once; every route waits for it, and for what is to be done `first`. */
export function startStore(migrations: Promise<Migration[]>, first: (store: Store) => Promise<void>): void {
  const file = databaseFile()
  opened = migrations.then(async (all) => {
    const it = openStore(file, all)
    // Whoever finds the database held waits between two tries, not within one, where everybody would wait along.
    it.connection.pragma('busy_timeout = 0')
    await first(it)
    return it
  })
}

/**
 * The server's store, for one request.
 *
 * @throws DatabaseGone where what is done with it would be lost
 */
export async function store(): Promise<Store> {
  if (!opened) throw new Error('The store has not been started.')
  const it = await opened
  it.check()
  return it
}
