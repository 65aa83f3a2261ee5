import type { Belongings } from '../../core/formats/studio/belongings'
import type { ShelfProfile } from '../../core/weight/shelf'

/** The form in which backups are written; one of a later form is refused. */
export const BACKUP_FORM = 1

/** The file of a backup that names all others. */
export const INDEX = 'bellatrait.json'

/** A seat with all that belongs to it. */
export interface WholeSeat {
  name: string
  colour: string
  profiles: ShelfProfile[]
  belongings: Belongings
}

/** A task, as it stands on the Desk; its copies say that they are its own. */
export interface WholeTask {
  id: string
  name: string
  /** When it was handed out, ISO 8601. */
  madeAt: string
  /** The id of the drawing that later comers are handed. */
  template: string | null
  guided: boolean
}

export interface BackupIndex {
  form: number
  /** When it was made, ISO 8601. */
  made: string
  drawings: { folder: string; id: string; name: string }[]
  /** sha-256 of each file, by its path. */
  files: Record<string, string>
}
