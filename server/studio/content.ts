import type { BelongingLists } from '../../core/formats/studio/belongings'
import type { ShelfProfile } from '../../core/weight/shelf'
import type { Drawing } from '#core/model/model'
import type { StoredImage } from '../database/images'

/** The form in which studio files are written; one of a later form is refused. */
export const STUDIO_FORM = 1

/** The file of a studio file that says what it is. */
export const ABOUT = 'bellatrait-studio.json'

/** All that a studio file holds. */
export interface StudioContent extends BelongingLists {
  from: string
  profiles: ShelfProfile[]
  templates: Drawing[]
  images: StoredImage[]
}
