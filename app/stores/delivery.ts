import { shownItems } from '#core/model/queries'
import { proxy, transfer } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, toRaw } from 'vue'
import type { Box } from '#core/geometry/bounds'
import type { Drawing } from '#core/model/model'
import type { DeliveryPart } from '#core/formats/delivery/part'
import { partOf } from '#core/formats/delivery/part'
import { isKept } from '#core/model/line-trace'
import { deliveryThread, endDelivery } from '~/workers/delivery-thread'
import type { DeliveryOrder } from '~/workers/delivery.worker'
import { download } from '~/network/download'
import { useDrawingStore } from './drawing'
import { useStudioStore } from './studio'
import { useTracesStore } from './traces'
import { useViewStore } from './view'

/** What is seen of a file before it leaves. */
export interface Previewed {
  /** An object URL; null where the canvas shows just that. */
  url: string | null
  mediaType: string
  /** Where it lies, px of the page. */
  box: Box
  /** Names of the pages of a PDF that has several. */
  sheets: string[]
  nodes: number | null
  size: number | null
  drawing: Drawing
}

/**
 * Sends a drawing, and its shapes where they are wanted, to the other end of a port: from where they are, since copying them
 * here would stop the hand.
 */
export type HandOver = (drawing: Drawing, withShapes: boolean, port: MessagePort) => void

/** What leaves, how it will look, and its making. */
export const useDeliveryStore = defineStore('delivery', () => {
  const store = useDrawingStore()
  const view = useViewStore()
  const studio = useStudioStore()
  const traces = useTracesStore()
  /** `page`, `chosen`, or a layer's id. */
  const what = ref('page')
  /** Which page of a PDF is looked at. */
  const sheet = ref(0)
  const preview = shallowRef<Previewed | null>(null)
  /** Whether nodes and size of the preview are those of what leaves now. */
  const told = ref(false)
  const making = ref(false)
  /** Share done of a picture that is made, 0..1. */
  const progress = ref<number | null>(null)
  let round = 0

  const settings = computed(() => studio.preferences.delivery)
  const chosen = computed(() => [...view.selection, ...view.solids])

  const part = computed<DeliveryPart>(() => {
    if (what.value === 'chosen' && chosen.value.length) return { what: 'items', ids: chosen.value }
    return store.drawing?.layers.some((l) => l.id === what.value) ? { what: 'layer', id: what.value } : { what: 'page' }
  })

  /** What of the drawing leaves. */
  const leaving = computed(() => store.drawing && partOf(store.drawing, part.value))
  const traced = computed(() =>
    (leaving.value?.layers ?? []).flatMap((l) => (l.kind === 'lines' ? shownItems(l).filter((i) => i.trace) : [])),
  )

  /** What is ordered; `handOver` sends the drawing to the other end of a port. */
  async function order(handOver: HandOver): Promise<DeliveryOrder> {
    const needsTraces = ['lines', 'traces', 'all'].includes(settings.value.kind)
    if (needsTraces) await traces.ready(traced.value)
    const samples = needsTraces
      ? Object.fromEntries(
          traced.value.flatMap(({ trace }) =>
            trace && isKept(trace) ? [[trace.of, traces.samplesOf(trace.of) ?? []] as const] : [],
          ),
        )
      : {}
    const { port1, port2 } = new MessageChannel()
    handOver(store.drawing!, part.value.what === 'page', port1)
    return transfer(
      {
        from: port2,
        part: structuredClone(toRaw(part.value)),
        settings: structuredClone(toRaw(settings.value)),
        samples,
        sheet: sheet.value,
      },
      [port2],
    )
  }

  function letGo(): void {
    if (preview.value?.url) URL.revokeObjectURL(preview.value.url)
  }

  function clear(): void {
    round++
    letGo()
    preview.value = null
  }

  /** Something changed: what is being made is not it any more, and what is told of the file is not true any more. */
  function outdate(): void {
    round++
    told.value = false
  }

  /** Makes what will be seen of the file anew. */
  async function show(handOver: HandOver): Promise<void> {
    const mine = ++round
    const { drawing } = store
    if (!drawing) return
    try {
      const ordered = await order(handOver)
      const made = await deliveryThread().preview(
        ordered,
        proxy(() => undefined),
      )
      if (mine !== round) return
      letGo()
      const { picture } = made
      preview.value = {
        url:
          picture &&
          URL.createObjectURL(new Blob([picture.bytes as Uint8Array<ArrayBuffer>], { type: picture.mediaType })),
        mediaType: picture?.mediaType ?? '',
        box: made.box,
        sheets: made.sheets,
        nodes: made.nodes,
        size: made.size,
        drawing,
      }
      told.value = true
    } catch (e) {
      if (mine === round) store.notice = `The preview could not be made: ${(e as Error).message}`
    }
  }

  /** Makes the file and gives it to the person; answers its name and size, null where it was stopped or failed. */
  async function make(handOver: HandOver): Promise<{ name: string; size: number } | null> {
    let over = false
    making.value = true
    progress.value = 0
    try {
      const stopped = new Promise<null>((resolve) => (stopMaking = () => resolve(null)))
      // A worker's last report can come in after its answer.
      const report = proxy((share: number) => void (!over && (progress.value = share)))
      const file = await Promise.race([deliveryThread().make(await order(handOver), report), stopped])
      if (!file) return null
      download(new Blob([file.bytes as Uint8Array<ArrayBuffer>], { type: file.mediaType }), file.name)
      return { name: file.name, size: file.bytes.length }
    } catch (e) {
      store.notice = `The file could not be made: ${(e as Error).message}`
      return null
    } finally {
      over = true
      making.value = false
      progress.value = null
    }
  }

  let stopMaking: () => void = () => undefined

  function stop(): void {
    stopMaking()
    endDelivery()
  }

  return {
    what,
    sheet,
    part,
    settings,
    chosen,
    leaving,
    traced,
    preview,
    told,
    making,
    progress,
    outdate,
    show,
    make,
    stop,
    clear,
  }
})
