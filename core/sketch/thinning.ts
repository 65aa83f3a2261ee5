/**
 * Thins a mask (1 in, 0 out, by rows) to lines one pixel wide that hang together as it did, in place (T. Y. Zhang and
 * C. Y. Suen, A fast parallel algorithm for thinning digital patterns, 1984). The border of the picture is cleared.
 */
export function thin(mask: Uint8Array, width: number, height: number): void {
  for (let x = 0; x < width; x++) mask[x] = mask[(height - 1) * width + x] = 0
  for (let y = 0; y < height; y++) mask[y * width] = mask[y * width + width - 1] = 0
  let active: number[] = []
  for (let i = 0; i < mask.length; i++) if (mask[i]) active.push(i)
  const ring = [-width, -width + 1, 1, width + 1, width, width - 1, -1, -width - 1]
  for (let changed = true; changed;) {
    changed = false
    for (const pass of [0, 1]) {
      const gone: number[] = []
      for (const i of active) {
        let count = 0
        let rises = 0
        for (let k = 0; k < 8; k++) {
          const here = mask[i + ring[k]!]!
          count += here
          if (!here && mask[i + ring[(k + 1) % 8]!]) rises++
        }
        if (count < 2 || count > 6 || rises !== 1) continue
        const [up, right, down, left] = [
          mask[i + ring[0]!]!,
          mask[i + ring[2]!]!,
          mask[i + ring[4]!]!,
          mask[i + ring[6]!]!,
        ]
        if (
          pass === 0
            ? up * right * down === 0 && right * down * left === 0
            : up * right * left === 0 && up * down * left === 0
        )
          gone.push(i)
      }
      for (const i of gone) mask[i] = 0
      if (gone.length) {
        changed = true
        active = active.filter((i) => mask[i])
      }
    }
  }
  withoutSteps(mask, ring, active)
}

/**
 * Takes out what makes a slanting line two pixels wide, each pixel of which would look like a junction: corners whose two
 * neighbours touch each other anyway (C. M. Holt et al., An improved parallel thinning algorithm, 1987).
 */
function withoutSteps(mask: Uint8Array, ring: readonly number[], pixels: readonly number[]): void {
  for (const i of pixels) {
    const on = (k: number): number => mask[i + ring[(k + 8) % 8]!]!
    for (const k of [0, 2, 4, 6]) {
      // Neighbours at k and k + 2, and nothing that would hang on this pixel alone.
      if (!on(k) || !on(k + 2) || on(k + 4) || on(k + 5) || on(k + 6)) continue
      mask[i] = 0
      break
    }
  }
}
