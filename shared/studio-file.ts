/** Kinds of things in a studio file, in the order in which they are shown. */
export const STUDIO_KINDS = ['nibs', 'profiles', 'palettes', 'deliveries', 'keys', 'templates'] as const
export type StudioKind = (typeof STUDIO_KINDS)[number]

/**
 * What taking a thing would do: it is new here; here just so; here otherwise, and would be written over; or its name is
 * another's here.
 */
export type StudioState = 'new' | 'same' | 'changed' | 'clash'

/** A thing of a studio file, beside what is here. */
interface StudioThing {
  kind: StudioKind
  name: string
  state: StudioState
}

/** A studio file before it is brought in. */
export interface StudioPreview {
  /** Whose it is, as the file says. */
  from: string
  things: StudioThing[]
}

/** Which things of a preview are taken, as one letter each: 1 for those that are. */
export const picks = (taken: readonly boolean[]): string => taken.map((t) => (t ? '1' : '0')).join('')
