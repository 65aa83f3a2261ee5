const C1 = 0x239b961b
const C2 = 0xab0e9789
const C3 = 0x38b34ae5
const C4 = 0xa1e38b93

const turned = (n: number, by: number): number => (n << by) | (n >>> (32 - by))

/** Spreads each bit over all. */
function spread(n: number): number {
  n = Math.imul(n ^ (n >>> 16), 0x85ebca6b)
  n = Math.imul(n ^ (n >>> 13), 0xc2b2ae35)
  return n ^ (n >>> 16)
}

/**
 * 128 bits of whole numbers of 32 bits, as eight letters of 16 bits each. Quick, and good enough to tell apart what nobody
 * forges: A. Appleby, *MurmurHash3* (x86, 128 bits), 2011.
 *
 * @param wordAt the number at a place
 */
export function mixed(count: number, wordAt: (i: number) => number): string {
  let [a, b, c, d] = [0, 0, 0, 0]
  for (let i = 0; i < count; i += 4) {
    a ^= Math.imul(turned(Math.imul(wordAt(i), C1), 15), C2)
    a = (Math.imul(turned(a, 19) + b, 5) + 0x561ccd1b) | 0
    if (i + 1 < count) b ^= Math.imul(turned(Math.imul(wordAt(i + 1), C2), 16), C3)
    b = (Math.imul(turned(b, 17) + c, 5) + 0x0bcaa747) | 0
    if (i + 2 < count) c ^= Math.imul(turned(Math.imul(wordAt(i + 2), C3), 17), C4)
    c = (Math.imul(turned(c, 15) + d, 5) + 0x96cd1c35) | 0
    if (i + 3 < count) d ^= Math.imul(turned(Math.imul(wordAt(i + 3), C4), 18), C1)
    d = (Math.imul(turned(d, 13) + a, 5) + 0x32ac3b17) | 0
  }
  a ^= count
  b ^= count
  c ^= count
  d ^= count
  a = (a + b + c + d) | 0
  ;[b, c, d] = [(b + a) | 0, (c + a) | 0, (d + a) | 0]
  ;[a, b, c, d] = [spread(a), spread(b), spread(c), spread(d)]
  a = (a + b + c + d) | 0
  ;[b, c, d] = [(b + a) | 0, (c + a) | 0, (d + a) | 0]
  return String.fromCharCode(a & 0xffff, a >>> 16, b & 0xffff, b >>> 16, c & 0xffff, c >>> 16, d & 0xffff, d >>> 16)
}
