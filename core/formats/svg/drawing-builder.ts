import { BLACK } from '../../model/create'
import { itemProblem } from '../../document/check-drawing'
import { freeName } from '../../model/free-name'
import type { Ink, Layer, Line, LinesLayer, Shape, ShapesLayer } from '../../model/model'
import type { Path } from '../../geometry/path'
import { InputError } from '../../errors'
import type { Box } from '../../geometry/bounds'
import { boxOfCubics, emptyBox, grown, overlap, uniteBoxes } from '../../geometry/bounds'
import { cubicsOfPath } from '../../geometry/path'
import { newId } from '../../new-id'

/** A drawing takes so many inks; further colours get the nearest of them. */
const MOST_INKS = 500
/** From so many layers on, an item joins one of its kind rather than beginning another. */
const MANY_LAYERS = 400
const LONGEST_ID = 80
const LONGEST_LAYER_NAME = 60

/** What came otherwise than the file has it, or not at all. */
export interface ImportNote {
  /** A sentence without its full stop. */
  text: string
  count: number
  /** Where on the page; no more than `MOST_PLACES`, none where that is not known. */
  places: Box[]
}
const MOST_PLACES = 200

/** Collects the layers and inks of a drawing as its items come, from the bottom to the top. */
export class DrawingBuilder {
  readonly layers: Layer[] = []
  readonly inks: Ink[] = []
  private readonly inkByColour = new Map<string, string>()
  /** Red, green and blue of all inks once there are no more to come. */
  private rgb: number[][] | null = null
  /** Bounds of what lies in each layer, and the group that it stands for. */
  private readonly boxes = new Map<Layer, Box>()
  private readonly groups = new Map<Layer, string | null>()
  private readonly ids = new Set<string>()
  private readonly noted = new Map<string, ImportNote>()
  /** A layer that the file itself names is open: what comes goes there. */
  inLayer = false

  note(text: string, place?: Box): void {
    const known = this.noted.get(text)
    if (known) known.count++
    else this.noted.set(text, { text, count: 1, places: [] })
    const { places } = this.noted.get(text)!
    if (place && places.length < MOST_PLACES) places.push(place)
  }

  notes(): ImportNote[] {
    return [...this.noted.values()]
  }

  beginLayer(given: Partial<Layer>, id: string | undefined): void {
    this.layers.push({
      ...layerOf(given.kind ?? 'lines', 'Layer', []),
      ...given,
      id: this.idOf(id),
      items: [],
    } as Layer)
    this.inLayer = true
  }

  /**
   * Keeps the stacking order: an item joins the topmost layer of its kind and its group that nothing above it would hide it
   * from, else it begins a new one on top.
   *
   * @throws InputError for an item that no drawing may have
   */
  add(kind: 'lines' | 'shapes', item: Line | Shape, group: string | null): void {
    const problem = itemProblem(kind, item)
    if (problem) throw new InputError(kind, problem)
    const box = boxOfItem(item)
    let at = this.layers.length - 1
    const isOfKind = (l: Layer | undefined): boolean => l?.kind === kind || (kind === 'shapes' && l?.kind === 'fills')
    const isOf = (l: Layer | undefined): boolean => isOfKind(l) && (this.inLayer || this.groups.get(l!) === group)
    while (
      !this.inLayer &&
      at >= 0 &&
      !isOf(this.layers[at]) &&
      !overlap(box, this.boxes.get(this.layers[at]!) ?? EVERYWHERE)
    )
      at--
    let layer = isOf(this.layers[at]) ? this.layers[at] : undefined
    if (!layer && this.layers.length >= MANY_LAYERS) {
      layer = this.layers.findLast(isOfKind)
      if (layer)
        this.note(
          'More changes between fills and strokes than there is room for layers: the order of some may differ',
          box,
        )
    }
    if (!layer) {
      layer = layerOf(
        kind,
        group
          ? freeName(new Set(this.layers.map((l) => l.name)), group.slice(0, LONGEST_LAYER_NAME))
          : kind === 'lines'
            ? 'Lines'
            : 'Shapes',
        [],
      )
      this.layers.push(layer)
      this.groups.set(layer, group)
    }
    this.boxes.set(layer, uniteBoxes(this.boxes.get(layer) ?? emptyBox(), box))
    ;(layer.items as (Line | Shape)[]).push(item)
  }

  /** The id that the file gives, or a fresh one where it gives none or the same one twice. */
  idOf(given: string | undefined): string {
    const id = given && given.length <= LONGEST_ID && !this.ids.has(given) ? given : newId()
    this.ids.add(id)
    return id
  }

  inkOf(colour: string): string {
    const known = this.inkByColour.get(colour) ?? this.inks.find((i) => i.colour === colour)?.id
    if (known) return known
    let id: string
    if (this.inks.length < MOST_INKS) {
      id = newId()
      this.inks.push({ id, name: colour === '#000000' ? 'Black' : colour, colour })
    } else {
      id = this.nearestInk(rgbOf(colour))
      this.note(`More than ${MOST_INKS} colours: others were given the nearest of them`)
    }
    this.inkByColour.set(colour, id)
    return id
  }

  private nearestInk([r, g, b]: number[]): string {
    this.rgb ??= this.inks.map((i) => rgbOf(i.colour))
    let best = 0
    let least = Infinity
    this.rgb.forEach(([ir, ig, ib], i) => {
      const off = (ir! - r!) ** 2 + (ig! - g!) ** 2 + (ib! - b!) ** 2
      if (off < least) [best, least] = [i, off]
    })
    return this.inks[best]!.id
  }

  /** What was collected; a drawing has an ink and a layer at least. */
  result(): { inks: Ink[]; layers: Layer[] } {
    return {
      inks: this.inks.length ? this.inks : [{ ...BLACK }],
      layers: this.layers.length ? this.layers : [layerOf('lines', 'Lines', [])],
    }
  }
}

/** Bounds of an item's paths with the width of its line. */
function boxOfItem(item: Line | Shape): Box {
  const paths = 'path' in item ? [item.path] : item.contours
  const box = boxOfPaths(paths)
  return 'path' in item ? grown(box, item.weight.size) : box
}

/** Bounds of the curves of some paths, px. */
export const boxOfPaths = (paths: readonly Path[]): Box => boxOfCubics(paths.flatMap(cubicsOfPath))

const EVERYWHERE: Box = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity }

const rgbOf = (colour: string): number[] => [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16))

function layerOf(kind: Layer['kind'], name: string, items: []): LinesLayer | ShapesLayer {
  return { id: newId(), name, kind, visible: true, locked: false, opacity: 1, items } as LinesLayer | ShapesLayer
}
