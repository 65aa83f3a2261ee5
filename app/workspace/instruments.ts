import { Caliper } from '~/instruments/caliper'
import { Freehand } from '~/instruments/freehand'
import { Inspect } from '~/instruments/inspect'
import type { Bench, Instrument } from '~/instruments/instrument'
import { Nodes } from '~/instruments/nodes'
import { Pen } from '~/instruments/pen'
import { PlaceSketch } from '~/instruments/place-sketch'
import { Select } from '~/instruments/select'

/** Every instrument by the name that the tray uses. */
export const INSTRUMENTS: Record<string, new (bench: Bench) => Instrument> = {
  select: Select,
  pen: Pen,
  freehand: Freehand,
  nodes: Nodes,
  caliper: Caliper,
  place: PlaceSketch,
  inspect: Inspect,
}
