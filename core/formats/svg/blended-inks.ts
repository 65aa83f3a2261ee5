import { rgb } from 'd3-color'
import type { Path } from '../../geometry/path'
import type { Shape } from '../../model/model'
import type { Box } from '../../geometry/bounds'
import { overlap } from '../../geometry/bounds'
import { subtractShapes } from '../../shapes/combine'
import type { DrawingBuilder } from './drawing-builder'
import { boxOfPaths } from './drawing-builder'
import type { Paint } from './style'

/** So many shapes are remembered, the latest. */
const MOST = 2000
const OPAQUE = 0.999
const WHITE = '#ffffff'

/** What see-through colours become over what lies beneath them: exact over one plain colour; as on white paper, with a note, over anything else. */
export class BlendedInks {
  private readonly below: { box: Box; contours: readonly Path[]; colour: string | null }[] = []

  constructor(
    private readonly into: DrawingBuilder,
    private readonly tolerance: number,
  ) {}

  /** An opaque shape lies there from now on. */
  laid(contours: readonly Path[], colour: string): void {
    this.keep({ box: boxOfPaths(contours), contours, colour })
  }

  /** Something that is no plain ground lies there from now on. */
  crossed(box: Box): void {
    this.keep({ box, contours: [], colour: null })
  }

  private keep(entry: (typeof this.below)[number]): void {
    this.below.push(entry)
    if (this.below.length > 2 * MOST) this.below.splice(0, MOST)
  }

  /** The plain colour of a paint on what lies beneath a region. */
  over(paint: Paint, contours: readonly Path[]): string {
    if (paint.alpha >= OPAQUE) return paint.colour
    const box = boxOfPaths(contours)
    const ground = this.below.findLast((b) => overlap(b.box, box))
    if (ground?.colour && this.covers(ground.contours, contours)) return blend(paint, ground.colour)
    this.into.note('A see-through colour was made plain, as it looks on white', box)
    return blend(paint, WHITE)
  }

  private covers(ground: readonly Path[], region: readonly Path[]): boolean {
    const of = (contours: readonly Path[]): Shape => ({ id: '', contours: [...contours], ink: '', from: [] })
    return subtractShapes(of(region), [of(ground)], { tolerance: this.tolerance }).length === 0
  }
}

function blend({ colour, alpha }: Paint, ground: string): string {
  const [a, b] = [rgb(colour), rgb(ground)]
  const mix = (x: number, y: number): number => x * alpha + y * (1 - alpha)
  return rgb(mix(a.r, b.r), mix(a.g, b.g), mix(a.b, b.b)).formatHex()
}
