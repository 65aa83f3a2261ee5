import type { Drawing } from '../model/model'
import type { InkSession } from './session/ink-session'
import { Session } from './session/session'

export type * from './session/ink-session'

/** Opens a drawing for whoever asks for what follows from it. However it came to its state, the answers are the same. */
export const openInk = (drawing: Drawing): InkSession => new Session(drawing)
