/** Device px along the side of a tile of ink. */
export const TILE = 512
