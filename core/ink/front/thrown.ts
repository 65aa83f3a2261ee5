import type { Path } from '../../geometry/path'
import type { Cast, Drawing } from '../../model/model'
import type { Pair } from './decided'
import { formOf } from './decided'
import type { Form } from './form'

/** What a form throws on those behind it, but where others lie before these. */
export interface Thrown {
  cast: Cast
  form: Form
  onto: readonly Form[]
  notOnto: readonly Path[]
}

/** What forms throw on those behind them; of a form that is not there, the id goes to those that wait. */
export function thrown(
  { amendments }: Pick<Drawing, 'amendments'>,
  pairs: readonly Pair[],
  bounds: ReadonlyMap<string, Form>,
  waits: string[],
): Thrown[] {
  return (amendments ?? []).flatMap((cast): Thrown[] => {
    if (cast.kind !== 'cast') return []
    const form = formOf(cast.front, bounds)
    if (!form) {
      waits.push(cast.id)
      return []
    }
    const onto = pairs.filter((p) => p.front === form).map((p) => p.back)
    const others = pairs.filter((p) => p.front !== form && onto.includes(p.back)).map((p) => p.front.loop)
    return onto.length ? [{ cast, form, onto, notOnto: [form.loop, ...new Set(others)] }] : []
  })
}
