import type { Drawing } from '../model/model'
import { isImage } from '../model/image-ids'
import { seenLines } from '../model/queries'
import { distance } from '../geometry/point'
import type { EndContact } from '../relations/end-contacts'
import { asSeen, isInSight, isUnseen } from '../ink/front/as-seen'
import type { InkSession } from '../ink/open-ink'
import { openInk } from '../ink/open-ink'
import { dataCode } from '../recall/text-code'
import { atOnce, scaled } from '../turns'
import { bluntEnds } from './blunt'
import { lumps, notches } from './bumps'
import { doubledLines } from './doubled'
import type { Finding, FindingKind, Proofed } from './finding'
import { LIMITS } from './finding'
import { gaps } from './gaps'
import { pastLines, pokes } from './past'
import { openRegions, paperSlivers } from './regions'
import { strayInks } from './stray'
import { failedItems, hiddenLines, offPage, specks } from './unseen'
import { joinedFills, waiting } from './waiting'
import { strongContrasts, thinLines } from './widths'

/** The look of each kind. */
const LOOKS: Record<FindingKind, (p: Proofed) => Finding[]> = {
  failed: failedItems,
  blunt: bluntEnds,
  gap: gaps,
  past: pastLines,
  poke: pokes,
  thin: thinLines,
  contrast: strongContrasts,
  doubled: doubledLines,
  hidden: hiddenLines,
  speck: specks,
  off: offPage,
  stray: strayInks,
  sliver: paperSlivers,
  open: openRegions,
  lump: lumps,
  notch: notches,
  waiting,
  joined: joinedFills,
}

/** The share of the work that the ink is, as it is told. */
const INKED = 0.5
/** The share that shapes are, where they must be made. */
const SHAPED = 0.4
/** A lump so near to an end that goes past a line is that end, mm. */
const TOLD = 2.5

/** All that there is to look at in the drawing of a session, by kind; what the person has left as it is, too. Yields shares done. */
export const findingsIn = (session: InkSession): Generator<number, Finding[]> =>
  session.whole('findings', FINDINGS, () => findIn(session))

const FINDINGS = dataCode<Finding[]>()

function* findIn(session: InkSession): Generator<number, Finding[]> {
  const { drawing } = session
  const { stack, ends } = yield* scaled(session.ground(), 0, INKED)
  // Whether amendments of outlines find their place, only the shapes can tell.
  const amendsOutlines = (drawing.amendments ?? []).some(
    (a) => a.kind === 'retouch' || a.kind === 'fineness' || a.kind === 'front',
  )
  const waits = new Set(amendsOutlines ? (yield* scaled(session.shapes(), INKED, SHAPED)).waits : [])
  const { poured } = yield* session.fills()
  const limits = { ...LIMITS, ...drawing.settings.proof }
  const { pxPerMm } = drawing.page
  const paper = yield* scaled(session.paper(0), INKED, SHAPED)
  const bridged = limits.open > 0 ? yield* session.paper(limits.open * pxPerMm) : paper
  const byId = new Map(seenLines(drawing).map((l) => [l.id, l]))
  const inSight = new Map<string, readonly EndContact[]>()
  const proofed: Proofed = {
    drawing,
    stack,
    ends: {
      of: (id) => {
        if (!stack.inFront.size) return ends.of(id)
        let known = inSight.get(id)
        if (!known) inSight.set(id, (known = ends.of(id).filter((c) => isInSight(c, stack.inFront, byId))))
        return known
      },
    },
    failed: session.failed(),
    waits,
    paper,
    bridged,
    poured,
    lines: seenLines(drawing)
      .map((l) => asSeen(l, stack.inFront.get(l.id)))
      .filter((l) => !isUnseen(l) || !stack.behindForms.has(l.id)),
    limits,
    pxPerMm,
  }
  const found: Finding[] = []
  const looks = Object.values(LOOKS)
  for (const [i, look] of looks.entries()) {
    yield INKED + SHAPED + ((1 - INKED - SHAPED) * i) / looks.length
    found.push(...look(proofed))
  }
  // An end with a gap before it is not in the open.
  const short = new Set(found.flatMap((f) => (f.mend?.do === 'meet' ? [`${f.mend.line} ${f.mend.end}`] : [])))
  // What an end does that goes past a line, or pokes out, is told once.
  const poking = found.filter((f) => f.kind === 'past' || f.kind === 'poke')
  const isTold = (f: Finding): boolean =>
    f.kind === 'lump' && poking.some((p) => f.items.includes(p.items[0]!) && distance(p.at, f.at) < TOLD * pxPerMm)
  const dirt = new Set(found.flatMap((f) => (f.kind === 'speck' || f.kind === 'doubled' ? [f.items[0]!] : [])))
  // What stands there because lines are mirrored or repeated is told of where they were drawn.
  const isTwin = ({ items }: Finding): boolean => items.length > 0 && items.every(isImage)
  return found.filter(
    (f) =>
      !isTwin(f) &&
      !isTold(f) &&
      !(f.mend?.do === 'taper' && short.has(`${f.mend.line} ${f.mend.end}`)) &&
      !((f.kind === 'blunt' || f.kind === 'thin') && dirt.has(f.items[0]!)),
  )
}

/** What there is to look at in a drawing, less what the person has left as it is. */
export const findingsOf = (drawing: Drawing): Finding[] => [
  ...openFindings(drawing, atOnce(findingsIn(openInk(drawing)))),
]

/** Findings that were not left as they are; the very list where none was. */
export function openFindings(
  { amendments }: Pick<Drawing, 'amendments'>,
  findings: readonly Finding[],
): readonly Finding[] {
  if (!amendments?.some((a) => a.kind === 'leave')) return findings
  const left = new Set(amendments.flatMap((a) => (a.kind === 'leave' ? [a.key] : [])))
  return findings.filter((f) => !left.has(f.key))
}
