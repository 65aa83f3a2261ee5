/** Longest time that a request waits for a database that another program holds, ms, and how often it looks. */
const LONGEST = 5000
const AGAIN = 40

const isHeld = (e: unknown): boolean => /^SQLITE_(BUSY|LOCKED)/.test(String((e as { code?: unknown } | null)?.code))

/**
 * Does work that may find the database held, anew until it is free: the wait is between two tries, so that nobody else
 * has to wait along. Work must not have written anything when it finds the database held.
 */
export async function withPatience<T>(work: () => Promise<T>, longest = LONGEST): Promise<T> {
  const until = Date.now() + longest
  for (;;) {
    try {
      return await work()
    } catch (e) {
      if (!isHeld(e) || Date.now() > until) throw e
      await new Promise((resolve) => setTimeout(resolve, AGAIN))
    }
  }
}
