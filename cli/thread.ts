import { parentPort } from 'node:worker_threads'
import { pageOfBand } from '#core/ink/session/bands'
import { atOnce } from '../core/turns'
import { expandFile } from './expand-file'
import type { Answered, Asked, Jobs } from './jobs'

const made = async (asked: Asked): Promise<Jobs[keyof Jobs]['made']> =>
  asked.what === 'expand' ? expandFile(asked.of) : atOnce(pageOfBand(asked.of.band, asked.of.engine))

parentPort!.on('message', async (asked: Asked) => {
  let answer: Answered
  try {
    answer = { made: await made(asked) }
  } catch (e) {
    answer = { why: (e as Error).message }
  }
  parentPort!.postMessage(answer)
})
