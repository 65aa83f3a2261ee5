import { createHash } from 'node:crypto'
import { fileURLToPath } from 'node:url'
import { readMigrations } from '../server/database/migration-files'
import { openStore } from '../server/database/store'
import { shapesOf } from '../core/ink/shapes-of'
import { databaseFile } from '../server/database/recalled'
import { coarseForCard, thumbnailOf } from '../server/render/thumbnail'
import { documentOf, SCENARIO } from './scenario'
import { pencilSketch } from './kit/pencil'
import { defaultPage } from '#core/model/create'

const migrations = fileURLToPath(new URL('../server/database/migrations', import.meta.url))
const file = databaseFile()

/** Puts the drawings of the scenario on the Desk; one that was there before, even if taken off since, stays as it is. */
async function seed(): Promise<void> {
  const { connection, journal, images, thumbnails, seats } = openStore(file, readMigrations(migrations))
  const known = connection.prepare('SELECT 1 FROM drawings WHERE id = ?')
  for (const [i, make] of [...SCENARIO].reverse().entries()) {
    const inked = make()
    const id = `demo-${inked.name.toLowerCase().replaceAll(' ', '-')}`
    if (known.get(id)) continue
    const page = defaultPage()
    const bytes = await pencilSketch(
      inked.layers.flatMap((l) => l.lines),
      page,
      41 + i,
    )
    const sha256 = createHash('sha256').update(bytes).digest('hex')
    images.insert({ sha256, mediaType: 'image/png', width: page.width * 2, height: page.height * 2, bytes })
    const drawing = { ...documentOf(inked, sha256), id }
    journal.create(drawing, { seat: seats.first() })
    thumbnails.keep(id, 0, thumbnailOf(drawing, shapesOf(coarseForCard(drawing))))
    console.log(`Drew ${inked.name}`)
  }
  connection.close()
}

await seed()
