import { expose, transfer } from 'comlink'
import type { Band } from '#core/ink/session/bands'
import { pageOfBand } from '#core/ink/session/bands'
import { inTurns } from '#core/turns'
import { ENGINE_VERSION } from './engine-version'

const rest = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0))

const bands = {
  /** What follows from a band of a drawing, as a page to be read by the book of the whole. */
  async page(band: Band, onProgress: (share: number) => void): Promise<Uint8Array> {
    const tell = (share: number): boolean => (onProgress(share), true)
    const page = (await inTurns(pageOfBand(band, ENGINE_VERSION), { turn: 100, rest, go: tell }))!
    return transfer(page, [page.buffer])
  },
}

export type BandWorker = typeof bands

expose(bands)
