/** Keeps what is worked out of a thing for as long as that is the same. */
export function remembered<K extends object, R extends object | string | number | boolean | null>(
  work: (thing: K) => R,
): (thing: K) => R {
  const known = new WeakMap<K, R>()
  return (thing) => {
    let result = known.get(thing)
    if (result === undefined) known.set(thing, (result = work(thing)))
    return result
  }
}

/** As `remembered`, for as long as the other things that the work goes by are the same as well. */
export function rememberedBy<K extends object, D extends readonly unknown[], R>(
  work: (thing: K, ...by: D) => R,
): (thing: K, ...by: D) => R {
  const known = new WeakMap<K, { by: D; result: R }>()
  return (thing, ...by) => {
    let was = known.get(thing)
    if (!was?.by.every((b, i) => b === by[i])) known.set(thing, (was = { by, result: work(thing, ...by) }))
    return was.result
  }
}

/** Keeps what was worked out last, for as long as all that the work goes by is the same. */
export function lastOf<D extends readonly unknown[], R>(work: (...by: D) => R): (...by: D) => R {
  let last: { by: D; result: R } | null = null
  return (...by) => {
    if (!last?.by.every((b, i) => b === by[i])) last = { by, result: work(...by) }
    return last.result
  }
}

/**
 * As `lastOf`, of long work on a thing that goes by what `by` lists of it. Work that is dropped half way leaves what was
 * known before.
 */
export function lastWork<T, R>(
  by: (thing: T) => readonly unknown[],
  work: (thing: T) => Generator<number, R>,
): (thing: T) => Generator<number, R> {
  let last: { by: readonly unknown[]; result: R } | null = null
  return function* (thing) {
    const now = by(thing)
    if (last?.by.every((b, i) => b === now[i])) return last.result
    const result = yield* work(thing)
    last = { by: now, result }
    return result
  }
}
