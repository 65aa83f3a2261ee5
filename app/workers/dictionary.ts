/** Numbers of things, and those of the things that the other side does not have yet. */
export interface Encoded<T> {
  numbers: Int32Array
  fresh: [number: number, thing: T][]
}

/** Tells another thread of things by number, so that each is sent only once for as long as it is part of every telling. */
export class DictionaryEncoder<T extends object> {
  private readonly numbers = new WeakMap<T, number>()
  private next = 0
  /** The telling before, by number, in which a thing was last. */
  private readonly lastIn = new Map<number, number>()
  private telling = 0

  tell(things: readonly T[]): Encoded<T> {
    const before = this.telling++
    const fresh: [number, T][] = []
    const numbers = Int32Array.from(things, (thing) => {
      let n = this.numbers.get(thing)
      if (n === undefined) this.numbers.set(thing, (n = this.next++))
      const last = this.lastIn.get(n)
      if (last !== before && last !== this.telling) fresh.push([n, thing])
      this.lastIn.set(n, this.telling)
      return n
    })
    // What was not told of now is sent again should it come back.
    if (this.lastIn.size > numbers.length)
      for (const [n, last] of this.lastIn) if (last !== this.telling) this.lastIn.delete(n)
    return { numbers, fresh }
  }
}

/** The other side: things by number, as far as the last telling names them. Every telling must be taken, in order. */
export class DictionaryDecoder<T> {
  private readonly held = new Map<number, T>()

  take({ numbers, fresh }: Encoded<T>): T[] {
    for (const [n, thing] of fresh) this.held.set(n, thing)
    const things = Array.from(numbers, (n) => this.held.get(n)!)
    if (this.held.size > numbers.length) {
      const named = new Set(numbers)
      for (const n of this.held.keys()) if (!named.has(n)) this.held.delete(n)
    }
    return things
  }
}
