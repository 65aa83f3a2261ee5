import { useStorage } from 'nitropack/runtime'
import type { Drawing } from '#core/model/model'
import type { ImageTable } from '../database/images'
import { databaseTrouble } from '../http/database-trouble'
import { recalledFile } from '../database/recalled'
import { DerivingThread } from './deriving-thread'
import { plainThumbnail } from './plain-thumbnail'
import { onlySketch, sketchThumbnail } from './sketch-thumbnail'

let thread: Promise<DerivingThread> | null = null

/** The one thread in which the server derives small things. */
export const derivingThread = (): Promise<DerivingThread> =>
  (thread ??= useStorage('assets:workers')
    .getItem('derive.js')
    .then((script) => new DerivingThread(String(script), recalledFile)))

/**
 * The picture of a drawing on a card: its ink, or its sketch where it has none yet; drawn plainly where that takes too long.
 * `keep` is called with one that is worth keeping: what was drawn plainly is drawn better another time.
 */
export async function pictureOf(
  drawing: Drawing,
  revision: number,
  images: ImageTable,
  keep: (svg: string) => void,
  slot = drawing.id,
): Promise<string> {
  const sketch = onlySketch(drawing)
  const made =
    (sketch && (await sketchThumbnail(drawing, sketch, images))) ??
    (await (await derivingThread()).make('thumbnail', drawing, revision, slot))
  if (!made) return plainThumbnail(drawing)
  keptIfCan(() => keep(made))
  return made
}

/** Keeps what was derived; where the disk is full, or the database held, it is derived again another time. */
export function keptIfCan(keep: () => void): void {
  try {
    keep()
  } catch (e) {
    if (!databaseTrouble(e)) throw e
    console.error('What was derived could not be kept:', (e as Error).message)
  }
}

/** Headers of a picture that is served as a file of its own. */
export const PICTURE_HEADERS = {
  'content-type': 'image/svg+xml',
  'cache-control': 'no-cache',
  'content-security-policy': "default-src 'none'; img-src data:; style-src 'unsafe-inline'",
}
