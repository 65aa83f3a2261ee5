import type { Field } from './grey-image'

/** Weights of a Gaussian, of its first or of its second derivative. */
function kernel(sigma: number, order: Order): Float32Array {
  const reach = Math.ceil(3 * sigma)
  const k = new Float32Array(2 * reach + 1)
  let sum = 0
  for (let i = -reach; i <= reach; i++) sum += k[i + reach] = Math.exp(-(i * i) / (2 * sigma * sigma))
  for (let i = -reach; i <= reach; i++) {
    const g = k[i + reach]! / sum
    k[i + reach] =
      order === 0 ? g : order === 1 ? (-i / (sigma * sigma)) * g : ((i * i) / sigma ** 4 - 1 / (sigma * sigma)) * g
  }
  // The second derivative of what is even everywhere is nothing.
  if (order === 2) {
    const mean = k.reduce((a, b) => a + b, 0) / k.length
    for (let i = 0; i < k.length; i++) k[i]! -= mean
  }
  return k
}

type Order = 0 | 1 | 2

/** Rows of a field convolved with a kernel; beyond its border it goes on as it ends. */
function alongRows(values: Float32Array, width: number, height: number, k: Float32Array): Float32Array {
  const r = (k.length - 1) / 2
  const out = new Float32Array(values.length)
  const line = new Float64Array(width + 2 * r)
  const flipped = Float64Array.from(k).reverse()
  const n = k.length
  for (let y = 0; y < height; y++) {
    const o = y * width
    for (let x = 0; x < line.length; x++) line[x] = values[o + Math.min(width - 1, Math.max(0, x - r))]!
    for (let x = 0; x < width; x++) {
      let sum = 0
      for (let i = 0; i < n; i++) sum += flipped[i]! * line[x + i]!
      out[o + x] = sum
    }
  }
  return out
}

/** Columns of a field convolved with a kernel. */
function alongColumns(values: Float32Array, width: number, height: number, k: Float32Array): Float32Array {
  const r = (k.length - 1) / 2
  const out = new Float32Array(values.length)
  const sum = new Float64Array(width)
  for (let y = 0; y < height; y++) {
    sum.fill(0)
    for (let j = 0; j < k.length; j++) {
      const from = Math.min(height - 1, Math.max(0, y + j - r)) * width
      const w = k[k.length - 1 - j]!
      for (let x = 0; x < width; x++) sum[x]! += w * values[from + x]!
    }
    out.set(sum, y * width)
  }
  return out
}

/** A field convolved with a Gaussian's derivatives of these orders along x and y. */
export function derivatives(
  { width, height, values }: Field,
  sigma: number,
  orders: readonly (readonly [x: Order, y: Order])[],
): Float32Array[] {
  const rows = new Map<Order, Float32Array>()
  return orders.map(([x, y]) => {
    let row = rows.get(x)
    if (!row) rows.set(x, (row = alongRows(values, width, height, kernel(sigma, x))))
    return alongColumns(row, width, height, kernel(sigma, y))
  })
}

/** A field smoothed by a Gaussian. */
export const smoothed = (field: Field, sigma: number): Field => ({
  ...field,
  values: derivatives(field, sigma, [[0, 0]])[0]!,
})
