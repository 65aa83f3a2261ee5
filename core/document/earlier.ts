import { settingsForPage } from '../model/fineness'
import type { Amendment, Drawing, Page, Retouch, Settings } from '../model/model'

/** Settings as they were in the first form of a drawing: retouches without ids, lengths in px of the page. */
export type OldSettings = Settings & { retouches?: OldRetouch[] }
export type OldRetouch = Pick<Retouch, 'at' | 'to'>

/** Ids of retouches from before they had any: by what they are, and how many of the same came before. */
export function withIds(retouches: readonly OldRetouch[]): Amendment[] {
  const seen = new Map<string, number>()
  return retouches.map(({ at, to }) => {
    const text = JSON.stringify([at, to])
    const nth = seen.get(text) ?? 0
    seen.set(text, nth + 1)
    const sum = [...text].reduce((h, c) => Math.imul(h ^ c.charCodeAt(0), 16777619), 2166136261) >>> 0
    return { id: `retouch-${sum.toString(36)}-${text.length}-${nth}`, kind: 'retouch', at, to }
  })
}

/** Settings as they are now, of a form that tolerances had before they were meant at the usual page. */
export function newSettings({ retouches: _, ...settings }: OldSettings, page: Page): Settings {
  return { ...settings, shapes: settingsForPage(settings.shapes, page) }
}

/** A drawing in its first form as it is now. */
export function newDocument<T extends Pick<Drawing, 'settings' | 'page'>>(drawing: T): T & Pick<Drawing, 'amendments'> {
  const old = drawing.settings as OldSettings
  const next = { ...drawing, settings: newSettings(old, drawing.page) }
  return old.retouches?.length ? { ...next, amendments: withIds(old.retouches) } : next
}
