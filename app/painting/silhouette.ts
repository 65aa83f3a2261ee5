/** Ink from this strength on is an edge. */
const EDGE = 90

/**
 * Fills all that ink closes off from the border of a picture: its silhouette.
 *
 * @param data RGBA, four bytes a dot; every dot of it becomes black or clear
 */
export function fillSilhouette(data: Uint8ClampedArray, width: number, height: number): void {
  const outside = new Uint8Array(width * height)
  const open: number[] = []
  const reach = (x: number, y: number): void => {
    const i = y * width + x
    if (x < 0 || y < 0 || x >= width || y >= height || outside[i] || data[i * 4 + 3]! >= EDGE) return
    outside[i] = 1
    open.push(i)
  }
  for (let x = 0; x < width; x++) for (const y of [0, height - 1]) reach(x, y)
  for (let y = 0; y < height; y++) for (const x of [0, width - 1]) reach(x, y)
  for (let i = open.pop(); i !== undefined; i = open.pop()) {
    const [x, y] = [i % width, Math.floor(i / width)]
    reach(x - 1, y)
    reach(x + 1, y)
    reach(x, y - 1)
    reach(x, y + 1)
  }
  for (let i = 0; i < outside.length; i++) data.set([0, 0, 0, outside[i] ? 0 : 255], i * 4)
}
