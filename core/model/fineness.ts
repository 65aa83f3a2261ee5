import { defaultPage } from './create'
import type { Drawing, Page, ShapeSettings } from './model'

const longerSide = ({ width, height }: Pick<Page, 'width' | 'height'>): number => Math.max(width, height)

/** Px of this page for each px of the usual page, which lengths of settings are meant on: print both at one size, and they look alike. */
export const perUsualPx = (page: Pick<Page, 'width' | 'height'>): number => longerSide(page) / longerSide(defaultPage())

/** How a drawing's shapes are made, with lengths in px of its own page. */
export function shapeSettingsOf({ page, settings }: Pick<Drawing, 'page' | 'settings'>): ShapeSettings {
  const k = perUsualPx(page)
  const { tolerance, simplify } = settings.shapes
  return { ...settings.shapes, tolerance: tolerance * k, simplify: simplify * k }
}

/** The settings that give these lengths, px of the drawing's own page. */
export function settingsForPage(settings: ShapeSettings, page: Pick<Page, 'width' | 'height'>): ShapeSettings {
  const k = perUsualPx(page)
  return { ...settings, tolerance: settings.tolerance / k, simplify: settings.simplify / k }
}
