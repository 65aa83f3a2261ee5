import { expose } from 'comlink'
import type { ParsedSvg } from '#core/formats/svg/parse-svg'
import { parseSvg } from '#core/formats/svg/parse-svg'

/** Reads files away from the hand; ended, with what it is at, when the person says stop. */
const reader = {
  /** A drawing and what to say of it, or the sentence that says why there is none. */
  svg(text: string, name: string): ParsedSvg | { problem: string } {
    try {
      return parseSvg(text, { name })
    } catch (e) {
      return { problem: (e as Error).message }
    }
  },
}

export type ImportWorker = typeof reader

expose(reader)
