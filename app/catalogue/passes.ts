import type { PassName } from '#core/model/pass-reached'

/** A pass: a way of looking at a drawing. Its strip is the component of its name in `components/`. */
export interface PassDescription {
  id: PassName
  title: string
  /** The instrument that is in the hand at first. */
  first: string
  /** The derived shapes are seen, not the lines. */
  showsShapes: boolean
  /** The shelf of profiles stands beneath the tray. */
  hasShelf: boolean
}

export type { PassName }

/** The passes in the order of the work; their place is their key. */
export const PASSES: readonly PassDescription[] = [
  { id: 'sketch', title: 'Sketch', first: 'place', showsShapes: false, hasShelf: false },
  { id: 'lines', title: 'Lines', first: 'pen', showsShapes: false, hasShelf: true },
  { id: 'weight', title: 'Weight', first: 'caliper', showsShapes: false, hasShelf: true },
  { id: 'shapes', title: 'Shapes', first: 'inspect', showsShapes: true, hasShelf: false },
  { id: 'fill', title: 'Fill', first: 'pour', showsShapes: true, hasShelf: false },
  { id: 'deliver', title: 'Deliver', first: '', showsShapes: true, hasShelf: false },
]

export const passOf = (id: PassName): PassDescription => PASSES.find((p) => p.id === id)!

/** The instrument of each pass that is in the hand at first. */
export const firstInstruments = (): Record<PassName, string> =>
  Object.fromEntries(PASSES.map((p) => [p.id, p.first])) as Record<PassName, string>
