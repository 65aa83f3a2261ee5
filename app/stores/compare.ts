import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Drawing, Line } from '#core/model/model'
import { evenWeight } from '#core/model/create'
import type { Checkpoint } from '#shared/api'
import { Refusal, addCheckpoint, drawingAt, listCheckpoints, removeCheckpoint } from '~/network/api'
import type { PassName } from '~/catalogue/passes'
import { passOf } from '~/catalogue/passes'
import { useDrawingStore } from './drawing'
import { useViewStore } from './view'
import { remembered } from '#core/remembered'

/** What can lie on a side of the wipe: the drawing now, before this visit to the pass, with even weight, or a checkpoint by its id. */
export type Moment = 'now' | 'before' | 'even' | (string & {})

/** Lines with even weight of the same size, each made once. */
const evenLine = remembered((line: Line): Line => ({
  ...line,
  weight: { ...evenWeight(line.weight.size), nib: line.weight.nib },
}))

const withEvenLines = (drawing: Drawing): Drawing => ({
  ...drawing,
  layers: drawing.layers.map((l) => (l.kind === 'lines' ? { ...l, items: l.items.map(evenLine) } : l)),
})

/** Looking at the drawing beside what it was: while a key is held, or with a wipe between two moments. */
export const useCompareStore = defineStore('compare', () => {
  const store = useDrawingStore()
  const view = useViewStore()

  /** The drawing as it was when the pass was entered. */
  const visited = shallowRef<Drawing | null>(null)
  const held = ref<'before' | 'even' | null>(null)
  const sides = ref<{ left: Moment; right: Moment } | null>(null)
  /** Where the wipe stands, as a share of the view. */
  const wipe = ref(0.5)
  const checkpoints = shallowRef<Checkpoint[]>([])
  /** Drawings of checkpoints, by revision. */
  const fetched = shallowRef<ReadonlyMap<number, Drawing>>(new Map())

  watch(
    [() => view.pass, () => store.drawing?.id],
    () => {
      visited.value = store.drawing
      held.value = null
    },
    { flush: 'sync', immediate: true },
  )

  watch(
    () => store.drawing?.id,
    async (id) => {
      checkpoints.value = []
      fetched.value = new Map()
      sides.value = null
      if (id) checkpoints.value = await listCheckpoints(id).catch(noCheckpoints)
    },
    { immediate: true },
  )

  function noCheckpoints(e: unknown): Checkpoint[] {
    // Whoever works without the server was told so.
    if (e instanceof Refusal && e.status === 0) return []
    console.error('Checkpoints could not be fetched:', e)
    store.notice ||=
      'The checkpoints of this drawing could not be fetched. They are kept all the same: open the drawing again to see them.'
    return []
  }

  function drawingOf(moment: Moment): Drawing | null {
    const now = store.drawing
    if (!now || moment === 'now') return now
    if (moment === 'before') return visited.value
    if (moment === 'even') return withEvenLines(now)
    const revision = checkpoints.value.find((c) => c.id === moment)?.revision
    return revision === undefined ? null : (fetched.value.get(revision) ?? null)
  }

  const titles = computed(() => [
    { id: 'now' as Moment, title: 'Now' },
    { id: 'before' as Moment, title: 'Before this visit' },
    { id: 'even' as Moment, title: 'Even weight' },
    ...checkpoints.value.map((c) => ({ id: c.id as Moment, title: c.name })),
  ])

  /** What is laid over the drawing: two drawings and where the wipe between them stands. */
  const shown = computed(() => {
    if (held.value) return { left: drawingOf(held.value), right: null, at: 1 }
    if (!sides.value) return null
    return { left: drawingOf(sides.value.left), right: drawingOf(sides.value.right), at: wipe.value }
  })

  async function fetchSide(moment: Moment): Promise<void> {
    const revision = checkpoints.value.find((c) => c.id === moment)?.revision
    if (revision === undefined || fetched.value.has(revision)) return
    try {
      const drawing = await drawingAt(store.drawing!.id, revision)
      fetched.value = new Map([...fetched.value, [revision, drawing]])
    } catch (e) {
      store.notice = (e as Error).message
    }
  }

  /** Begins to compare two moments, or goes on with others. */
  async function between(left: Moment, right: Moment): Promise<void> {
    sides.value = { left, right }
    await Promise.all([fetchSide(left), fetchSide(right)])
  }

  /** Names the drawing as it is now. */
  async function keep(name: string): Promise<void> {
    try {
      await store.allSent()
      const made = await addCheckpoint(store.drawing!.id, name)
      checkpoints.value = [made, ...checkpoints.value]
    } catch (e) {
      store.notice = (e as Error).message
    }
  }

  /** Keeps the drawing as it is before the first visit to a pass; where that cannot be, the next visit does. */
  async function keepBefore(pass: PassName): Promise<void> {
    const id = store.drawing?.id
    if (!id || checkpoints.value.some((c) => c.pass === pass)) return
    try {
      await store.allSent()
      const made = await addCheckpoint(id, `Before ${passOf(pass).title}`, pass)
      if (store.drawing?.id === id && !checkpoints.value.some((c) => c.id === made.id))
        checkpoints.value = [made, ...checkpoints.value]
    } catch (e) {
      // Nobody asked for it: there is nothing to tell.
      console.warn('The checkpoint of a first visit was not set:', e)
    }
  }

  async function forget(id: string): Promise<void> {
    try {
      await removeCheckpoint(store.drawing!.id, id)
      checkpoints.value = checkpoints.value.filter((c) => c.id !== id)
      if (sides.value && (sides.value.left === id || sides.value.right === id)) sides.value = null
    } catch (e) {
      store.notice = (e as Error).message
    }
  }

  return {
    held,
    sides,
    wipe,
    checkpoints,
    titles,
    shown,
    between,
    keep,
    keepBefore,
    forget,
    stop: () => (sides.value = null),
    unchanged: () => visited.value === store.drawing,
  }
})
