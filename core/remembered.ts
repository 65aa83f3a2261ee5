/** Keeps what is worked out of a thing for as long as that is the same. */
export function remembered<K extends object, R>(work: (thing: K) => R): (thing: K) => R {
  const known = new WeakMap<K, { result: R }>()
  return (thing) => {
    let was = known.get(thing)
    if (!was) known.set(thing, (was = { result: work(thing) }))
    return was.result
  }
}

/** As `remembered`, for as long as the other things that the work goes by are the same as well. */
export function rememberedBy<K extends object, D extends readonly unknown[], R>(work: (thing: K, ...by: D) => R): (thing: K, ...by: D) => R {
  const known = new WeakMap<K, { by: D; result: R }>()
  return (thing, ...by) => {
    let was = known.get(thing)
    if (!was?.by.every((b, i) => b === by[i])) known.set(thing, (was = { by, result: work(thing, ...by) }))
    return was.result
  }
}
