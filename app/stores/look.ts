import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { newId } from '#core/new-id'
import { freeName } from '#core/model/free-name'
import type { Drawing } from '#core/model/model'
import type { Checkpoint } from '#shared/api'
import { createDrawing, drawingAt, listDrawings } from '~/network/api'
import { deliveryThread } from '~/workers/delivery-thread'
import { useDrawingStore } from './drawing'

/** A moment of the history that is looked at. */
export interface Looked {
  title: string
  /** When it was made, ISO 8601; null where that is not known. */
  madeAt: string | null
  drawing: Drawing
  /** For a step: how many steps back it lies; negative for those that were undone. */
  walk: number | null
}

/** Looking at a moment of the history without going back to it, and drawings that branch off there. */
export const useLookStore = defineStore('look', () => {
  const store = useDrawingStore()
  const looked = shallowRef<Looked | null>(null)
  /** An object URL of the moment's picture. */
  const picture = ref('')
  let round = 0

  function stop(): void {
    round++
    looked.value = null
    if (picture.value) URL.revokeObjectURL(picture.value)
    picture.value = ''
  }

  async function look(moment: Looked): Promise<void> {
    stop()
    looked.value = moment
    const mine = ++round
    const svg = await deliveryThread()
      .picture(moment.drawing)
      .catch((e: Error) => void (store.notice = `This moment cannot be shown: ${e.message}`))
    if (mine === round && svg) picture.value = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
    else if (mine === round) stop()
  }

  /** Looks at the drawing as it was `walk` steps ago. */
  function lookAtStep(walk: number, title: string, madeAt: string | null): void {
    const drawing = store.seenFrom(walk)
    if (drawing) void look({ title, madeAt, drawing, walk })
    else store.notice = `"${title}" cannot be looked at: what it changed is gone, by a change in another window.`
  }

  async function lookAtCheckpoint({ name, madeAt, revision }: Checkpoint): Promise<void> {
    try {
      await look({ title: name, madeAt, drawing: await drawingAt(store.drawing!.id, revision), walk: null })
    } catch (e) {
      store.notice = (e as Error).message
    }
  }

  /** Goes to the step that is looked at: steps back, or forward over undone ones. */
  async function goThere(): Promise<void> {
    const walk = looked.value?.walk
    stop()
    for (let i = 0; i < (walk ?? 0); i++) await store.undo()
    for (let i = walk ?? 0; i < 0; i++) store.redo()
  }

  /** A new drawing that starts from what is looked at; answers its id. */
  async function branch(): Promise<string | null> {
    const moment = looked.value
    if (!moment) return null
    try {
      await store.allSent()
      const names = new Set((await listDrawings()).map((d) => d.name))
      const { id } = await createDrawing({
        drawing: { ...moment.drawing, id: newId(), name: freeName(names, `${moment.drawing.name} branch`) },
      })
      stop()
      return id
    } catch (e) {
      store.notice = (e as Error).message
      return null
    }
  }

  watch(() => store.drawing?.id, stop)
  // What is drawn now is what is to be seen.
  watch(() => store.history, stop)

  return { looked, picture, stop, lookAtStep, lookAtCheckpoint, goThere, branch }
})
