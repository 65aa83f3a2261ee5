import Flatbush from 'flatbush'
import { arcOfPath } from '../../geometry/known'
import type { Path } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import type { EndContact } from '../../relations/end-contacts'
import { remembered } from '../../remembered'
import type { End, Step } from './chains'
import type { Form } from './form'
import { boxOfForm, isIn } from './form'

/** Forms, found by the lines that bound them and by the places that lie in them. */
export class FormIndex {
  private readonly byLine = new Map<string, Form>()
  private readonly boxes: Flatbush | null
  private readonly found = new WeakMap<EndContact, readonly Form[]>()

  constructor(private readonly forms: readonly Form[]) {
    for (const form of forms) for (const l of form.lines) this.byLine.set(l.id, form)
    this.boxes = forms.length ? new Flatbush(forms.length) : null
    for (const form of forms) {
      const { minX, minY, maxX, maxY } = boxOfForm(form)
      this.boxes!.add(minX, minY, maxX, maxY)
    }
    this.boxes?.finish()
  }

  /** Those at which an end is: on their outlines, or within them. */
  at(contact: EndContact): readonly Form[] {
    let found = this.found.get(contact)
    if (!found) this.found.set(contact, (found = this.find(contact)))
    return found
  }

  /** Whether these are still the forms in it. */
  isOf(forms: readonly Form[]): boolean {
    return forms.length === this.forms.length && forms.every((f, i) => f.loop === this.forms[i]!.loop)
  }

  private find({ touched, at }: EndContact): readonly Form[] {
    let found = NONE
    const add = (form: Form | undefined): void => {
      if (form && !found.includes(form)) found = [...found, form]
    }
    for (const t of touched) add(this.byLine.get(t.line))
    for (const i of this.boxes?.search(at.x, at.y, at.x, at.y) ?? []) if (isIn(this.forms[i]!, at)) add(this.forms[i])
    return found
  }
}

const NONE: readonly Form[] = []

/** Whether a way comes to an end at one form at both of its ends, and does not lie within that. */
export function runsInto(
  steps: readonly Step[],
  forms: FormIndex,
  endsOf: (id: string) => readonly EndContact[],
): boolean {
  const [first, last] = [steps[0]!, steps.at(-1)!]
  const tip = ({ line }: Step, end: End): EndContact | undefined => endsOf(line.id).find((c) => c.end === end)
  const one = tip(first, first.turned ? 'last' : 'first')
  const there = one ? forms.at(one) : NONE
  if (!there.length) return false
  const other = tip(last, last.turned ? 'first' : 'last')
  if (!other) return false
  const isOutside = (f: Form): boolean =>
    steps.reduce((n, { line }) => n + placesIn(line.path, f.loop), 0) < (steps.length * PLACES) / 2
  return forms
    .at(other)
    .some((f) => there.includes(f) && !steps.some((s) => f.lines.some((l) => l.id === s.line.id)) && isOutside(f))
}

/** Of each line of a way that runs into a form so many places are looked at: most of them lie outside it, or it is a way within. */
const PLACES = 9

const placesOf = remembered((path: Path): Vec[] => {
  const arc = arcOfPath(path)
  return Array.from({ length: PLACES }, (_, i) => arc.point((arc.total * (i + 0.5)) / PLACES))
})

const within = remembered((_loop: Path) => new WeakMap<Path, number>())

/** How many of the places of a path lie within a loop; worked out once for as long as both are the same. */
function placesIn(path: Path, loop: Path): number {
  const known = within(loop)
  let count = known.get(path)
  if (count === undefined) known.set(path, (count = placesOf(path).filter((p) => isIn({ loop }, p)).length))
  return count
}
