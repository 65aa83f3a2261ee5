import type { Path } from '../../geometry/path'
import type { Matrix } from '../../geometry/matrix'
import { composed } from '../../geometry/matrix'
import type { Clip } from './clips'
import { clipOfAll } from './clips'
import type { DrawingBuilder } from './drawing-builder'
import { boxOfPaths } from './drawing-builder'
import type { SvgElement } from './element'
import { idOfReference } from './element'
import { evenOdd } from './even-odd'
import type { Frame } from './frame'
import { boxOfContents, localPaths } from './frame'
import { lengthOf } from './lengths'
import { dataOfShape, pathsOfData } from './paths'
import { DEEPEST_REUSE } from './reuse-counts'
import { INITIAL_STYLE, styleIn } from './style'
import { matrixOf } from './transform'
import type { ViewBox } from './viewport'

/** Clips lie within clips up to so many. */
const MOST_CLIPS = 16

/** Sizes in a clip are no shares of a viewport. */
const NOWHERE: ViewBox = { x: 0, y: 0, width: 0, height: 0 }

/** The clips of an SVG file, each made once for a place. */
export class ClipReader {
  private readonly made = new Map<string, Clip>()

  constructor(
    private readonly elements: ReadonlyMap<string, SvgElement>,
    private readonly into: DrawingBuilder,
    private readonly tolerance: number,
  ) {}

  /** The frame with the clip that an element has, and those that this has; `seen` are the ids of those on the way. */
  clipped(e: SvgElement, frame: Frame, seen: readonly string[] = []): Frame {
    const { clip: id } = frame.style
    const clip = id ? this.elements.get(id) : undefined
    if (!id || clip?.tag !== 'clipPath') return frame
    if (seen.includes(id) || frame.clips.length >= MOST_CLIPS) {
      this.into.note(
        seen.includes(id)
          ? 'A clip that clips itself was left out'
          : `Clips within more than ${MOST_CLIPS} others were left out`,
        boxOfContents(e, frame.matrix),
      )
      return frame
    }
    const ofBox = (clip.attributes.clipPathUnits ?? '') === 'objectBoundingBox'
    const paths = ofBox ? localPaths(e) : []
    if (ofBox && !paths.length) {
      this.into.note('A clip that is as large as a group was left out', boxOfContents(e, frame.matrix))
      return frame
    }
    const box = ofBox ? boxOfPaths(paths) : null
    const space = box
      ? composed(frame.matrix, [box.maxX - box.minX, 0, 0, box.maxY - box.minY, box.minX, box.minY])
      : frame.matrix
    const clips = [...frame.clips, this.clipAt(id, clip, composed(space, matrixOf(clip.attributes.transform)))]
    const further = clip.declared['clip-path'] ?? clip.attributes['clip-path']
    return further
      ? this.clipped(e, { ...frame, clips, style: { ...frame.style, clip: idOfReference(further) } }, [...seen, id])
      : { ...frame, clips }
  }

  /** What a clip leaves where it comes to lie; made once for all that it clips there. */
  private clipAt(id: string, clip: SvgElement, matrix: Matrix): Clip {
    const key = `${id} ${matrix.join(' ')}`
    let made = this.made.get(key)
    if (!made) this.made.set(key, (made = clipOfAll(this.regionOf(clip, matrix, 0), this.tolerance)))
    return made
  }

  /** The regions that the shapes in a clip cover, on the page. */
  private regionOf(clip: SvgElement, matrix: Matrix, depth: number): Path[][] {
    return clip.children.flatMap((child): Path[][] => {
      const style = styleIn(NOWHERE, styleIn(NOWHERE, INITIAL_STYLE, clip), child)
      if (!style.shown || !style.visible) return []
      const own = composed(matrix, matrixOf(child.attributes.transform))
      if (child.tag === 'use') {
        const target = this.elements.get(idOfReference(child.attributes.href ?? child.attributes['xlink:href']) ?? '')
        const shift: Matrix = [
          1,
          0,
          0,
          1,
          lengthOf(child.attributes.x, { whole: 0 }) ?? 0,
          lengthOf(child.attributes.y, { whole: 0 }) ?? 0,
        ]
        return target && depth < DEEPEST_REUSE
          ? this.regionOf({ ...clip, children: [target] }, composed(own, shift), depth + 1)
          : []
      }
      const d = dataOfShape(child.tag, child.attributes)
      if (!d) return []
      const paths = pathsOfData(d, own)
        .filter((p) => p.nodes.length > 1)
        .map((p) => ({ ...p, closed: true }))
      return [style.clipEvenOdd ? evenOdd(paths, this.tolerance) : paths]
    })
  }
}
