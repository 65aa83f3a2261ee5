import type { Code } from './recall'

/** Text as numbers: how many bytes, and these, eight to a number. */
export function encodedText(text: string): Float64Array {
  const bytes = new TextEncoder().encode(text)
  const numbers = new Float64Array(1 + Math.ceil(bytes.length / 8))
  numbers[0] = bytes.length
  new Uint8Array(numbers.buffer).set(bytes, 8)
  return numbers
}

/** The text that begins at a place among numbers, and where it ends. */
export function decodedText(numbers: Float64Array, at = 0): { text: string; end: number } {
  const length = numbers[at]!
  const bytes = new Uint8Array(numbers.buffer, numbers.byteOffset + 8 * (at + 1), length)
  return { text: new TextDecoder().decode(bytes), end: at + 1 + Math.ceil(length / 8) }
}

/** Things that are all data as numbers, by their JSON. */
export const dataCode = <T extends object>(): Code<T> => ({
  encode: (thing) => encodedText(JSON.stringify(thing)),
  decode: (numbers) => JSON.parse(decodedText(numbers).text) as T,
  owner: () => null,
})
