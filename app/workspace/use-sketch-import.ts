import { ref } from 'vue'
import type { Page } from '#core/model/model'
import { newSketchLayer } from '#core/model/create'
import { newId } from '#core/new-id'
import type { ImageInfo } from '#shared/api'
import { LIMITS } from '#shared/api'
import { Refusal, uploadImage } from '~/network/api'
import { freeLayerName } from '#core/editing/layers'
import { pageLike } from '#core/model/page-sizes'
import { isSvg } from './use-lines-import'
import { drawnSvg } from './drawn-svg'
import { useDrawingStore } from '~/stores/drawing'
import { usePaperStore } from '~/stores/paper'
import { useViewStore } from '~/stores/view'

/** The place of a picture that fills the page as far as its proportions allow. */
export function placeOnPage(
  { width, height }: Pick<ImageInfo, 'width' | 'height'>,
  page: Page,
): { x: number; y: number; width: number; height: number } {
  const k = Math.min(page.width / width, page.height / height)
  return { x: (page.width - width * k) / 2, y: (page.height - height * k) / 2, width: width * k, height: height * k }
}

/** Sends a picture to the server; a file that is too large is refused before it travels. */
export async function sendPicture(file: File): Promise<ImageInfo> {
  if (!file.size) throw new Refusal(400, `"${file.name}" is empty. Save the sketch again as PNG, JPEG or WebP.`)
  if (file.size > LIMITS.image)
    throw new Refusal(
      413,
      `"${file.name}" is larger than ${Math.round(LIMITS.image / 1024 ** 2)} MB. Scale it down and try again.`,
    )
  return uploadImage(isSvg(file) ? await drawnSvg(file) : file)
}

/** Brings a scan into the open drawing: dimmed, locked, under everything. */
export function useSketchImport() {
  const store = useDrawingStore()
  const view = useViewStore()
  const paper = usePaperStore()
  const busy = ref(false)

  /** One after the other, each a layer of its own. */
  async function bringIn(...files: File[]): Promise<void> {
    if (!store.drawing || busy.value) return
    busy.value = true
    for (const file of files) await add(file)
    busy.value = false
  }

  async function add(file: File): Promise<void> {
    if (!store.drawing) return
    try {
      const info = await sendPicture(file)
      // The first sketch of a blank drawing gives the page its proportions.
      const blank = store.drawing.layers.every((l) => !l.items.length)
      const page = blank ? pageLike(info) : store.drawing.page
      const place = placeOnPage(info, page)
      const sketch = newSketchLayer({ id: newId(), image: info.sha256, ...place, angle: 0 })
      const name = file.name
        .replace(/\.[^.]*$/, '')
        .trim()
        .slice(0, 60)
      const layer = { ...sketch, name: freeLayerName(store.drawing, blank || !name ? sketch.name : name) }
      store.edit('Bring in a sketch', (draft) => {
        draft.page = page
        // Above older sketches, under everything else.
        const above = draft.layers.findIndex((l) => l.kind !== 'sketch')
        draft.layers.splice(above < 0 ? draft.layers.length : above, 0, layer)
      })
      view.sketchLayer = layer.id
      if (view.fitting) view.showPage(page)
      if (!isSvg(file)) void paper.suggest()
    } catch (e) {
      store.notice = (e as Error).message
    }
  }

  return { bringIn, busy }
}
