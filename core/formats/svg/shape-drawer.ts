import { evenWeight, newLine } from '../../model/create'
import type { Line, Shape } from '../../model/model'
import type { Path } from '../../geometry/path'
import { grown } from '../../geometry/bounds'
import { arcOfPath } from '../../geometry/known'
import { IDENTITY, mapped } from '../../geometry/matrix'
import { mapPath } from '../../geometry/path'
import { expandLine } from '../../outline/expand'
import { dashCount, MOST_DASHES } from '../../outline/visible'
import { BlendedInks } from './blended-inks'
import { within } from './clips'
import type { DrawingBuilder } from './drawing-builder'
import { boxOfPaths } from './drawing-builder'
import type { SvgElement } from './element'
import { evenOdd } from './even-odd'
import type { Frame } from './frame'
import { meanPaint } from './paint-servers'
import { pathsOfData } from './paths'
import type { Paint, Style } from './style'
import { scaleOf } from './transform'

const OPAQUE = 0.999

/** Draws the fills and strokes of single shapes into a drawing. */
export class ShapeDrawer {
  private readonly blended: BlendedInks

  constructor(
    private readonly into: DrawingBuilder,
    private readonly elements: ReadonlyMap<string, SvgElement>,
    private readonly tolerance: number,
  ) {
    this.blended = new BlendedInks(into, tolerance)
  }

  /**
   * @param d path data in the shape's own space
   * @param paths the same on the page
   */
  draw(d: string, paths: readonly Path[], frame: Frame): void {
    const fill = (): void => this.fill(paths, frame)
    const stroke = (): void => this.strokes(d, paths, frame)
    for (const draw of frame.style.strokeFirst ? [stroke, fill] : [fill, stroke]) draw()
  }

  private fill(paths: readonly Path[], frame: Frame): void {
    const { style } = frame
    const paint = this.flat(style.fill, paths)
    if (!paint || !paths.some((p) => p.nodes.length > 2 || p.closed)) return
    const closed = paths.map((p) => ({ ...p, closed: true }))
    const whole =
      style.evenOdd && (closed.length > 1 || closed[0]!.nodes.length > 3) ? evenOdd(closed, this.tolerance) : closed
    this.addShape(whole, { ...paint, alpha: paint.alpha * style.fillOpacity * frame.alpha }, frame)
  }

  private addShape(contours: readonly Path[], paint: Paint, { clips, group }: Pick<Frame, 'clips' | 'group'>): void {
    if (!contours.length) return
    const left = within(boxOfPaths(contours), clips, () => contours, this.tolerance)
    const shown = left === 'all' ? contours : left
    if (!shown.length || paint.alpha <= 0) return
    const colour = this.blended.over(paint, shown)
    const shape: Shape = { id: this.into.idOf(undefined), contours: [...shown], ink: this.into.inkOf(colour), from: [] }
    this.into.add('shapes', shape, group)
    this.blended.laid(shown, colour)
  }

  private strokes(d: string, paths: readonly Path[], frame: Frame): void {
    const { style, matrix } = frame
    const paint = this.flat(style.stroke, paths)
    if (!paint || !(style.strokeWidth > 0)) return
    const alpha = paint.alpha * style.strokeOpacity * frame.alpha
    if (alpha <= 0) return
    const { scale, even } = style.nonScaling ? { scale: 1, even: true } : scaleOf(matrix)
    if (!(scale > 0)) return
    if (style.dash.length && style.dashOffset) this.into.note('Dashes begin where their line does', boxOfPaths(paths))
    if (!even) {
      // A pen that the transform makes an ellipse of: outlined where it is round, and put through the transform.
      for (const path of pathsOfData(d, IDENTITY).filter((p) => p.nodes.length)) {
        const outline = expandLine(lineOf(path, style, 1, ''), {
          tolerance:
            this.tolerance / Math.max(Math.hypot(matrix[0], matrix[1]), Math.hypot(matrix[2], matrix[3]), 1e-9),
        })
        this.addShape(
          outline.map((c) => mapPath(c, (p) => mapped(matrix, p))),
          { ...paint, alpha },
          frame,
        )
      }
      return
    }
    for (const path of paths) this.stroke(lineOf(path, style, scale, ''), { ...paint, alpha }, frame)
    if (style.dash.length && paths.some((p) => dashCount(style.dash, arcOfPath(p).total / scale) > MOST_DASHES)) {
      this.into.note(`A stroke of more than ${MOST_DASHES} dashes is drawn whole`, boxOfPaths(paths))
    }
  }

  private stroke(line: Line, paint: Paint, { clips, group }: Frame): void {
    const box = grown(
      boxOfPaths([line.path]),
      line.weight.size * Math.max(1, line.finish.join === 'miter' ? line.finish.miterLimit / 2 : 1),
    )
    const outline = (): Path[] => expandLine(line, { tolerance: this.tolerance })
    const left = within(box, clips, outline, this.tolerance)
    if (left === 'all') {
      const colour = paint.alpha < OPAQUE ? this.blended.over(paint, outline()) : paint.colour
      this.into.add('lines', { ...line, id: this.into.idOf(undefined), ink: this.into.inkOf(colour) }, group)
      this.blended.crossed(box)
    } else if (left.length) {
      this.into.note('A stroke that is cut off by a clip became a shape', box)
      this.addShape(left, paint, { clips: [], group })
    }
  }

  /** A paint as one colour. */
  private flat(paint: Paint | null, paths: readonly Path[]): Paint | null {
    if (!paint?.server) return paint && paint.alpha > 0 ? paint : null
    const server = this.elements.get(paint.server)
    if (!server || !/^(linearGradient|radialGradient|pattern)$/.test(server.tag)) return paint.alpha > 0 ? paint : null
    const mean = meanPaint(server, this.elements)
    this.into.note(
      server.tag === 'pattern' ? 'A pattern was given its mean colour' : 'A gradient was given its mean colour',
      boxOfPaths(paths),
    )
    return mean
  }
}

function lineOf(path: Path, style: Style, scale: number, ink: string): Line {
  return newLine(path, {
    weight: evenWeight(style.strokeWidth * scale),
    finish: {
      startCap: style.cap,
      endCap: style.cap,
      join: style.join,
      miterLimit: style.miterLimit,
      align: 'centre',
      dash: style.dash.map((v) => v * scale),
    },
    ink,
  })
}
