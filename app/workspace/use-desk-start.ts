import { computed, shallowRef, toRefs } from 'vue'
import { useRouter } from 'vue-router'
import { newDrawing, newSketchLayer, UNTITLED } from '#core/model/create'
import { freeName } from '#core/model/free-name'
import type { Drawing } from '#core/model/model'
import { PAGE_CHOICES, pageInMm, pageLike } from '#core/model/page-sizes'
import { newId } from '#core/new-id'
import { createDrawing, openDrawing } from '~/network/api'
import { useDeskStore } from '~/stores/desk'
import { useRemembered } from '~/stores/remembered'
import { useImportNotesStore } from '~/stores/import-notes'
import { isSvg } from './use-lines-import'
import { readSvg } from './read-svg'
import { placeOnPage, sendPicture } from './use-sketch-import'

/** How drawings are begun: on a page of a size, from a template, from a file. */
export function useDeskStart() {
  const desk = useDeskStore()
  const router = useRouter()
  const told = useImportNotesStore()
  /** The page of a new drawing: one of the choices by its id, `own`, or a template as `template:` and its id. */
  const choices = useRemembered('desk-start', { page: 'packet across', own: { width: 120, height: 87 } })
  const { page, own } = toRefs(choices)
  /** Ends the reading of a file that takes long. */
  const stopReading = shallowRef<(() => void) | null>(null)

  const templates = computed(() => (desk.cards ?? []).filter((c) => c.template))
  const template = computed(() => templates.value.find((t) => `template:${t.id}` === page.value))

  const goTo = (id: string): Promise<unknown> => router.push(`/drawings/${id}`)

  function pageChosen() {
    if (page.value === 'own') return pageInMm(own.value.width, own.value.height)
    const { width, height } = PAGE_CHOICES.find((p) => p.id === page.value) ?? PAGE_CHOICES[0]!
    return pageInMm(width, height)
  }

  const nameLike = (name: string): string => freeName(new Set((desk.cards ?? []).map((c) => c.name)), name)

  /** A new drawing as the template has it, or on blank paper. */
  async function begun(name?: string): Promise<Drawing> {
    if (!template.value) return newDrawing(name ?? UNTITLED, { page: pageChosen() })
    const { drawing } = (await openDrawing(template.value.id)).opened
    return { ...drawing, id: newId(), name: nameLike(name ?? template.value.name) }
  }

  const start = (): Promise<boolean> =>
    desk.attempt(async () => {
      await goTo((await createDrawing({ drawing: await begun() })).id)
    }, 'Starting …')

  /** A sketch or an SVG becomes a new drawing; a backup is brought in. */
  async function bringIn(file: File): Promise<void> {
    if (/\.zip$/i.test(file.name) || file.type === 'application/zip') return desk.takeBackup(file)
    await desk.attempt(async () => {
      const name = file.name.replace(/\.[^.]+$/, '').slice(0, 120) || UNTITLED
      const { drawing, notes } = isSvg(file)
        ? await readSvg(file, (stop) => (stopReading.value = stop)).finally(() => (stopReading.value = null))
        : { drawing: await fromPicture(file, name), notes: [] }
      const { id } = await createDrawing({ drawing })
      told.tell(id, notes)
      await goTo(id)
    }, `Bringing in ${file.name} …`)
  }

  /** A sketch on a page of its own proportions, or under what a template holds. */
  async function fromPicture(file: File, name: string): Promise<Drawing> {
    const info = await sendPicture(file)
    const drawing = template.value ? await begun(name) : newDrawing(name, { page: pageLike(info) })
    return {
      ...drawing,
      layers: [
        newSketchLayer({ id: newId(), image: info.sha256, ...placeOnPage(info, drawing.page), angle: 0 }),
        ...drawing.layers,
      ],
    }
  }

  return { page, own, templates, template, stopReading, start, bringIn }
}
