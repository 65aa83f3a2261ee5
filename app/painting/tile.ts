/** Device px along the side of a tile of ink. */
export const TILE = 512

/** How far the picture of a tile reaches beyond it on each side, device px. */
export const GUTTER = 1
