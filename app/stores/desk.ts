import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { freeName } from '#core/model/free-name'
import type { ActBody, DrawingCard, RestoreReport, Shelf } from '#shared/desk'
import type { Seat } from '#shared/seats'
import {
  actOn,
  addShelf,
  backupAddress,
  bringBackupIn,
  copyDrawing,
  findingsCount,
  listBin,
  listDrawings,
  listShelves,
  removeShelf,
  renameDrawing,
  renameShelf,
} from '~/network/api'
import { forgetPages } from '~/workers/recall-store'
import { forgetKept, keptDrawings } from '~/network/kept-drawings'
import type { Way } from './drawing'
import { useSeatsStore } from './seats'

/** It is tried again by itself, ever less often, ms. */
const AGAIN = { first: 2000, last: 20_000 }

const count = (n: number): string => `${n} ${n === 1 ? 'drawing' : 'drawings'}`

/** The Desk: its drawings, shelves and bin, and what is done with them. */
export const useDeskStore = defineStore('desk', () => {
  const seats = useSeatsStore()
  const cards = shallowRef<DrawingCard[] | null>(null)
  /** Drawings that lie here for whoever sits here: other people's copies for tasks have pages of their own. */
  const laid = computed(() => (cards.value ?? []).filter((c) => !c.task || !c.seat || c.seat === seats.taken))
  const bin = shallowRef<DrawingCard[]>([])
  const shelves = shallowRef<Shelf[]>([])
  const notice = ref('')
  /** Ways out of what the notice tells of. */
  const ways = shallowRef<readonly Way[]>([])
  /** What is going on, in words. */
  const busy = ref('')
  /** Why the Desk could not be opened. */
  const closedBecause = ref('')
  /** Drawings that can be opened all the same. */
  const kept = ref<{ id: string; name: string }[]>([])
  let pause = AGAIN.first
  let timer: ReturnType<typeof setTimeout> | undefined

  function tell(text: string, out: readonly Way[] = []): void {
    notice.value = text
    ways.value = out
  }

  async function load(): Promise<void> {
    clearTimeout(timer)
    try {
      ;[cards.value, bin.value, shelves.value] = await Promise.all([
        listDrawings(),
        listBin(),
        listShelves(),
        seats.load(),
      ])
      closedBecause.value = ''
      pause = AGAIN.first
    } catch (e) {
      closedBecause.value = (e as Error).message
      kept.value = await keptDrawings().catch(() => [])
      timer = setTimeout(() => void load(), pause)
      pause = Math.min(AGAIN.last, pause * 2)
    }
  }

  const leave = (): void => clearTimeout(timer)

  /** Does work, tells what went wrong, and shows the Desk as it is then. Answers whether it was done. */
  async function attempt(work: () => Promise<unknown>, what = ''): Promise<boolean> {
    busy.value = what
    try {
      await work()
      return true
    } catch (e) {
      tell((e as Error).message)
      return false
    } finally {
      busy.value = ''
    }
  }

  /** As `attempt`, and loads the Desk again. */
  const change = (work: () => Promise<unknown>, what = ''): Promise<boolean> => attempt(() => work().then(load), what)

  const act = (ids: readonly string[], what: ActBody['act'], shelf?: string | null): Promise<boolean> =>
    change(() => actOn({ ids: [...ids], act: what, ...(shelf !== undefined && { shelf }) }))

  const namesOf = (ids: readonly string[]): string => {
    const [only] = ids
    return ids.length === 1
      ? `"${[...(cards.value ?? []), ...bin.value].find((c) => c.id === only)?.name ?? ''}"`
      : count(ids.length)
  }

  async function intoBin(ids: readonly string[]): Promise<void> {
    const text = `${namesOf(ids)} ${ids.length === 1 ? 'is' : 'are'} in the bin, for 30 days.`
    if (await act(ids, 'bin')) tell(text, [{ title: 'Put back', run: () => void putBack(ids) }])
  }

  async function putBack(ids: readonly string[]): Promise<void> {
    if (await act(ids, 'restore')) tell('')
  }

  async function erase(ids: readonly string[]): Promise<void> {
    const text = `${namesOf(ids)} ${ids.length === 1 ? 'was' : 'were'} thrown away.`
    if (!(await act(ids, 'erase'))) return
    tell(text)
    // What this browser worked out of them goes with them; where it cannot, it is given back in time.
    await forgetPages(ids).catch(() => undefined)
    await Promise.all(ids.map(forgetKept)).catch(() => undefined)
  }

  async function shelve(ids: readonly string[], shelf: string | null): Promise<void> {
    const name = shelves.value.find((s) => s.id === shelf)?.name
    const text = name
      ? `${namesOf(ids)} ${ids.length === 1 ? 'lies' : 'lie'} on the shelf "${name}" now.`
      : `${namesOf(ids)} ${ids.length === 1 ? 'lies' : 'lie'} on no shelf now.`
    if (await act(ids, 'shelve', shelf)) tell(text)
  }

  /** A shelf of this name, made for some drawings that come to lie on it. Answers its id. */
  async function newShelf(name: string, ids: readonly string[] = []): Promise<string | null> {
    let made = ''
    const done = await change(async () => {
      made = (await addShelf(name)).id
      if (ids.length) await actOn({ ids: [...ids], act: 'shelve', shelf: made })
    })
    return done ? made : null
  }

  const nameShelf = (id: string, name: string): Promise<boolean> => change(() => renameShelf(id, name))

  async function takeShelfDown(shelf: Shelf): Promise<void> {
    if (await change(() => removeShelf(shelf.id)))
      tell(`The shelf "${shelf.name}" is gone; its drawings lie on no shelf.`)
  }

  async function handOver(ids: readonly string[], seat: Seat): Promise<void> {
    const text = `${namesOf(ids)} ${ids.length === 1 ? 'is' : 'are'} ${seat.name}'s now.`
    if (await change(() => actOn({ ids: [...ids], act: 'hand over', seat: seat.id }))) tell(text)
  }

  const rename = (card: DrawingCard, name: string): Promise<boolean> => change(() => renameDrawing(card.id, name))

  /** Copies under way: a second press while the first is at work is a slip. */
  const copying = new Set<string>()

  /** Copies a drawing; answers the id of the copy. */
  async function duplicate(card: DrawingCard, history: boolean, name = `${card.name} copy`): Promise<string | null> {
    if (copying.has(card.id)) return null
    copying.add(card.id)
    let id = ''
    const taken = new Set((cards.value ?? []).map((c) => c.name))
    const done = await change(
      async () => void (id = (await copyDrawing(card.id, { name: freeName(taken, name), history })).id),
      `Copying ${card.name} …`,
    )
    copying.delete(card.id)
    return done ? id : null
  }

  /** Fetches a backup of some drawings, or of the whole Desk. */
  const backUp = (ids: readonly string[] = []): Promise<boolean> =>
    attempt(async () => {
      globalThis.location.assign(await backupAddress(ids))
    }, 'Making the backup …')

  async function takeBackup(file: File): Promise<void> {
    let report: RestoreReport | null = null
    const done = await change(async () => void (report = await bringBackupIn(file)), `Checking ${file.name} …`)
    if (done && report) tell(inWords(report))
  }

  /** Asks what Proof finds in those drawings of which that is not known, one after the other. */
  async function proofAll(): Promise<void> {
    for (const card of cards.value ?? []) {
      if (card.findings !== null) continue
      const found = await findingsCount(card.id).catch(() => null)
      if (!found) return
      if (found.findings === null) continue
      cards.value = (cards.value ?? []).map((c) =>
        c.id === card.id && c.revision === card.revision ? { ...c, findings: found.findings } : c,
      )
    }
  }

  return {
    cards,
    laid,
    bin,
    shelves,
    notice,
    ways,
    busy,
    closedBecause,
    kept,
    tell,
    load,
    leave,
    attempt,
    act,
    intoBin,
    putBack,
    erase,
    shelve,
    newShelf,
    nameShelf,
    takeShelfDown,
    handOver,
    rename,
    duplicate,
    backUp,
    takeBackup,
    proofAll,
  }
})

function inWords({ added, here, copied }: RestoreReport): string {
  const parts = [
    added.length && `${count(added.length)} brought in`,
    here.length && `${count(here.length)} ${here.length === 1 ? 'was' : 'were'} here already`,
    copied.length && `${count(copied.length)} had gone another way here and came in beside, as copies`,
  ].filter(Boolean)
  return parts.length ? `${parts.join('; ')}.` : 'The backup holds no drawings.'
}
