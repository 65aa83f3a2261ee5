import type { Cubic } from '../geometry/cubic'
import { remembered } from '../remembered'
import { codeOfContours, encodedContours } from './contour-code'
import { mixed } from './mixed'

/** The key of some text: eight letters of 16 bits. */
export const digestOf = (text: string): string => mixed(text.length, (i) => text.charCodeAt(i))

/** The key of numbers, bit for bit. */
export function digestOfNumbers({ buffer, byteOffset, byteLength }: Float64Array): string {
  const words = new Int32Array(buffer, byteOffset, byteLength / 4)
  return mixed(words.length, (i) => words[i]!)
}

/** The key of a thing that is all data, by its JSON; worked out once for as long as it is the same object. */
export const digestOfData = remembered((thing: object): string => digestOf(JSON.stringify(thing)))

/** The key of contours with the curves that they were cut from; worked out once for as long as they are the same. */
export const digestOfContours = remembered((contours: readonly (readonly Cubic[])[]): string =>
  digestOfNumbers(codeOfContours(contours)),
)

/** As `digestOfContours`, of one contour. */
export const digestOfContour = remembered((contour: readonly Cubic[]): string =>
  digestOfNumbers(encodedContours([contour])),
)
