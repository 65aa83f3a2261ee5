import { seeded } from '../../unit/support/random-lines'

export type Random = () => number
export { seeded }

const pick = <T>(r: Random, all: readonly T[]): T => all[Math.floor(r() * all.length)]!

const ODD_WORDS = [
  '',
  ' ',
  '0',
  '-1',
  '-0',
  'NaN',
  'Infinity',
  '1e999',
  '-1e308',
  '1e-320',
  '99999999999999999999999999',
  '0x10',
  'null',
  'true',
  '__proto__',
  'constructor',
  '\u0000',
  '\ud800',
  '\u202e',
  '&amp;',
  '<',
  '"',
  "'",
  '%00',
  '../..',
  '#',
  'url(#a)',
  '2000-13-45T99:99:99Z',
  '😀'.repeat(40),
  'a'.repeat(5000),
  '['.repeat(300),
  '('.repeat(300),
]

/** A text with something odd done to it: cut, doubled, numbers and words changed, characters swapped. */
export function oddText(text: string, r: Random): string {
  let out = text
  for (let n = 1 + Math.floor(r() * 3); n > 0; n--) {
    const [a, b] = [Math.floor(r() * out.length), Math.floor(r() * out.length)].sort((x, y) => x - y) as [
      number,
      number,
    ]
    const numbers = [...out.matchAll(/-?\d+(\.\d+)?/g)]
    const words = [...out.matchAll(/[A-Za-z][A-Za-z-]+/g)]
    switch (Math.floor(r() * 8)) {
      case 0:
        out = out.slice(0, a)
        break
      case 1:
        out = out.slice(0, a) + out.slice(Math.min(b, a + 200))
        break
      case 2:
        out = out.slice(0, b) + out.slice(a, Math.min(b, a + 400)) + out.slice(b)
        break
      case 3:
        out = out.slice(0, a) + pick(r, ODD_WORDS) + out.slice(a)
        break
      case 4:
        out = out.slice(0, a) + String.fromCharCode(Math.floor(r() * 0x300)) + out.slice(a + 1)
        break
      case 5:
      case 6: {
        const m = pick(r, r() < 0.6 && numbers.length ? numbers : words)
        if (m) out = out.slice(0, m.index) + pick(r, ODD_WORDS) + out.slice(m.index + m[0].length)
        break
      }
      default: {
        const [m, k] = [pick(r, words), pick(r, words)]
        if (m && k) out = out.slice(0, m.index) + k[0] + out.slice(m.index + m[0].length)
      }
    }
  }
  return out
}

/** Bytes with some of them changed, cut off or doubled. */
export function oddBytes(bytes: Uint8Array, r: Random): Uint8Array<ArrayBuffer> {
  const out = Uint8Array.from(bytes)
  // Most of what decides stands at the beginning or at the end.
  const place = (): number =>
    Math.floor(
      r() < 0.5
        ? Math.min(out.length, 400) * r()
        : r() < 0.5
          ? out.length - Math.min(out.length, 400) * r()
          : out.length * r(),
    )
  for (let n = 1 + Math.floor(r() * 6); n > 0; n--) out[place()] = Math.floor(r() * 256)
  const way = r()
  if (way < 0.2) return out.slice(0, place())
  if (way < 0.3) return Uint8Array.from([...out.slice(0, place()), ...out.slice(place())])
  return out
}

const ODD_VALUES: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  1e-320,
  1.5,
  2 ** 53,
  '',
  'a',
  '1',
  '__proto__',
  'a'.repeat(3000),
  [],
  {},
  [[]],
  [null],
  { toString: 1 },
  Array.from({ length: 2000 }, () => 0),
  '\u0000',
  '2000-13-45',
]

/** A copy of a value that JSON can hold, with one to three of its parts odd: another value, gone, doubled, or one more field. */
export function oddValue(value: unknown, r: Random): unknown {
  const copy = JSON.parse(JSON.stringify(value)) as unknown
  const holders: (Record<string, unknown> | unknown[])[] = []
  const walk = (v: unknown): void => {
    if (typeof v !== 'object' || v === null) return
    holders.push(v as Record<string, unknown>)
    Object.values(v).forEach(walk)
  }
  walk(copy)
  if (!holders.length) return pick(r, ODD_VALUES)
  for (let n = 1 + Math.floor(r() * 3); n > 0; n--) {
    const at = pick(r, holders) as Record<string, unknown>
    const key = pick(r, Object.keys(at))
    const way = r()
    if (key === undefined || way < 0.15)
      at[pick(r, ['id', 'extra', 'toString', 'constructor', '0', 'länge'])] = pick(r, ODD_VALUES)
    else if (way < 0.3 && !Array.isArray(at)) delete at[key]
    else if (way < 0.4 && Array.isArray(at)) at.push(at[key])
    else at[key] = pick(r, ODD_VALUES)
  }
  return copy
}
