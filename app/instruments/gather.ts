/** How a drag over paper gathers: a box, a loop drawn by hand, or whatever the drag touches. */
export type Gather = 'box' | 'lasso' | 'touch'
