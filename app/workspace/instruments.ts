import { Blot } from '~/instruments/blot'
import { Bow } from '~/instruments/bow'
import { Caliper } from '~/instruments/caliper'
import { Contact } from '~/instruments/contact'
import { Figure } from '~/instruments/figure'
import { Freehand } from '~/instruments/freehand'
import { Inspect } from '~/instruments/inspect'
import type { Worktop, Instrument } from '~/instruments/instrument'
import { Light } from '~/instruments/light'
import { Match } from '~/instruments/match'
import { Nodes } from '~/instruments/nodes'
import { OutlineNodes } from '~/instruments/outline-nodes'
import { Pen } from '~/instruments/pen'
import { PlaceSketch } from '~/instruments/place-sketch'
import { Practice } from '~/instruments/practice'
import { Scrape } from '~/instruments/scrape'
import { Select } from '~/instruments/select'
import { Snip } from '~/instruments/snip'
import { Sweep } from '~/instruments/sweep'

/** Every instrument by the name that the tray uses. */
export const INSTRUMENTS: Record<string, new (worktop: Worktop) => Instrument> = {
  select: Select,
  pen: Pen,
  bow: Bow,
  freehand: Freehand,
  nodes: Nodes,
  figure: Figure,
  snip: Snip,
  blot: Blot,
  scrape: Scrape,
  practice: Practice,
  caliper: Caliper,
  contact: Contact,
  light: Light,
  sweep: Sweep,
  match: Match,
  place: PlaceSketch,
  inspect: Inspect,
  outline: OutlineNodes,
}

/** Instruments that work on the derived outlines rather than on the lines. */
export const ON_OUTLINES: readonly string[] = ['outline']
