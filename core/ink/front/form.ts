import { areaOfCubics } from '../../geometry/area'
import type { Box } from '../../geometry/bounds'
import { isWithin } from '../../geometry/bounds'
import type { Cubic } from '../../geometry/cubic'
import { boxOfPath } from '../../geometry/known'
import type { Path } from '../../geometry/path'
import { cubicsOfPath } from '../../geometry/path'
import type { Vec } from '../../geometry/point'
import { windingAt } from '../../geometry/winding-at'
import type { Line } from '../../model/model'
import { remembered } from '../../remembered'
import type { Bridged } from './form-bridges'

/** The region that one thing takes up. */
export interface Form {
  /** Ids of the lines that bound it, sorted, in one word. */
  key: string
  /** In the order in which they go round it. */
  lines: readonly Line[]
  /** Once round it; the same object for as long as the lines are the same. */
  loop: Path
  /** It is open where it runs into another, and a bridge closes it; null where it is closed. */
  bridge: Bridged | null
}

/** A loop's curves, as a region of one contour. */
export const contoursOf = remembered((loop: Path): readonly (readonly Cubic[])[] => [cubicsOfPath(loop)])

export const boxOfForm = (form: Form): Box => boxOfPath(form.loop)

/** Whether a point lies within a form. */
export const isIn = ({ loop }: Pick<Form, 'loop'>, p: Vec): boolean =>
  isWithin(p, boxOfPath(loop)) && windingAt(contoursOf(loop), p) !== 0

/** px squared, whichever way a loop goes round. */
export const areaOf = remembered((loop: Path): number => Math.abs(areaOfCubics(contoursOf(loop)[0]!)))
