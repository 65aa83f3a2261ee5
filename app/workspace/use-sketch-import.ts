import { ref } from 'vue'
import type { Page } from '#core/drawing/model'
import { newId, newSketchLayer } from '#core/drawing/create'
import type { ImageInfo } from '#agreed/api'
import { LIMITS } from '#agreed/api'
import { Refusal, uploadImage } from '~/network/api'
import { useDrawingStore } from '~/stores/drawing'

/** The place of a picture that fills the page as far as its proportions allow. */
export function placeOnPage({ width, height }: Pick<ImageInfo, 'width' | 'height'>, page: Page): { x: number; y: number; width: number; height: number } {
  const k = Math.min(page.width / width, page.height / height)
  return { x: (page.width - width * k) / 2, y: (page.height - height * k) / 2, width: width * k, height: height * k }
}

/** Sends a picture to the server; a file that is too large is refused before it travels. */
export async function sendPicture(file: File): Promise<ImageInfo> {
  if (!file.size) throw new Refusal(400, `"${file.name}" is empty. Save the sketch again as PNG or JPEG.`)
  if (file.size > LIMITS.image) throw new Refusal(413, `"${file.name}" is larger than 24 MB. Scale it down and try again.`)
  return uploadImage(file)
}

/** Brings a scan into the open drawing: dimmed, locked, under everything. */
export function useSketchImport() {
  const store = useDrawingStore()
  const busy = ref(false)

  async function bringIn(file: File): Promise<void> {
    if (!store.drawing || busy.value) return
    busy.value = true
    try {
      const info = await sendPicture(file)
      const place = placeOnPage(info, store.drawing.page)
      store.edit('Bring in a sketch', (draft) => {
        // Above older sketches, under everything else.
        const above = draft.layers.findIndex((l) => l.kind !== 'sketch')
        draft.layers.splice(above < 0 ? draft.layers.length : above, 0, newSketchLayer({ id: newId(), image: info.sha256, ...place, angle: 0 }))
      })
    } catch (e) {
      store.notice = (e as Error).message
    } finally {
      busy.value = false
    }
  }

  return { bringIn, busy }
}
