import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Weight } from '#core/model/model'
import { newId } from '#core/new-id'
import { freeName } from '#core/model/free-name'
import type { LooseProfile } from '#core/formats/profiles/read-profiles'
import { LONGEST_PROFILE_NAME, MOST_PROFILES } from '#core/formats/profiles/read-profiles'
import type { ShelfProfile } from '#core/weight/shelf'
import { SHELF } from '#core/weight/shelf'
import { listProfiles, saveProfiles } from '~/network/api'
import { useDrawingStore } from './drawing'

/** The shelf of profiles: those that ship, and the own ones, which the server keeps. */
export const useShelfStore = defineStore('shelf', () => {
  const store = useDrawingStore()
  const own = shallowRef<readonly ShelfProfile[]>([])
  const all = computed<readonly ShelfProfile[]>(() => [...SHELF, ...own.value])
  let loading: Promise<void> | null = null
  let saving: Promise<unknown> = Promise.resolve()

  /** Fetches the own profiles, once; a server that does not answer is asked again the next time. */
  function load(): Promise<void> {
    return (loading ??= listProfiles().then(
      (profiles) => void (own.value = kept = profiles),
      () => void (loading = null),
    ))
  }

  /** The shelf as the server was last known to have it. */
  let kept: readonly ShelfProfile[] = []
  let failed = false

  /** Keeps a new order or content; one after the other, and with what another window changed meanwhile. */
  function put(profiles: readonly ShelfProfile[]): void {
    const mine = [...profiles]
    // What it was made from, unless that never came to be saved.
    const from = own.value
    own.value = mine
    saving = saving
      .then(async () => {
        kept = await saveProfiles(mine, failed ? kept : from)
        failed = false
        if (own.value === mine) own.value = kept
      })
      .catch((e: Error) => {
        failed = true
        if (own.value === mine) own.value = kept
        store.notice = `The shelf could not be saved: ${e.message}`
      })
  }

  /** A name like `wanted` that no profile of the shelf has, but for the one named `except`. */
  function free(wanted: string, except?: string, also: readonly string[] = []): string {
    const taken = new Set([...all.value.filter((p) => p.id !== except).map((p) => p.name), ...also])
    return freeName(taken, wanted.trim() || 'Profile', LONGEST_PROFILE_NAME)
  }

  /** Keeps the course of a weight as a profile; answers its id, or null when the shelf is full. */
  function keep({ stops, start, end }: Weight): string | null {
    return add([{ name: 'Own profile', stops, start, end }])[0] ?? null
  }

  /** Adds profiles under names that are free; answers their ids, none when the shelf has no room for them. */
  function add(profiles: readonly LooseProfile[]): string[] {
    if (own.value.length + profiles.length > MOST_PROFILES) {
      store.notice = `The shelf takes ${MOST_PROFILES} own profiles. Delete some to make room.`
      return []
    }
    const names: string[] = []
    const fresh = profiles.map((p): ShelfProfile => {
      const name = free(p.name, undefined, names)
      names.push(name)
      return { ...structuredClone(p), id: newId(), name }
    })
    put([...own.value, ...fresh])
    return fresh.map((p) => p.id)
  }

  function rename(id: string, name: string): void {
    put(own.value.map((p) => (p.id === id ? { ...p, name: free(name, id) } : p)))
  }

  function move(id: string, step: 1 | -1): void {
    const from = own.value.findIndex((p) => p.id === id)
    const to = from + step
    if (from < 0 || to < 0 || to >= own.value.length) return
    const next = [...own.value]
    next.splice(to, 0, ...next.splice(from, 1))
    put(next)
  }

  /** Takes a profile off the shelf, with a way to bring it back; lines keep what they have. */
  function remove(id: string): void {
    const place = own.value.findIndex((p) => p.id === id)
    const gone = own.value[place]
    if (!gone) return
    put(own.value.filter((p) => p.id !== id))
    store.tell(`"${gone.name}" was taken off the shelf. Lines that have it keep it.`, [
      { title: 'Bring it back', run: () => put([...own.value.slice(0, place), gone, ...own.value.slice(place)]) },
    ])
  }

  return { own, all, load, keep, add, rename, move, remove, settled: () => saving }
})
