import type { Drawing } from '../model/model'
import { atOnce } from '../turns'
import type { ShapesResult } from './open-ink'
import { openInk } from './open-ink'

/** The shapes of a drawing, in one go. */
export const shapesOf = (drawing: Drawing): ShapesResult => atOnce(openInk(drawing).shapes())
