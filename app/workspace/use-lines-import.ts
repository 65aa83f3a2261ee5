import { newId } from '#core/new-id'
import { copiedLayer } from '#core/editing/layers'
import type { Drawing, Layer } from '#core/model/model'
import { useDrawingStore } from '~/stores/drawing'
import { useImportNotesStore } from '~/stores/import-notes'
import { useViewStore } from '~/stores/view'
import { readSvg } from './read-svg'

export const isSvg = (file: File): boolean => file.type === 'image/svg+xml' || file.name.toLowerCase().endsWith('.svg')

/** Brings the lines and shapes of an SVG into the open drawing, after asking. */
export function useLinesImport(): (file: File) => Promise<void> {
  const store = useDrawingStore()
  const view = useViewStore()
  const told = useImportNotesStore()

  async function bringIn(file: File): Promise<void> {
    let end = (): void => undefined
    const { drawing, notes } = await readSvg(file, (stop) => {
      const work = view.beginWork(`Reading ${file.name}`, stop)
      work.tell(0)
      end = work.end
    }).finally(() => end())
    const layers = drawing.layers.filter((l) => l.kind !== 'sketch' && l.items.length)
    if (!layers.length) {
      store.notice = `"${file.name}" holds no lines and no shapes.`
      return
    }
    const count = (kind: 'lines' | 'other'): number =>
      layers.reduce((n, l) => n + ((l.kind === 'lines') === (kind === 'lines') ? l.items.length : 0), 0)
    const words = [
      [count('lines'), 'line'],
      [count('other'), 'shape'],
    ] as const
    const what = words.flatMap(([n, one]) => (n ? [`${n} ${one}${n === 1 ? '' : 's'}`] : [])).join(' and ')
    store.tell(
      `"${file.name}" holds ${what}. ${notes.length ? `${notes[0]!.text}${notes.length > 1 ? `, and ${notes.length - 1} more to know` : ''}.` : ''}`.trim(),
      [
        {
          title: 'Bring them in',
          run: () => {
            put(layers, drawing)
            told.tell(store.drawing!.id, notes)
          },
        },
      ],
    )
  }

  /** On layers of their own above the others; inks of the same colour are one. */
  function put(layers: readonly Layer[], from: Drawing): void {
    const fresh = layers.map((l) => copiedLayer(l, l.name))
    store.edit('Bring in lines', (draft) => {
      const inkOf = new Map<string, string>()
      for (const ink of from.inks) {
        const same = draft.inks.find((i) => i.colour.toLowerCase() === ink.colour.toLowerCase())
        const id = same?.id ?? newId()
        if (!same) draft.inks.push({ ...ink, id })
        inkOf.set(ink.id, id)
      }
      for (const layer of fresh) {
        if (layer.kind === 'sketch') continue
        for (const item of layer.items) item.ink = inkOf.get(item.ink) ?? draft.inks[0]!.id
        draft.layers.push(layer)
      }
    })
    view.select(fresh.flatMap((l) => (l.kind === 'lines' ? l.items.map((i) => i.id) : [])))
  }

  return (file) => bringIn(file).catch((e: Error) => void (store.notice = e.message))
}
