/** So many wrong tries are free, from one address and from all. */
const FREE = { one: 5, all: 60 }
/** After these each wrong try doubles the wait, from one second to a quarter of an hour, ms. */
const FIRST_WAIT = 1000
const LONGEST_WAIT = 15 * 60_000
/** What was wrong so long ago counts no more, ms. */
const FORGOTTEN = 60 * 60_000
/** So many addresses are remembered. */
const MOST = 10_000

interface Wrong {
  count: number
  last: number
}

/** Slows down whoever guesses at a passphrase, from one address or from many. */
export class Tries {
  private readonly byAddress = new Map<string, Wrong>()
  private all: Wrong = { count: 0, last: 0 }

  /** How long an address has to wait for its next try, ms; 0 for no time. */
  wait(address: string, now: number): number {
    const one = this.byAddress.get(address)
    return Math.max(one ? waitOf(one, FREE.one, now) : 0, waitOf(this.all, FREE.all, now))
  }

  wrong(address: string, now: number): void {
    const one = oneMore(this.byAddress.get(address), now)
    this.byAddress.delete(address)
    this.byAddress.set(address, one)
    if (this.byAddress.size > MOST) this.byAddress.delete(this.byAddress.keys().next().value!)
    this.all = oneMore(this.all, now)
  }

  right(address: string): void {
    this.byAddress.delete(address)
  }
}

const oneMore = (wrong: Wrong | undefined, now: number): Wrong => ({
  count: (wrong && now - wrong.last < FORGOTTEN ? wrong.count : 0) + 1,
  last: now,
})

function waitOf({ count, last }: Wrong, free: number, now: number): number {
  if (count < free || now - last > FORGOTTEN) return 0
  return Math.max(0, last + Math.min(LONGEST_WAIT, FIRST_WAIT * 2 ** (count - free)) - now)
}
