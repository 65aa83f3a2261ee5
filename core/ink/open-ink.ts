import type { Drawing } from '../model/model'
import type { Recall } from '../recall/recall'
import type { InkSession } from './session/ink-session'
import { Session } from './session/session'

export type * from './session/ink-session'

/**
 * Opens a drawing for whoever asks for what follows from it. However it came to its state, the answers are the same.
 *
 * @param recall where what was worked out before, in another session, is found again
 */
export const openInk = (drawing: Drawing, recall: Recall | null = null): InkSession => new Session(drawing, { recall })
