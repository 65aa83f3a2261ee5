import type { Line } from '../model/model'
import type { Code } from '../recall/recall'
import type { EndContact, LinePlace } from './end-contacts'

const KINDS: readonly EndContact['kind'][] = ['free', 'meeting', 'crossing']

/** Numbers of a contact before those of the places that it touches. */
const HEAD = 12
/** Numbers a touched place takes. */
const TOUCHED = 3

/** What ends of lines do as numbers; lines are told by their places in the list. */
export const contactCode = (lines: readonly Line[]): Code<EndContact[]> => ({
  encode: (contacts) => encoded(contacts, lines),
  decode: (numbers) => decoded(numbers, lines),
  owner: () => lines,
})

function encoded(contacts: readonly EndContact[], lines: readonly Line[]): Float64Array {
  const places = new Map(lines.map((l, i) => [l.id, i]))
  const out = new Float64Array(contacts.reduce((n, c) => n + HEAD + TOUCHED * c.touched.length, 0))
  let at = 0
  const write = (...numbers: number[]): void => {
    for (const n of numbers) out[at++] = n
  }
  for (const c of contacts) {
    const { under } = c
    write(places.get(c.line)!, c.end === 'first' ? 0 : 1, c.at.x, c.at.y, c.place, c.outward.x, c.outward.y)
    write(KINDS.indexOf(c.kind), under ? places.get(under.line)! : -1, under?.at ?? 0, Number(c.point))
    write(c.touched.length)
    for (const t of c.touched) write(places.get(t.line)!, t.at, Number(t.ends))
  }
  return out
}

/** Contacts word for word as they were found: the order of what they hold counts where their text is a key. */
function decoded(code: Float64Array, lines: readonly Line[]): EndContact[] {
  const contacts: EndContact[] = []
  const placeAt = (i: number): LinePlace => ({ line: lines[code[i]!]!.id, at: code[i + 1]! })
  for (let i = 0; i < code.length; i += HEAD + TOUCHED * code[i + HEAD - 1]!) {
    contacts.push({
      line: lines[code[i]!]!.id,
      end: code[i + 1] === 0 ? 'first' : 'last',
      at: { x: code[i + 2]!, y: code[i + 3]! },
      outward: { x: code[i + 5]!, y: code[i + 6]! },
      place: code[i + 4]!,
      kind: KINDS[code[i + 7]!]!,
      under: code[i + 8]! < 0 ? null : placeAt(i + 8),
      touched: Array.from({ length: code[i + HEAD - 1]! }, (_, k) => {
        const at = i + HEAD + TOUCHED * k
        return { ...placeAt(at), ends: code[at + 2] === 1 }
      }),
      point: code[i + 10] === 1,
    })
  }
  return contacts
}
