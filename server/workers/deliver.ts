import { parentPort } from 'node:worker_threads'
import type { Drawing, TraceSample } from '#core/model/model'
import type { PictureOrder } from '../../core/formats/delivery/deliver'
import { deliverable } from '../../core/formats/delivery/deliver'
import type { DeliverySettings } from '../../core/formats/delivery/settings'
import { pictureSvg } from '../delivery/picture-svg'
import { inSession } from './in-session'

/** A drawing to deliver. */
export interface OneAsked {
  drawing: string
  samples: Record<string, TraceSample[]>
  settings: DeliverySettings
  /** Where what was worked out of it is found and kept. */
  file: string
}

/** What the worker says: a picture is to be drawn, a file is made, or why there is none. */
export type OneAnswer =
  | { picture: { svg: string } & Pick<PictureOrder, 'ground' | 'tones' | 'dpi'> }
  | { file: { name: string; mediaType: string; bytes: Uint8Array } }
  | { why: string }

/** Answered pictures come back as bytes. */
export interface PictureDrawn {
  picture: Uint8Array | null
}

const port = parentPort!
let drawn: ((bytes: Uint8Array | null) => void) | null = null

/** Dots are drawn where the packages for that are. */
function picture(order: PictureOrder): Promise<Uint8Array> {
  const { ground, tones, dpi } = order
  port.postMessage({ picture: { svg: pictureSvg(order), ground, tones, dpi } } satisfies OneAnswer)
  return new Promise(
    (resolve, reject) =>
      (drawn = (bytes) => (bytes ? resolve(bytes) : reject(new Error('The picture could not be drawn.')))),
  )
}

async function deliver({ drawing: text, samples, settings, file }: OneAsked): Promise<OneAnswer> {
  try {
    const drawing = JSON.parse(text) as Drawing
    return {
      file: await deliverable(drawing, inSession(drawing, file, (session) => session.shapes()).shapes, settings, {
        picture,
        samplesOf: (hash) => samples[hash],
      }),
    }
  } catch (e) {
    return { why: (e as Error).message }
  }
}

/** A worker thread: drawings in, files out, one after the other. */
port.on('message', (message: OneAsked | PictureDrawn) => {
  if ('picture' in message) drawn?.(message.picture)
  else void deliver(message).then((answer) => port.postMessage(answer))
})
