import { expose, transfer } from 'comlink'
import type { CrestKind, Crests } from '#core/sketch/crests'
import { findCrests } from '#core/sketch/crests'
import type { ProposeOptions, Proposal } from '#core/sketch/propose-lines'
import { findLines } from '#core/sketch/propose-lines'
import { atOnce, inTurns } from '#core/turns'
import { readGrey } from './read-picture'

const UNREAD = 'The picture of this sketch could not be read. Bring it in again as PNG or JPEG.'

/** Reads sketches away from the hand; ended, with what it is at, when the person says stop. */
const sketches = {
  /** Lines in the picture at an address, with the size that they are told in; or the sentence that says why there are none. */
  async propose(address: string, options: ProposeOptions, onProgress: (share: number) => void): Promise<{ width: number; height: number; proposals: Proposal[] } | { problem: string }> {
    const image = await readGrey(address)
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
  async crests(address: string, kind: CrestKind): Promise<Crests | { problem: string }> {
    const image = await readGrey(address)
    if (!image) return { problem: UNREAD }
    const crests = atOnce(findCrests(image, kind))
    return transfer(crests, [crests.strength.buffer as ArrayBuffer])
  },
}

export type SketchWorker = typeof sketches

expose(sketches)
