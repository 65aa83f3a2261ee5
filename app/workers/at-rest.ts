/** So long after the last request the hand is taken to rest, ms. */
const REST = 1500

/** Does something once nothing was asked for a while, each time anew; `touched` says that something was. */
export class AtRest {
  private timer: ReturnType<typeof setTimeout> | undefined
  /** Counts requests: work at rest is given up when one comes. */
  private touches = 0

  constructor(private readonly work: (go: () => boolean) => Promise<void>) {}

  touched(): void {
    const mine = ++this.touches
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.work(() => mine === this.touches), REST)
  }
}
