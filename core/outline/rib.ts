/**
 * One side's rib at a place of the centreline: it leads from the centre, `half` px along a unit direction, to the edge of
 * the ink. With the derivatives of all three by the segment's t.
 */
export interface Rib {
  cx: number
  cy: number
  cdx: number
  cdy: number
  /** Unit direction of the rib. */
  nx: number
  ny: number
  ndx: number
  ndy: number
  half: number
  halfSlope: number
  /** Both sides' widths together, px. */
  width: number
}

/** Room for one rib, all zeros. */
export const newRib = (): Rib => ({
  cx: 0,
  cy: 0,
  cdx: 0,
  cdy: 0,
  nx: 0,
  ny: 0,
  ndx: 0,
  ndy: 0,
  half: 0,
  halfSlope: 0,
  width: 0,
})
