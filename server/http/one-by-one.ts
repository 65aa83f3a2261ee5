/** Pictures are decoded one after the other: each may take hundreds of megabytes while it lasts. */
let before: Promise<unknown> = Promise.resolve()

/** Does work on a picture once what was asked for before it is done. */
export function oneByOne<T>(work: () => Promise<T>): Promise<T> {
  const mine = before.then(work)
  before = mine.catch(() => undefined)
  return mine
}
