import { InputError } from '../errors'
import { short } from '../geometry/path'

const LONGEST = 64

/**
 * Lengths of dashes and gaps in turn, px, from words: numbers apart by spaces or commas, those with an x as multiples of
 * `size` px. Nothing is a whole line.
 *
 * @throws InputError for anything else, negative lengths and dashes that are all of no length
 */
export function dashFrom(text: string, size: number): number[] {
  const words = text
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean)
  const lengths = words.map((word) => {
    const times = /^(\d*\.?\d+)(x?)$/i.exec(word)
    if (!times)
      throw new InputError(
        'dash',
        `"${word.slice(0, 20)}" is no length. Write numbers such as 12 6, or 2x 1x for multiples of the size.`,
      )
    return Number(times[1]) * (times[2] ? size : 1)
  })
  if (lengths.length > LONGEST)
    throw new InputError('dash', `A pattern has at most ${LONGEST} lengths, and this one has ${lengths.length}.`)
  if (lengths.length && !lengths.some((l) => l > 0))
    throw new InputError('dash', 'A pattern needs a length above 0. Leave it empty for a whole line.')
  return lengths
}

/** A pattern in words, as `dashFrom` reads it. */
export const dashText = (dash: readonly number[]): string => dash.map((d) => short(d, 2)).join(' ')
