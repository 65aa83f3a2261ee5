import { wrap } from 'comlink'
import { ref } from 'vue'
import type { Sketch } from '#core/drawing/model'
import type { Quad } from '#core/sketch/perspective'
import { sizeOfQuad } from '#core/sketch/perspective'
import { useDrawingStore } from '~/stores/drawing'
import { sketchLayers } from '~/stores/find'
import type { SketchWorker } from '~/workers/sketch.worker'

/** Photos of a sheet that were taken at a slant, set right by the corners of the paper. */
export function usePaper() {
  const store = useDrawingStore()
  const looking = ref(false)

  async function setPaperRight(sketch: Sketch): Promise<void> {
    if (looking.value) return
    looking.value = true
    const thread = new Worker(new URL('../workers/sketch.worker.ts', import.meta.url), { type: 'module' })
    try {
      const address = `/api/images/${sketch.image}`
      const [found, { width, height }] = await Promise.all([wrap<SketchWorker>(thread).paper(address), sizeOf(address)])
      if (!found) {
        store.notice = 'No sheet of paper was found on something darker. A photo needs to show all four corners of the sheet.'
        return
      }
      if ('problem' in found) {
        store.notice = found.problem
        return
      }
      const size = sizeOfQuad(found.map(({ x, y }) => ({ x: x * width, y: y * height })) as unknown as Quad)
      change(sketch.id, 'Set the paper right', (s) => {
        s.corners = found
        s.height = (s.width * size.height) / size.width
      })
    } finally {
      thread.terminate()
      looking.value = false
    }
  }

  async function asTaken(sketch: Sketch): Promise<void> {
    const { width, height } = await sizeOf(`/api/images/${sketch.image}`)
    change(sketch.id, 'The photo as it was taken', (s) => {
      delete s.corners
      s.height = (s.width * height) / width
    })
  }

  function change(id: string, label: string, recipe: (sketch: Sketch) => void): void {
    store.edit(label, (draft) => {
      const found = sketchLayers(draft).flatMap((l) => l.items).find((s) => s.id === id)
      if (found) recipe(found)
    })
  }

  return { looking, setPaperRight, asTaken }
}

/** Px of the picture at an address. */
async function sizeOf(address: string): Promise<{ width: number; height: number }> {
  const picture = new Image()
  picture.src = address
  await picture.decode()
  return { width: picture.naturalWidth, height: picture.naturalHeight }
}
