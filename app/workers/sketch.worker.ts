import { expose, transfer } from 'comlink'
import type { CrestKind, Crests } from '#core/sketch/crests'
import { findCrests } from '#core/sketch/crests'
import type { CleanSettings, Sketch } from '#core/drawing/model'
import { cleaned } from '#core/sketch/clean'
import type { GreyImage } from '#core/sketch/grey-image'
import { findPaper } from '#core/sketch/paper-corners'
import type { ProposeOptions, Proposal } from '#core/sketch/propose-lines'
import { findLines } from '#core/sketch/propose-lines'
import { atOnce, inTurns } from '#core/turns'
import type { SketchSource } from './read-picture'
import { readGrey, readSketch } from './read-picture'

/** The sketch that was prepared last: its settings change more often than it does. */
let known: { key: string; image: GreyImage | null } | null = null
const AS_IT_IS: CleanSettings = { even: false, white: 0, black: 1, pencil: 1, specks: 0, tint: '#000000' }

const UNREAD = 'The picture of this sketch could not be read. Bring it in again as PNG, JPEG or WebP.'

/** Reads sketches away from the hand; ended, with what it is at, when the person says stop. */
const sketches = {
  /** Lines in the picture at an address, with the size that they are told in; or the sentence that says why there are none. */
  async propose(source: SketchSource, options: ProposeOptions, onProgress: (share: number) => void): Promise<{ width: number; height: number; proposals: Proposal[] } | { problem: string }> {
    const image = await readSketch(source)
    if (!image) return { problem: UNREAD }
    const proposals = await inTurns(findLines(image, options), {
      turn: 40,
      rest: () => new Promise((resolve) => setTimeout(resolve)),
      go: (share) => {
        onProgress(share)
        return true
      },
    })
    return { width: image.width, height: image.height, proposals: proposals! }
  },

  /** The crests of the pencil in the picture at an address; or the sentence that says why there are none. */
  async crests(source: SketchSource, kind: CrestKind): Promise<Crests | { problem: string }> {
    const image = await readSketch(source)
    if (!image) return { problem: UNREAD }
    const crests = atOnce(findCrests(image, kind))
    return transfer(crests, [crests.strength.buffer as ArrayBuffer, crests.way.buffer as ArrayBuffer])
  },

  /** A sketch as it is to be seen: set right and clean. */
  async prepare(source: SketchSource, clean: CleanSettings | null): Promise<ImageBitmap | { problem: string }> {
    if (!known || known.key !== JSON.stringify(source)) known = { key: JSON.stringify(source), image: await readSketch(source) }
    const { image } = known
    if (!image) return { problem: UNREAD }
    const { width, height, rgba } = cleaned(image, clean ?? AS_IT_IS)
    const bitmap = await createImageBitmap(new ImageData(rgba, width, height))
    return transfer(bitmap, [bitmap])
  },

  /** The corners of the paper in the picture at an address, as shares of its size; null where none is seen. */
  async paper(address: string): Promise<Sketch['corners'] | null | { problem: string }> {
    const image = await readGrey(address)
    if (!image) return { problem: UNREAD }
    const quad = findPaper(image)
    return quad && (quad.map(({ x, y }) => ({ x: x / image.width, y: y / image.height })) as Sketch['corners'])
  },
}

export type SketchWorker = typeof sketches

expose(sketches)
