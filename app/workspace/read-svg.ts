import { wrap } from 'comlink'
import type { ParsedSvg } from '#core/formats/svg/parse-svg'
import { LONGEST } from '#core/formats/xml'
import type { ImportWorker } from '~/workers/import.worker'

/** Longest time for reading a file, ms. */
const LONGEST_TIME = 60_000

/** The person stopped the reading of a file. */
class Stopped extends Error {}

/** An SVG file as a drawing, read in a worker; `stoppable` is given what ends it. */
export async function readSvg(file: File, stoppable?: (stop: () => void) => void): Promise<ParsedSvg> {
  if (file.size > LONGEST)
    throw new Error(`"${file.name}" is larger than ${LONGEST / 1e6} MB. Export it with less detail and try again.`)
  const name =
    file.name
      .replace(/\.[^.]+$/, '')
      .trim()
      .slice(0, 120) || 'Untitled drawing'
  const thread = new Worker(new URL('../workers/import.worker.ts', import.meta.url), { type: 'module' })
  let timer: ReturnType<typeof setTimeout> | undefined
  try {
    const late = new Promise<never>(
      (_, reject) =>
        (timer = setTimeout(
          () =>
            reject(
              new Error(
                `"${file.name}" took longer than ${LONGEST_TIME / 1000} s to read and was given up; nothing was brought in. Simplify or split it where it was made.`,
              ),
            ),
          LONGEST_TIME,
        )),
    )
    const stopped = new Promise<never>((_, reject) =>
      stoppable?.(() => reject(new Stopped('It was stopped, and nothing was brought in.'))),
    )
    const result = await Promise.race([wrap<ImportWorker>(thread).svg(await file.text(), name), stopped, late])
    if ('problem' in result) throw new Error(result.problem)
    return result
  } finally {
    clearTimeout(timer)
    thread.terminate()
  }
}
