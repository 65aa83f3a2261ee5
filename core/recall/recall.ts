/** What was worked out before, by a key of all that went into it. */
export interface Recall {
  /** The numbers that were kept under a key, as they were; null where nothing is, or what is there is damaged. */
  find: (key: string) => Float64Array | null
  keep: (key: string, numbers: Float64Array) => void
  /** Says what lives for as long as the result under a key is in use. */
  own: (key: string, owner: object) => void
}

/** Results as numbers, and back. */
export interface Code<T> {
  /** Null for what is not to be kept. */
  encode: (result: T) => Float64Array | null
  /** Null for numbers that do not fit. */
  decode: (numbers: Float64Array) => T | null
  /** What lives for as long as a result is in use; null where that cannot be told. */
  owner: (result: T) => object | null
}

/** What `work` makes, or made when all that `key` is made of was the same. Without a recall it is worked out. */
export function recalled<T>(recall: Recall | null, key: () => string, code: Code<T>, work: () => T): T {
  if (!recall) return work()
  const own = key()
  const kept = recall.find(own)
  let result = kept && code.decode(kept)
  if (result === null) {
    result = work()
    const numbers = code.encode(result)
    if (!numbers) return result
    recall.keep(own, numbers)
  }
  const owner = code.owner(result)
  if (owner) recall.own(own, owner)
  return result
}
