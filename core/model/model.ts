/** The types of the document, behind one door. */
export type * from './amendment'
export type * from './drawing'
export type * from './fill'
export type * from './line'
export type * from './sketch'
