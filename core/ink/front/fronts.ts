import Flatbush from 'flatbush'
import type { Drawing, Line, Shape } from '../../model/model'
import { boxOfPath, crossingsBetween } from '../../geometry/known'
import type { Path } from '../../geometry/path'
import type { EndContact } from '../../relations/end-contacts'
import { widestHalfWidth } from '../../weight/half-widths'
import { covered, covers } from './covers'
import type { Decided, Pair } from './decided'
import { boundsOf, decidedOneByOne, pairKey } from './decided'
import type { Form } from './form'
import { bridgesBent } from './form-bridges'
import { areaOf, boxOfForm } from './form'
import { Forms } from './forms'
import type { Crossed } from './overlaps'
import type { Thrown } from './thrown'
import { thrown } from './thrown'
import { ALONG_EDGE, comesNear, liesWithin, Overlaps, pairsNear } from './overlaps'

/** What of a line or solid is hidden: what lies within these loops; and beneath these lines, which lie behind it in the stack but before it. */
export interface Hidden {
  loops: readonly Path[]
  under: readonly Line[]
  /** It lies behind a form, not only beneath what covers all below it. */
  byForm: boolean
}

/** What lies before what, as it was decided. */
export interface InFront {
  /** By the id of a line or solid that is hidden in part. */
  hidden: ReadonlyMap<string, Hidden>
  /**
   * Ends, each the id of a line and which of its ends, at which an outline only goes on from line to line: others that lie
   * there do not end it.
   */
  goesOn: ReadonlySet<string>
  /** What is thrown by forms that lie in front of others. */
  casts: readonly Thrown[]
  /** Decisions about forms that are not there. */
  waits: readonly string[]
}

/** The ink of an outline reaches into a form that places along it come so near to, in half-widths: there are not so many of these. */
const NEAR = 1.5

const NOTHING: InFront = { hidden: new Map(), goesOn: new Set(), casts: [], waits: [] }

/** Whether anything is said in a drawing of what lies before what. */
export const saysFronts = ({ amendments, settings }: Pick<Drawing, 'amendments' | 'settings'>): boolean =>
  settings.frontsByOrder === true || (amendments ?? []).some((a) => a.kind === 'front' || a.kind === 'cast')

/** What lies before what, kept for as long as the lines are the same. */
export class Fronts {
  private readonly forms = new Forms()
  private readonly overlaps: Overlaps
  private readonly within = new WeakMap<Path, WeakMap<Path, boolean>>()

  /** @param perPx px of the page for each px of the usual page */
  constructor(private readonly perPx: number) {
    this.overlaps = new Overlaps(ALONG_EDGE * perPx)
  }

  /**
   * @param items lines and solids that have ink, bottom to top
   * @param endsOf what the ends of a line do, by its id
   */
  of(
    drawing: Pick<Drawing, 'amendments' | 'settings'>,
    items: readonly (Line | Shape)[],
    endsOf: (id: string) => readonly EndContact[],
  ): InFront {
    if (!saysFronts(drawing)) return items.some(covers) ? { ...NOTHING, hidden: beneath(items, new Map()) } : NOTHING
    const lines = items.flatMap((item) => ('path' in item ? [item] : []))
    const forms = this.forms.of(lines, endsOf, bridgesBent(drawing))
    const { pairs, apart, waits, known } = this.decided(drawing, forms)
    const bounds = boundsOf(forms)
    const place = new Map(lines.map((l, i) => [l.id, i]))
    const top = (f: Form): number => Math.max(...f.lines.map((l) => place.get(l.id)!))
    const members = this.membersOf(lines, bounds)
    /** Whether what is behind a form hides with it a line that lies within it. */
    const goesAlong = (line: Line, { front, back, byOrder }: Pair): boolean => {
      const own = bounds.get(line.id)
      if (own && known.has(pairKey(front, own))) return false
      if (byOrder && place.get(line.id)! > top(front)) return false
      return !this.isRather(line, own?.loop ?? line.path, front, back, place)
    }
    /** The lines of a form that is behind, and those that go along with it. */
    const behind = (pair: Pair): Line[] =>
      [...pair.back.lines, ...members(pair.back).filter((l) => goesAlong(l, pair))].filter(
        (l) => !pair.front.lines.includes(l),
      )
    const loops = listed(pairs.flatMap((pair) => behind(pair).map((l) => [l.id, pair.front.loop] as const)))
    const under = listed(
      pairs.flatMap((pair) =>
        behind(pair).flatMap((l) =>
          pair.front.lines.flatMap((f) =>
            f.ink !== l.ink && place.get(f.id)! < place.get(l.id)! ? [[l.id, f] as const] : [],
          ),
        ),
      ),
    )
    const spared = listed(
      apart.flatMap(({ front, back }) =>
        [...back.lines, ...members(back)].flatMap((l) =>
          front.lines.includes(l) ? [] : front.lines.map((f) => [l.id, f.id] as const),
        ),
      ),
    )
    const casts = thrown(drawing, pairs, bounds, waits)
    const shaped = new Set(pairs.flatMap(({ front, back }) => [front, back]))
    const hidden = beneath(items, spared)
    for (const [id, all] of loops)
      hidden.set(id, {
        loops: [...all, ...(hidden.get(id)?.loops ?? [])],
        under: [...(under.get(id) ?? [])],
        byForm: true,
      })
    return {
      hidden,
      casts,
      goesOn: new Set([...shaped].flatMap((f) => goingOn(f, endsOf))),
      waits,
    }
  }

  /** All forms, where two of them overlap, and where they do and nothing was decided. */
  asked(
    drawing: Pick<Drawing, 'amendments' | 'settings'>,
    lines: readonly Line[],
    endsOf: (id: string) => readonly EndContact[],
    layerOf: (id: string) => number,
  ): { forms: Form[]; crossed: Crossed[]; undecided: Crossed[] } {
    const forms = this.forms.of(lines, endsOf, bridgesBent(drawing))
    const { known } = this.decided(drawing, forms)
    const crossed = this.overlaps.of(forms)
    // The second form of a pair lies above the first: where it covers what lies behind it, that is decided.
    const isDecided = ({ a, b }: Crossed): boolean =>
      known.has(pairKey(forms[a]!, forms[b]!)) || forms[b]!.lines.some(covers)
    return { forms, crossed, undecided: this.ofTheirOwn(forms, crossed, layerOf).filter((c) => !isDecided(c)) }
  }

  /** Overlaps but those of a form that belongs to another of its layer, within which it lies: it goes along with that in what overlaps both. */
  private ofTheirOwn(forms: readonly Form[], crossed: readonly Crossed[], layerOf: (id: string) => number): Crossed[] {
    const others = new Map<number, number[]>()
    for (const { a, b } of crossed) {
      others.set(a, [...(others.get(a) ?? []), b])
      others.set(b, [...(others.get(b) ?? []), a])
    }
    const isOfLayer = (one: Form, other: Form): boolean => layerOf(one.lines[0]!.id) === layerOf(other.lines[0]!.id)
    const goesAlong = (a: number, b: number): boolean =>
      others.get(b)!.some((o) => o !== a && isOfLayer(forms[a]!, forms[o]!) && this.isWithin(forms[a]!.loop, forms[o]!))
    return crossed.filter(({ a, b }) => !goesAlong(a, b) && !goesAlong(b, a))
  }

  /** What was decided of the forms that are there, one by one or by their order. */
  private decided(drawing: Pick<Drawing, 'amendments' | 'settings'>, forms: readonly Form[]): Decided {
    const decided = decidedOneByOne(drawing, forms)
    if (!drawing.settings.frontsByOrder) return decided
    const closed = forms.filter((f) => !f.bridge)
    for (const { front, back } of this.byOrder(closed)) {
      const key = pairKey(front, back)
      if (decided.known.has(key)) continue
      decided.known.add(key)
      decided.pairs.push({ front, back, byOrder: true })
    }
    return decided
  }

  /** Forms, bottom to top: each lies before those below it that it overlaps, that lie within it, or whose ink reaches into it. */
  private byOrder(forms: readonly Form[]): Pair[] {
    const reach = forms.map((f) => Math.max(...f.lines.map((l) => widestHalfWidth(l.weight, l.finish.align))))
    return pairsNear(forms, reach).flatMap(([a, b]): Pair[] => {
      const [back, front] = [forms[a]!, forms[b]!]
      if (back.lines.some((l) => front.lines.includes(l))) return []
      return crossingsBetween(back.loop, front.loop).length > 0 ||
        this.isWithin(back.loop, front) ||
        comesNear(back, front, NEAR * reach[a]!)
        ? [{ front, back }]
        : []
    })
  }

  /** Finds the lines that lie wholly within a form, as does all that they bound: they belong to it. */
  private membersOf(lines: readonly Line[], bounds: ReadonlyMap<string, Form>): (form: Form) => readonly Line[] {
    const known = new Map<Form, readonly Line[]>()
    let index: Flatbush | null = null
    const find = (form: Form): readonly Line[] => {
      if (!index && lines.length) {
        index = new Flatbush(lines.length)
        for (const l of lines) {
          const { minX, minY, maxX, maxY } = boxOfPath(l.path)
          index.add(minX, minY, maxX, maxY)
        }
        index.finish()
      }
      const { minX, minY, maxX, maxY } = boxOfForm(form)
      const near = index?.search(minX, minY, maxX, maxY) ?? []
      return near.flatMap((i) => {
        const line = lines[i]!
        const whole = bounds.get(line.id)?.loop ?? line.path
        return !form.lines.includes(line) && this.isWithin(whole, form) ? [line] : []
      })
    }
    return (form) => {
      let found = known.get(form)
      if (!found) known.set(form, (found = find(form)))
      return found
    }
  }

  private isWithin(path: Path, form: Form): boolean {
    let known = this.within.get(form.loop)
    if (!known) this.within.set(form.loop, (known = new WeakMap()))
    let is = known.get(path)
    if (is === undefined) known.set(path, (is = liesWithin(path, form, this.perPx)))
    return is
  }

  /**
   * Whether a line that lies within one form lies within another as well, and belongs rather to that: to the upper one of
   * those below it, else to the smaller.
   */
  private isRather(line: Line, whole: Path, other: Form, one: Form, place: ReadonlyMap<string, number>): boolean {
    if (!this.isWithin(whole, other)) return false
    const own = place.get(line.id)!
    const top = (f: Form): number => Math.max(...f.lines.map((l) => place.get(l.id)!))
    const [a, b] = [top(other), top(one)]
    if (a < own && b < own) return a > b
    if (a < own || b < own) return a < own
    return areaOf(other.loop) < areaOf(one.loop)
  }
}

/** What is hidden by lines that cover all that is below them. */
const beneath = (
  items: readonly (Line | Shape)[],
  spared: ReadonlyMap<string, ReadonlySet<string>>,
): Map<string, Hidden> =>
  new Map([...covered(items, spared)].map(([id, loops]) => [id, { loops, under: [], byForm: false }]))

/** Ends at which a form's outline goes on into another line of its own, right where a line lies that is none of its own. */
const goingOn = ({ lines }: Form, endsOf: (id: string) => readonly EndContact[]): string[] => {
  const own = new Set(lines.map((l) => l.id))
  return lines.flatMap((l) =>
    endsOf(l.id).flatMap(({ end, touched }) =>
      touched.some((t) => t.ends && own.has(t.line)) && touched.some((t) => !own.has(t.line)) ? [`${l.id} ${end}`] : [],
    ),
  )
}

/** What comes with each key, once. */
function listed<T>(entries: readonly (readonly [string, T])[]): Map<string, Set<T>> {
  const map = new Map<string, Set<T>>()
  for (const [key, value] of entries) {
    const all = map.get(key)
    if (all) all.add(value)
    else map.set(key, new Set([value]))
  }
  return map
}
