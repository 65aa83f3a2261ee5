/** Whether two lists hold the very same things in the same order. */
export const isSameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i])
