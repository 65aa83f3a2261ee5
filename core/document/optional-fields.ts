import type {
  Amendment,
  Drawing,
  Fill,
  Finish,
  Ink,
  KeptTrace,
  Line,
  PenTrace,
  Settings,
  Shape,
  Sketch,
  Weight,
} from '../model/model'

/** The keys that a record of type `T`, or of one of its kinds, may lack. */
export type Lacking<T> = T extends unknown
  ? { [K in keyof T]-?: object extends Pick<T, K> ? K : never }[keyof T]
  : never

type Records =
  | Line
  | Shape
  | Sketch
  | Weight
  | Finish
  | PenTrace
  | KeptTrace
  | Settings
  | Settings['shapes']
  | Ink
  | Amendment
  | Fill

/** Every field that a record of a drawing may lack and that patches put in or take away. A new one is missed by the compiler. */
const OPTIONAL: Record<Lacking<Records>, true> = {
  scrapes: true,
  outside: true,
  contact: true,
  tuck: true,
  over: true,
  apart: true,
  tint: true,
  name: true,
  hidden: true,
  locked: true,
  clean: true,
  corners: true,
  crop: true,
  mirrored: true,
  plain: true,
  unlit: true,
  rough: true,
  loop: true,
  least: true,
  most: true,
  variation: true,
  fromSpeed: true,
  unevenness: true,
  widthTolerance: true,
  squared: true,
  zoom: true,
  part: true,
  reversed: true,
  light: true,
  corner: true,
  proof: true,
  print: true,
  by: true,
  behind: true,
  limit: true,
  length: true,
  under: true,
  shades: true,
  both: true,
  frontsByOrder: true,
  left: true,
  fresh: true,
  ink: true,
  otherwise: true,
  lit: true,
}

/** Whether a field of a record may be absent. */
export const isOptional = (field: string): boolean => Object.hasOwn(OPTIONAL, field)

/** A drawing whose lists that it may lack are not there where they are empty: there is one form of having none. */
export function withoutEmptyLists(drawing: Drawing): Drawing {
  const { amendments, fills, ...rest } = drawing
  if (amendments?.length !== 0 && fills?.length !== 0) return drawing
  return { ...rest, ...(amendments?.length && { amendments }), ...(fills?.length && { fills }) }
}
