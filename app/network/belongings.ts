import type { Belongings, BelongingLists, ListName } from '#core/formats/studio/belongings'
import { SHIPPED } from '#core/formats/studio/belongings'
import { lacking, partsOf } from '#core/formats/studio/lacking'
import type { BelongingsChange } from '#core/formats/studio/list-change'
import { listChange } from '#core/formats/studio/list-change'
import { Refusal } from './api'
import { changeBelongings, listSeats, readBelongings } from './seat-api'
import { lastSeat, noteSeat, seatTaken, setSeatTaken } from './seat-taken'

type Fields = Record<string, unknown>

/** What a browser remembered before there were seats was given to the first that was taken in it. */
const MOVED = 'bellatrait:moved'
/** Things of which choices are remembered. */
const THINGS = ['studio', 'keys', 'guide', 'folds', 'folds-small', 'places', 'proof', 'desk-list', 'desk-start']
/** Fields that are lists with tables of their own. */
const LISTS: Readonly<Record<string, Readonly<Record<string, ListName>>>> = {
  studio: { nibs: 'nibs', palettes: 'palettes', deliveries: 'deliveries' },
  keys: { own: 'keys' },
}

/** A choice is sent once the hand has rested so long; anew after a while where nobody answered, ms. */
const REST = 600
const AGAIN = 20_000
/** The application starts without an answer after so long, ms. */
const PATIENCE = 3000

/** The present values of each thing, and those that the server was last known to have. */
const held = new Map<string, () => Fields>()
const agreed = new Map<string, Fields>()
/** Things that changed since they were sent, with what they were. It is kept over a reload. */
let unsent: Record<string, Fields> = {}
let timer: ReturnType<typeof setTimeout> | undefined
let sending: Promise<void> = Promise.resolve()

/** Under which key this browser remembers a thing for the seat that is taken. */
export const keyOf = (thing: string, of = seatTaken()): string => `bellatrait:${thing}${of ? `@${of}` : ''}`

const unsentKey = (): string => `bellatrait:unsent@${seatTaken()}`

function read<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as T | null
  } catch {
    return null
  }
}

/** Storage that is full or closed to us costs only the remembering. */
function write(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, typeof value === 'string' ? value : JSON.stringify(value))
  } catch {
    // It is with the server.
  }
}

const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

/**
 * Takes the seat that was taken here last, or the only one there is, and what belongs to it, before anything is shown.
 * Where nobody answers, what this browser remembers of it serves.
 */
export async function beginSeat(): Promise<void> {
  const last = lastSeat()
  setSeatTaken(last)
  unsent = (last && read<Record<string, Fields>>(unsentKey())) || {}
  try {
    const seats = await listSeats(PATIENCE)
    const taken = seats.find((s) => s.id === last) ?? (seats.length === 1 ? seats[0]! : null)
    if (taken?.id !== last) unsent = {}
    setSeatTaken(taken?.id ?? null)
    if (!taken) return
    for (const thing of Object.keys(unsent)) held.set(thing, () => read<Fields>(keyOf(thing)) ?? {})
    await send()
    held.clear()
    agreed.clear()
    adopt(await withOld(await readBelongings(taken.id), last))
  } catch {
    // What this browser remembers serves; what changes is sent later.
  }
  if (hasUnsent()) timer = setTimeout(flush, AGAIN)
}

/** Takes a seat, for everything from now on: the page is loaded anew. */
export async function takeSeat(id: string): Promise<void> {
  await flushed()
  noteSeat(id)
  globalThis.location.reload()
}

/** What this browser remembered before, and the seat lacks, comes along. */
async function withOld(belongings: Belongings, last: string | null): Promise<Belongings> {
  const isReplaced = !!last && last !== seatTaken() && !!localStorage.getItem(MOVED)
  if (localStorage.getItem(MOVED) && !isReplaced) return belongings
  const old = rememberedHere(isReplaced ? last : null)
  const change = lacking(belongings, old)
  if (partsOf(change).length) await sendParts(seatTaken()!, change)
  write(MOVED, 'yes')
  return readBelongings(seatTaken()!)
}

/** What was remembered each by itself before there were seats, by what it is a field of. */
const ALONE: Readonly<Record<string, readonly [thing: string, field: string]>> = {
  'bellatrait:desk-order': ['desk-list', 'order'],
  'bellatrait:desk-shelf': ['desk-list', 'shelf'],
  'bellatrait:new-page': ['desk-start', 'page'],
  'bellatrait:own-page': ['desk-start', 'own'],
}

/** Words stand there as they are, all else as JSON. */
function readAlone(key: string): unknown {
  const text = localStorage.getItem(key)
  return text?.startsWith('{') ? read(key) : text
}

/** What this browser remembers of a seat, or of nobody's. */
function rememberedHere(of: string | null): Belongings {
  const all: Belongings = { choices: {}, own: [], ...SHIPPED }
  if (!of)
    for (const [key, [thing, field]] of Object.entries(ALONE)) {
      const value = readAlone(key)
      if (value !== null) (all.choices[thing] ??= {})[field] = value
    }
  for (const thing of THINGS)
    for (const [field, value] of Object.entries(read<Fields>(keyOf(thing, of)) ?? {})) {
      const list = LISTS[thing]?.[field]
      if (list && Array.isArray(value)) {
        Object.assign(all, { [list]: value })
        all.own.push(list)
      }
      if (!list) (all.choices[thing] ??= {})[field] = value
    }
  return all
}

/** What belongs to the seat is what this browser starts with. */
function adopt(belongings: Belongings): void {
  for (const thing of THINGS) {
    if (unsent[thing]) continue
    const fields: Fields = { ...read<Fields>(keyOf(thing)), ...belongings.choices[thing] }
    for (const [field, list] of Object.entries(LISTS[thing] ?? {})) fields[field] = belongings[list]
    if (Object.keys(fields).length) write(keyOf(thing), fields)
  }
}

/** A thing whose choices are remembered from now on; `now` answers what they are. */
export function remember(thing: string, now: () => Fields): void {
  held.set(thing, now)
  if (!agreed.has(thing)) agreed.set(thing, copy(unsent[thing] ?? now()))
}

/** A choice about a thing was changed. */
export function changed(thing: string): void {
  if (!seatTaken()) return
  if (!unsent[thing]) {
    unsent[thing] = agreed.get(thing)!
    write(unsentKey(), unsent)
  }
  clearTimeout(timer)
  timer = setTimeout(flush, REST)
}

const hasUnsent = (): boolean => !!seatTaken() && Object.keys(unsent).length > 0

function flush(): void {
  void flushed()
}

/** Sends what is not sent yet, one after the other. */
function flushed(): Promise<void> {
  clearTimeout(timer)
  sending = sending.then(send).catch(() => {
    timer = setTimeout(flush, AGAIN)
  })
  return sending
}

/** @throws Refusal where it is to be tried again */
async function send(): Promise<void> {
  const things = Object.keys(unsent)
  const seat = seatTaken()
  if (!seat || !things.length) return
  const before = unsent
  const now = Object.fromEntries(things.map((t) => [t, copy(held.get(t)!())]))
  unsent = {}
  const change: BelongingsChange = {}
  for (const thing of things) addChange(change, thing, before[thing]!, now[thing]!)
  try {
    if (Object.keys(change).length) await sendParts(seat, change)
  } catch (e) {
    unsent = { ...unsent, ...before }
    throw e
  }
  for (const thing of things) agreed.set(thing, now[thing]!)
  // What changed meanwhile did so from what was sent just now.
  for (const thing of Object.keys(unsent)) unsent[thing] = agreed.get(thing)!
  write(unsentKey(), unsent)
}

/**
 * Sends a change; where the server will not take it, part by part: what it never takes stays with this browser alone.
 *
 * @throws Refusal where it is to be tried again
 */
async function sendParts(seat: string, change: BelongingsChange): Promise<void> {
  try {
    await changeBelongings(seat, change)
  } catch (e) {
    if (!(e instanceof Refusal) || ![400, 404, 413].includes(e.status)) throw e
    const parts = partsOf(change)
    if (parts.length > 1) for (const part of parts) await sendParts(seat, part)
    else console.warn(`What belongs to this seat was not kept: ${e.message}`)
  }
}

/** Adds to a change what leads from some values of a thing to others. */
function addChange(change: BelongingsChange, thing: string, before: Fields, after: Fields): void {
  for (const [field, value] of Object.entries(after)) {
    const list = LISTS[thing]?.[field]
    if (JSON.stringify(before[field]) === JSON.stringify(value)) continue
    if (!list) {
      ;((change.choices ??= {})[thing] ??= {})[field] = value
      continue
    }
    const [was, is] = [before[field] ?? SHIPPED[list], value] as [
      BelongingLists[typeof list],
      BelongingLists[typeof list],
    ]
    Object.assign(change, { [list]: listChange(list, was, is) ?? undefined })
  }
}

if (typeof window !== 'undefined') {
  window.addEventListener('pagehide', () => void (hasUnsent() && flush()))
  window.addEventListener('online', () => void (hasUnsent() && flush()))
}
