import type { Drawing } from '#core/model/model'
import type { PassName } from '~/catalogue/passes'

/** What the guide looks at. */
export interface Seen {
  drawing: Drawing
  /** Passes that were visited while the guide was there. */
  visited: ReadonlySet<PassName>
  delivered: boolean
}

export interface GuideStep {
  id: string
  /** One sentence; `{2}` stands for the key 2. */
  says: string
  done: (seen: Seen) => boolean
}

const lines = ({ drawing }: Seen) => drawing.layers.flatMap((l) => (l.kind === 'lines' ? l.items : []))
const hasSketch = ({ drawing }: Seen): boolean => drawing.layers.some((l) => l.kind === 'sketch' && l.items.length)

/** What a first drawing goes through. A step that is done, by whatever way, is not spoken of. */
export const GUIDE: readonly GuideStep[] = [
  {
    id: 'sketch',
    says: 'Drop a scan of your pencil sketch anywhere here, or press {2} to begin on blank paper.',
    done: (s) => hasSketch(s) || lines(s).length > 0 || s.visited.has('lines'),
  },
  {
    id: 'lines',
    says: 'In Lines ({2}), take the Bow ({e}): drag from one end of an edge to the other, pull it onto the pencil, then press Enter.',
    done: (s) => lines(s).length > 0,
  },
  {
    id: 'more',
    says: 'Lay the next lines the same way; a chord that ends where its chain began closes it. Nodes ({t}) mends what is not right yet.',
    done: (s) => lines(s).length > 2,
  },
  {
    id: 'weight',
    says: 'In Weight ({3}), take the Caliper ({w}) and drag a line apart where it should swell.',
    done: (s) => lines(s).some((l) => l.weight.stops.length > 1 || l.weight.start !== null || l.weight.end !== null),
  },
  {
    id: 'contact',
    says: 'Contact ({r}) gives ends in the open their tapers: look at the proposal, then press Enter.',
    done: (s) => lines(s).some((l) => l.weight.start !== null || l.weight.end !== null),
  },
  {
    id: 'shapes',
    says: 'Shapes ({4}) shows what will leave: where things overlap, Front says which lies before, and Proof lists what is left to look at ({g}).',
    done: (s) => s.visited.has('shapes'),
  },
  {
    id: 'fill',
    says: 'In Fill ({5}), take an ink in hand and click into a region to pour it.',
    done: (s) => (s.drawing.fills?.length ?? 0) > 0,
  },
  { id: 'deliver', says: 'Deliver ({6}): what you see is the file. Download it.', done: (s) => s.delivered },
]

/** The first step that is not done; null when all are. */
export const nextStep = (seen: Seen): { step: GuideStep; at: number } | null => {
  const at = GUIDE.findIndex((s) => !s.done(seen))
  return at < 0 ? null : { step: GUIDE[at]!, at }
}
