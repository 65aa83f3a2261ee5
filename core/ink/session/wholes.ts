import type { Drawing } from '../../model/model'
import { digestOf } from '../../recall/digest'
import type { Code, Recall } from '../../recall/recall'

interface Made {
  drawing: Drawing
  encode: () => Float64Array | null
}

/**
 * What was made of a whole drawing. It is found again for as long as nothing was done to the drawing since it was opened, so
 * that what is seen first needs no stage; and it is kept only when all is written, since its key is the whole drawing.
 */
export class Wholes {
  private readonly made = new Map<string, Made>()
  private readonly asked = new Set<string>()
  private key: string | null = null

  constructor(
    private readonly recall: Recall | null,
    private readonly opened: Drawing,
  ) {}

  /** What `work` makes of a drawing, or made of one that was the same. */
  *of<T>(what: string, drawing: Drawing, code: Code<T>, work: () => Generator<number, T>): Generator<number, T> {
    if (!this.recall) return yield* work()
    const found = this.found(what, drawing, code)
    if (found) return found
    const result = yield* work()
    this.made.set(what, { drawing, encode: () => code.encode(result) })
    return result
  }

  private found<T>(what: string, drawing: Drawing, code: Code<T>): T | null {
    if (drawing !== this.opened || this.asked.has(what)) return null
    this.asked.add(what)
    this.key ??= keyOf(drawing)
    const numbers = this.recall!.find(digestOf(what + this.key))
    return numbers && code.decode(numbers)
  }

  /** Keeps what was made of a drawing as it is now. */
  keep(drawing: Drawing): void {
    const made = [...this.made].filter(([, m]) => m.drawing === drawing)
    this.made.clear()
    if (!made.length || !this.recall) return
    const key = keyOf(drawing)
    for (const [what, { encode }] of made) {
      const numbers = encode()
      if (!numbers) continue
      this.recall.keep(digestOf(what + key), numbers)
      this.recall.own(digestOf(what + key), drawing)
    }
  }
}

/** The key of all of a drawing. */
const keyOf = (drawing: Drawing): string => digestOf(JSON.stringify(drawing))
