import { perUsualPx } from '#core/model/fineness'
import type { Line, Shape } from '#core/model/model'
import { paintedBy, scrapedLine, scrapedShape } from '#core/editing/solids'
import { changeLines, changeShapes } from '#core/editing/change-items'
import { findShape } from '#core/model/find'
import { Brush } from './brush'
import { chosenLines } from './line-marks'
import { chosenSolidMarks } from './solid-marks'
import type { Mark } from '~/canvas/marks'

/** Carves the chosen shapes and lines, and nothing else. */
export class Scrape extends Brush {
  readonly name = 'Scrape'
  readonly scrapes = true

  hint(): string {
    if (this.painting) return 'Release: finish · Esc: drop'
    const n = this.worktop.solids().length + this.worktop.selection().length
    if (!n) return 'Choose shapes or lines first: only what is chosen is scraped'
    return `Drag: scrape ${n === 1 ? 'what is chosen' : `the ${n} that are chosen`}`
  }

  protected size(): number {
    return this.worktop.preferences().scrapeSize
  }

  protected ready(): boolean {
    if (this.worktop.solids().length || this.worktop.selection().length) return true
    this.worktop.say('Nothing is chosen, so nothing is scraped. Choose shapes or lines with Select, then scrape them.')
    return false
  }

  protected done(stroke: Line): void {
    const drawing = this.worktop.drawing()
    const scale = perUsualPx(drawing.page)
    const away = paintedBy({ ...stroke, weight: { ...stroke.weight, nib: null } }, scale)
    const shapes = this.worktop.solids().flatMap((id) => findShape(drawing, id)?.shape ?? [])
    const carved = new Map<string, Shape | null>(shapes.map((s) => [s.id, scrapedShape(s, away, scale)]))
    const lines = new Map(chosenLines(this.worktop).map((l) => [l.id, scrapedLine(l, away, scale)]))
    this.worktop.edit('Scrape', (draft) => {
      changeShapes(draft, [...carved.keys()], (s) => carved.get(s.id)!)
      changeLines(draft, [...lines.keys()], (l) => {
        const scrapes = lines.get(l.id)!.scrapes
        if (scrapes) l.scrapes = scrapes
      })
    })
    this.worktop.chooseSolids([...carved].flatMap(([id, s]) => (s ? [id] : [])))
  }

  override marks(): Mark[] {
    return [
      ...chosenSolidMarks(this.worktop),
      { kind: 'paths', paths: chosenLines(this.worktop).map((l) => l.path), tone: 'plum' },
      ...super.marks(),
    ]
  }
}
