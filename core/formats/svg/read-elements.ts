import type { Sketch } from '../../model/model'
import { InputError } from '../../errors'
import type { Matrix } from '../../geometry/matrix'
import { composed } from '../../geometry/matrix'
import { ClipReader } from './clip-reader'
import { clipOf } from './clips'
import type { DrawingBuilder } from './drawing-builder'
import { boxOfPaths } from './drawing-builder'
import type { SvgElement } from './element'
import { byId, idOfReference } from './element'
import type { Frame } from './frame'
import { boxOfContents, placeOf, rectangle, SKIPPED } from './frame'
import { lengthOf } from './lengths'
import { liveLine, liveShape, record } from './live-data'
import { dataOfShape, pathsOfData } from './paths'
import { ShapeDrawer } from './shape-drawer'
import { INITIAL_STYLE, styleIn } from './style'
import { matrixOf } from './transform'
import type { ViewBox } from './viewport'
import { countsOfReuse, DEEPEST_REUSE } from './reuse-counts'
import { fitted, viewBoxOf } from './viewport'

/** So many elements are drawn again by being reused, and so many more for each that the file has. */
const MOST_REUSED = 5000
const REUSED_EACH = 20
/** So many elements that were left out are told one by one. */
const MOST_TOLD = 5

/** Draws the elements of an SVG file into a drawing. */
export class SvgReader {
  private readonly elements: ReadonlyMap<string, SvgElement>
  private readonly drawer: ShapeDrawer
  private readonly clips: ClipReader
  /** How many elements each comes to, with what it reuses; and how many may still be drawn by reuse. */
  private readonly counts: ReadonlyMap<SvgElement, number>
  private left: number
  private losses = 0
  /** What was to be drawn and could not be first, a sentence. */
  firstLoss: string | null = null

  constructor(
    private readonly root: SvgElement,
    private readonly into: DrawingBuilder,
    tolerance: number,
  ) {
    this.elements = byId(root)
    this.counts = countsOfReuse(root, this.elements)
    this.left = MOST_REUSED + REUSED_EACH * this.counts.size
    this.drawer = new ShapeDrawer(into, this.elements, tolerance)
    this.clips = new ClipReader(this.elements, into, tolerance)
  }

  /** @param matrix from the user space of the root to the page */
  read(matrix: Matrix, port: ViewBox, isLive: boolean): void {
    const style = styleIn(port, INITIAL_STYLE, this.root)
    const frame: Frame = { matrix, style, alpha: style.opacity, clips: [], port, group: null, reusing: [] }
    this.within(this.root, frame, isLive ? null : topGroups(this.root))
    if (this.losses > MOST_TOLD) this.into.note(`${this.losses - MOST_TOLD} more elements were left out`)
  }

  private within(parent: SvgElement, frame: Frame, named: ReadonlyMap<SvgElement, string> | null = null): void {
    if (parent.tag === 'switch') {
      const chosen = parent.children.find((c) => isFor(c))
      if (chosen) this.element(chosen, frame, named)
      return
    }
    for (const child of parent.children) this.element(child, frame, named)
  }

  private element(e: SvgElement, about: Frame, named: ReadonlyMap<SvgElement, string> | null): void {
    const a = e.attributes
    if (Object.keys(a).some((k) => /^on[a-z]/.test(k))) this.into.note('An event handler was left out')
    if (e.tag === 'script') this.into.note('A script was left out')
    if (SKIPPED.has(e.tag)) return
    const style = styleIn(about.port, about.style, e)
    // A hidden layer of ours is hidden, not gone.
    if (!style.shown && !this.into.inLayer && !a['bt:layer']) return
    const matrix = composed(about.matrix, matrixOf(e.declared.transform?.replace(/px|deg/g, '') ?? a.transform))
    const frame: Frame = {
      ...about,
      matrix,
      style,
      alpha: about.alpha * style.opacity,
      group: about.group ?? named?.get(e) ?? null,
    }
    if (a['bt:layer']) return this.layer(e, frame)
    if (a['bt:sketch']) return this.sketch(a)
    // What rules make is made anew.
    if (a['bt:image']) return
    try {
      this.drawIn(e, this.clips.clipped(e, frame), named)
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      // One element that cannot be used loses nothing but itself.
      this.lose(`A <${e.tag}> was left out: ${error.message.replace(/\.$/, '')}`)
    }
  }

  private lose(text: string): void {
    this.firstLoss ??= text
    if (this.losses++ < MOST_TOLD) this.into.note(text)
  }

  private layer(e: SvgElement, frame: Frame): void {
    this.into.beginLayer(record(e.attributes['bt:layer']!, 'bt:layer'), e.attributes.id)
    // How strong a layer is it says itself.
    this.within(e, { ...frame, alpha: 1 })
    this.into.inLayer = false
  }

  private sketch(a: SvgElement['attributes']): void {
    const last = this.into.layers.at(-1)
    if (last?.kind === 'sketch')
      last.items.push({ ...(record(a['bt:sketch']!, 'bt:sketch') as unknown as Sketch), id: this.into.idOf(a.id) })
  }

  private drawIn(e: SvgElement, frame: Frame, named: ReadonlyMap<SvgElement, string> | null): void {
    const { style } = frame
    switch (e.tag) {
      case 'g':
      case 'a':
      case 'switch':
        this.tellOfEffects(e, frame)
        return this.within(e, frame, named)
      case 'svg':
        return this.viewport(e, frame, e.attributes)
      case 'use':
        return this.reuse(e, frame)
      case 'text':
      case 'image':
      case 'foreignObject': {
        if (style.visible) this.into.note(LEFT_OUT[e.tag]!, placeOf(e, frame))
        return
      }
      default:
        this.shape(e, frame)
    }
  }

  /** What has a look that no ink has. */
  private tellOfEffects(e: SvgElement, { style, matrix }: Frame, place = boxOfContents(e, matrix)): void {
    if (style.masked) this.into.note('A mask was left out: what it hides shows', place)
    if (style.filtered) this.into.note('A filter was left out', place)
    if (style.blended) this.into.note('A blending of colours was left out', place)
    if (style.opacity < 1 && e.children.length > 1)
      this.into.note('A see-through group was made of see-through parts: where they overlap it differs', place)
  }

  /** A viewport within another: a nested drawing, or a symbol that is reused. */
  private viewport(e: SvgElement, frame: Frame, size: SvgElement['attributes']): void {
    const { port, matrix } = frame
    const em = frame.style.em
    const of = (name: 'x' | 'y' | 'width' | 'height', whole: number, otherwise: number): number =>
      lengthOf(size[name] ?? e.attributes[name], { whole, em }) ?? otherwise
    const place: ViewBox = {
      x: e.tag === 'symbol' ? 0 : of('x', port.width, 0),
      y: e.tag === 'symbol' ? 0 : of('y', port.height, 0),
      width: of('width', port.width, port.width),
      height: of('height', port.height, port.height),
    }
    if (!(place.width > 0 && place.height > 0)) return
    const box = viewBoxOf(e.attributes.viewBox)
    const cut = (e.declared.overflow ?? e.attributes.overflow ?? 'hidden') === 'hidden'
    const clips = cut ? [...frame.clips, clipOf([rectangle(place, matrix)])] : frame.clips
    this.within(e, {
      ...frame,
      matrix: composed(matrix, fitted(box, place, e.attributes.preserveAspectRatio)),
      clips,
      port: box ?? { ...place, x: 0, y: 0 },
    })
  }

  private reuse(e: SvgElement, frame: Frame): void {
    const a = e.attributes
    const href = a.href ?? a['xlink:href']
    const id = idOfReference(href)
    const target = id ? this.elements.get(id) : undefined
    if (!id || !target) {
      this.into.note(
        href && !href.startsWith('#')
          ? 'An element reused from another file was left out'
          : 'A reused element was left out: what it names is not in the file',
      )
      return
    }
    if (frame.reusing.includes(id) || isWithin(e, target))
      throw new InputError('use', `it reuses itself (#${id.slice(0, 40)})`)
    if (frame.reusing.length >= DEEPEST_REUSE)
      throw new InputError('use', `it reuses what reuses, more than ${DEEPEST_REUSE} deep`)
    if (!frame.reusing.length) {
      // Counted before anything of it is drawn: a few lines can ask for millions.
      const drawn = this.counts.get(target) ?? 0
      if (drawn > this.left)
        throw new InputError(
          'use',
          `with what it reuses in turn it comes to ${drawn > 1e9 ? 'thousands of millions of' : drawn.toLocaleString('en')} elements`,
        )
      this.left -= drawn
    }
    const { port, style } = frame
    const shift: Matrix = [
      1,
      0,
      0,
      1,
      lengthOf(a.x, { whole: port.width, em: style.em }) ?? 0,
      lengthOf(a.y, { whole: port.height, em: style.em }) ?? 0,
    ]
    const inside: Frame = { ...frame, matrix: composed(frame.matrix, shift), reusing: [...frame.reusing, id] }
    if (target.tag !== 'symbol' && target.tag !== 'svg') return this.element(target, inside, null)
    const own = styleIn(port, style, target)
    if (!own.shown) return
    const placed: Frame = {
      ...inside,
      style: own,
      alpha: inside.alpha * own.opacity,
      matrix: composed(inside.matrix, matrixOf(target.attributes.transform)),
    }
    this.viewport(target, this.clips.clipped(target, placed), {
      ...(a.width && { width: a.width }),
      ...(a.height && { height: a.height }),
    })
  }

  private shape(e: SvgElement, frame: Frame): void {
    const { matrix, style } = frame
    const a = e.attributes
    const d = dataOfShape(e.tag, a, frame.port, e.declared)
    if (!d || (!style.visible && !this.into.inLayer)) return
    const paths = pathsOfData(d, matrix).filter((p) => p.nodes.length)
    if (!paths.length) return
    if (a['bt:weight'])
      return this.into.add('lines', liveLine(a, paths[0]!, style.stroke?.colour ?? '#000000', this.into), null)
    if (a['bt:shape'])
      return this.into.add('shapes', liveShape(a, paths, style.fill?.colour ?? '#000000', this.into), null)
    if (style.masked || style.filtered || style.blended) this.tellOfEffects(e, frame, boxOfPaths(paths))
    this.drawer.draw(d, paths, frame)
  }
}

const LEFT_OUT: Record<string, string> = {
  text: 'Lettering was left out: turn it into paths first',
  image: 'A picture was left out: bring it in as a sketch',
  foreignObject: 'Foreign content was left out',
}

/** Whether an element lies in another, or is it. */
function isWithin(e: SvgElement, other: SvgElement): boolean {
  for (let at: SvgElement | null = e; at; at = at.parent) if (at === other) return true
  return false
}

/** Whether one of several is to be shown to whoever reads English, and asks for nothing that is not known. */
const isFor = ({ attributes: a, tag }: SvgElement): boolean =>
  !SKIPPED.has(tag) &&
  tag !== 'foreignObject' &&
  (a.systemLanguage === undefined || /(^|[\s,])en\b/i.test(a.systemLanguage)) &&
  !a.requiredExtensions

/** The groups that layers are named for: those beside each other nearest to the root, where one has a name. */
function topGroups(root: SvgElement): ReadonlyMap<SvgElement, string> {
  let here = root
  for (;;) {
    const drawn = here.children.filter((c) => !SKIPPED.has(c.tag))
    const groups = drawn.filter((c) => c.tag === 'g')
    if (groups.length === 1 && drawn.length === 1 && groups[0]!.children.some((c) => c.tag === 'g')) here = groups[0]!
    else return new Map(groups.flatMap((g) => (nameOf(g) ? [[g, nameOf(g)!] as const] : [])))
  }
}

function nameOf({ attributes: a, children }: SvgElement): string | null {
  const title = children.find((c) => c.tag === 'title')?.text.trim()
  return (title || a['aria-label'] || a['data-name'] || a.id || '').trim() || null
}
