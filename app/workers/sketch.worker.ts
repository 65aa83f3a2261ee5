import { expose } from 'comlink'
import type { ProposeOptions, Proposal } from '#core/sketch/propose-lines'
import { findLines } from '#core/sketch/propose-lines'
import { inTurns } from '#core/turns'

/** Pictures are read in no larger size than this, px of the longer side: memory stays bounded, whatever the scan. */
const LARGEST = 2880

/** Reads sketches away from the hand; ended, with what it is at, when the person says stop. */
const sketches = {
  /** Lines in the picture at an address, with the size that they are told in; or the sentence that says why there are none. */
  async propose(address: string, options: ProposeOptions, onProgress: (share: number) => void): Promise<{ width: number; height: number; proposals: Proposal[] } | { problem: string }> {
    try {
      const answer = await fetch(address)
      if (!answer.ok) return { problem: 'The picture of this sketch could not be read. Bring it in again.' }
      const full = await createImageBitmap(await answer.blob())
      const k = Math.min(1, LARGEST / Math.max(full.width, full.height))
      const [width, height] = [Math.max(1, Math.round(full.width * k)), Math.max(1, Math.round(full.height * k))]
      const context = new OffscreenCanvas(width, height).getContext('2d')!
      // What is transparent is paper.
      context.fillStyle = '#fff'
      context.fillRect(0, 0, width, height)
      context.drawImage(full, 0, 0, width, height)
      full.close()
      const { data } = context.getImageData(0, 0, width, height)
      const grey = new Uint8Array(width * height)
      for (let i = 0; i < grey.length; i++) grey[i] = (data[4 * i]! * 299 + data[4 * i + 1]! * 587 + data[4 * i + 2]! * 114) / 1000
      const proposals = await inTurns(findLines({ width, height, grey }, options), {
        turn: 40,
        rest: () => new Promise((resolve) => setTimeout(resolve)),
        go: (share) => {
          onProgress(share)
          return true
        },
      })
      return { width, height, proposals: proposals! }
    } catch {
      return { problem: 'The picture of this sketch could not be read. Bring it in again as PNG or JPEG.' }
    }
  },
}

export type SketchWorker = typeof sketches

expose(sketches)
