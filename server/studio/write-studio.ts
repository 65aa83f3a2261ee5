import type { Drawing } from '#core/model/model'
import { withWholeTraces } from '#core/document/traces-apart'
import type { ArchiveFile } from '../../core/formats/archive/zip'
import { zipped } from '../../core/formats/archive/zip'
import { fileNameOf } from '../../core/formats/file-name'
import { LIST_NAMES } from '../../core/formats/studio/belongings'
import { writeSvg } from '../../core/formats/svg/write-svg'
import type { Seat } from '../../shared/seats'
import type { StudioKind } from '../../shared/studio-file'
import type { Store } from '../database/store'
import { ABOUT, STUDIO_FORM } from './content'

const text = (path: string, content: string): ArchiveFile => ({ path, bytes: new TextEncoder().encode(content) })
const ENDINGS: Readonly<Record<string, string>> = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp' }

/** What belongs to a seat, as one archive in pieces: lists as JSON, templates as documents and as live SVG, with their pictures. */
export function studioFileOf(
  store: Store,
  seat: Seat,
  kinds: ReadonlySet<StudioKind>,
  made: string,
): Generator<Uint8Array> {
  return zipped(files(store, seat, kinds, made))
}

function* files(store: Store, seat: Seat, kinds: ReadonlySet<StudioKind>, made: string): Generator<ArchiveFile> {
  yield text(ABOUT, JSON.stringify({ form: STUDIO_FORM, from: seat.name, made }, null, 1))
  const belongings = store.belongings.read(seat.id)
  for (const list of LIST_NAMES)
    if (kinds.has(list) && belongings.own.includes(list))
      yield text(`${list}.json`, JSON.stringify(belongings[list], null, 1))
  if (kinds.has('profiles')) yield text('profiles.json', JSON.stringify(store.profiles.list(seat.id), null, 1))
  if (kinds.has('templates')) yield* templates(store)
}

/** Templates are the Desk's: whoever takes the file elsewhere has them along. */
function* templates({ journal, traces, images }: Store): Generator<ArchiveFile> {
  const pictures = new Set<string>()
  const cards = journal.drawings.list().filter((c) => c.template)
  for (const [n, card] of cards.entries()) {
    const drawing = withWholeTraces(journal.head(card.id)!.drawing, (hash) => traces.find(hash) ?? undefined)
    const folder = `templates/${String(n + 1).padStart(3, '0')} ${fileNameOf(card.name)}`
    yield text(`${folder}/document.json`, JSON.stringify(drawing))
    yield text(`${folder}/drawing.svg`, writeSvg(drawing, { content: 'lines' }))
    for (const hash of picturesOf(drawing)) pictures.add(hash)
  }
  for (const hash of [...pictures].sort()) {
    const image = images.find(hash)
    if (image) yield { path: `pictures/${hash}.${ENDINGS[image.mediaType] ?? 'bin'}`, bytes: image.bytes, packed: true }
  }
}

/** Hashes of the pictures that a drawing shows. */
const picturesOf = (drawing: Drawing): string[] =>
  drawing.layers.flatMap((l) => (l.kind === 'sketch' ? l.items.map((i) => i.image) : []))
