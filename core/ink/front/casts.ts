import { loopOfPath } from '../../arrangement/contours'
import { orElse } from '../../arrangement/as-far-as-possible'
import { loopOf } from '../../arrangement/loop'
import { resolveGroups } from '../../arrangement/resolve'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import type { Cast, Drawing, Shape } from '../../model/model'
import { outlineOf } from '../../outline/expand'
import { isSameList } from '../../same-list'
import type { Region } from '../outlines/outlines'
import { regionOf } from '../outlines/outlines'
import { castLine } from './cast-line'
import type { Thrown } from './thrown'

/** Without a light of its own a drawing is lit from here, as shares of its page. */
const LIGHT = { x: -0.1, y: -0.2 }

/** A shape of ink that a form throws, and the lines above which it lies in the stack. */
export interface CastPart {
  part: { item: Shape; region: Region }
  above: ReadonlySet<string>
}

interface Known {
  by: readonly unknown[]
  loops: readonly Path[]
  part: CastPart
}

/** The shapes that forms throw, each kept for as long as what it goes by is the same. */
export class Casts {
  private known = new Map<string, Known>()

  /** @param tolerance px */
  constructor(private readonly tolerance: number) {}

  of(thrown: readonly Thrown[], { page, settings }: Pick<Drawing, 'page' | 'settings'>): CastPart[] {
    const before = this.known
    this.known = new Map()
    const light = settings.light?.at ?? { x: LIGHT.x * page.width, y: LIGHT.y * page.height }
    return thrown.flatMap((t): CastPart[] => {
      const { cast, form, onto, notOnto } = t
      const by = [cast, form.loop, light.x, light.y, page.pxPerMm]
      const loops = [...onto.map((f) => f.loop), ...notOnto]
      const was = before.get(cast.id)
      const same = was && isSameList(was.by, by) && isSameList(was.loops, loops) ? was : null
      const part = same?.part ?? this.made(t, light, page.pxPerMm)
      this.known.set(cast.id, { by, loops, part })
      return part.part.region.contours.length ? [part] : []
    })
  }

  private made({ cast, form, onto, notOnto }: Thrown, light: Vec, pxPerMm: number): CastPart {
    const thrown = (mm: number) =>
      mm > 0 ? outlineOf(castLine(form, cast, light, mm * pxPerMm), this.tolerance).map(loopOf) : []
    const fixed = [thrown(cast.gap + cast.width), thrown(cast.gap)]
    const groups = [...fixed, ...onto.map((f) => [loopOfPath(f.loop)]), ...notOnto.map((p) => [loopOfPath(p)])]
    const first = fixed.length + onto.length
    // Where nothing comes of it, nothing is thrown.
    const contours = orElse(
      () =>
        resolveGroups(groups, this.tolerance, ({ winding }) => {
          if (winding[0] === 0 || winding[1] !== 0) return false
          for (let i = first; i < groups.length; i++) if (winding[i] !== 0) return false
          for (let i = fixed.length; i < first; i++) if (winding[i] !== 0) return true
          return false
        }),
      [],
    )
    const item: Shape = {
      id: `cast:${cast.id}`,
      contours: [],
      ink: inkOf(cast, form.lines[0]!.ink),
      from: [...cast.front],
    }
    return {
      part: { item, region: regionOf(contours) },
      above: new Set(onto.flatMap((f) => f.lines.map((l) => l.id))),
    }
  }
}

const inkOf = ({ ink }: Cast, own: string): string => ink ?? own
