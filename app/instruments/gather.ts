/** How a drag over paper gathers: a box, a loop drawn by hand, or whatever the drag touches. */
export const GATHERS = ['box', 'lasso', 'touch'] as const
export type Gather = (typeof GATHERS)[number]
