import { shapeSettingsOf } from '../../model/fineness'
import type { Drawing } from '../../model/model'
import type { Cubic } from '../../geometry/cubic'
import type { Ground } from './faces'
import { FaceIndex, groundOf } from './faces'
import type { Paper } from './regions'
import { Regions } from './regions'
import type { Stack } from '../stack/stack'

/** Regions are kept of so many reaches. */
const MOST = 4

/** The regions of a drawing, by the reach of bridges; kept from edit to edit. */
export class Papers {
  private readonly kept = new Map<string, { regions: Regions; of: Stack | null; paper: Paper | null }>()

  private ground: { ink: readonly (readonly Cubic[])[]; ground: Ground; index: FaceIndex } | null = null

  /**
   * @param ink united contours of all parts, the ink on their left
   * @param gap px
   */
  of(
    ink: readonly (readonly Cubic[])[],
    stack: Stack,
    drawing: Pick<Drawing, 'page' | 'settings'>,
    gap: number,
  ): Paper {
    const { tolerance } = shapeSettingsOf(drawing)
    const key = `${tolerance} ${gap}`
    let kept = this.kept.get(key)
    if (!kept && this.kept.size >= MOST) this.kept.delete(this.kept.keys().next().value!)
    if (!kept) this.kept.set(key, (kept = { regions: new Regions(tolerance, gap), of: null, paper: null }))
    if (kept.of !== stack || !kept.paper) {
      const { ground, index } = this.groundOf(ink)
      kept.paper = kept.regions.of(ground, index, stack.parts, drawing.page)
      kept.of = stack
    }
    return kept.paper
  }

  private groundOf(ink: readonly (readonly Cubic[])[]): { ground: Ground; index: FaceIndex } {
    if (this.ground?.ink !== ink) {
      const ground = groundOf(ink)
      this.ground = { ink, ground, index: new FaceIndex(ground.faces) }
    }
    return this.ground
  }
}
