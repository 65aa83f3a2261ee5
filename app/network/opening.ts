import type { OpenDrawing } from '#shared/edits'
import { openDrawing, Refusal } from './api'
import { forgetKept, keepOpened, keptDrawing } from './kept-drawings'

const inTheLog = (e: unknown): void => console.warn('What is kept for times without the server:', (e as Error).message)

/** Nobody answers, or whoever stands before the server says that it is not there. */
const isAway = (e: unknown): boolean => e instanceof Refusal && [0, 502, 504].includes(e.status)

/** A drawing as the server has it; where that cannot be reached, as this browser kept it, if it did. */
export async function openedOrKept(id: string): Promise<OpenDrawing & { isKept: boolean }> {
  try {
    const { opened, bytes } = await openDrawing(id)
    keepOpened(id, opened, bytes).catch(inTheLog)
    return { ...opened, isKept: false }
  } catch (e) {
    if (e instanceof Refusal && e.status === 404) await forgetKept(id).catch(inTheLog)
    const kept = isAway(e) ? await keptDrawing(id).catch(() => null) : null
    if (!kept) throw e
    return { ...kept, isKept: true }
  }
}
