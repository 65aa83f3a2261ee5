/** Numbers of things, and those of the things that the other side does not have yet. */
export interface Told<T> {
  numbers: number[]
  fresh: [number: number, thing: T][]
}

/** Tells another thread of things by number, so that each is sent only once for as long as it is part of every telling. */
export class SentOnce<T extends object> {
  private readonly numbers = new WeakMap<T, number>()
  private next = 0
  private held = new Set<number>()

  tell(things: readonly T[]): Told<T> {
    const fresh: [number, T][] = []
    const now = new Set<number>()
    const numbers = things.map((thing) => {
      let n = this.numbers.get(thing)
      if (n === undefined) this.numbers.set(thing, (n = this.next++))
      if (!this.held.has(n) && !now.has(n)) fresh.push([n, thing])
      now.add(n)
      return n
    })
    this.held = now
    return { numbers, fresh }
  }
}

/** The other side: things by number, as far as the last telling names them. Every telling must be taken, in order. */
export class HeldOnce<T> {
  private held = new Map<number, T>()

  take({ numbers, fresh }: Told<T>): T[] {
    const known = fresh.length ? new Map([...this.held, ...fresh]) : this.held
    const things = numbers.map((n) => known.get(n)!)
    this.held = new Map(numbers.map((n, i) => [n, things[i]!]))
    return things
  }
}
