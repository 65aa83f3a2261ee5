import { inject } from 'vitest'

declare module 'vitest' {
  interface ProvidedContext {
    /** All that there is, as in `npm run soak`; otherwise the part of it that finds faults within minutes. */
    thorough: boolean
  }
}

/** The first number, or the second where all is wanted. */
export const few = (some: number, all: number): number => (inject('thorough') ? all : some)

/** One of `share` things, the first among them, or all where all is wanted. */
export const someOf = <T>(all: readonly T[], share: number): T[] =>
  all.filter((_, i) => inject('thorough') || i % share === 0)
