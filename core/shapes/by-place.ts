import type { Contour } from './contour-views'

/** Contours by where they begin and how they go on: the same order whatever was made first. */
export const byPlace = (a: Contour, b: Contour): number =>
  a[0]!.p0.x - b[0]!.p0.x ||
  a[0]!.p0.y - b[0]!.p0.y ||
  a.length - b.length ||
  a[0]!.p3.x - b[0]!.p3.x ||
  a[0]!.p3.y - b[0]!.p3.y

/** Where something with a contour comes among others that are in order, from a place on. */
export function placeOf(
  { contour }: { contour: Contour },
  others: readonly { contour: Contour }[],
  from: number,
): number {
  let [low, high] = [from, others.length]
  while (low < high) {
    const mid = (low + high) >> 1
    if (byPlace(others[mid]!.contour, contour) <= 0) low = mid + 1
    else high = mid
  }
  return low
}
