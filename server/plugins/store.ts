import { defineNitroPlugin, useStorage } from 'nitropack/runtime'
import { emptyOldBin } from '../database/bin'
import { startStore, store } from '../database/store'
import { beLane, endLane, hasLane, isLane, laneAtHand } from '../lane/lane'
import { sweepFolders } from '../delivery/own-folder'
import { whyUnopened } from '../http/database-trouble'

/** How often the bin is looked at, ms. */
const BIN_EVERY = 6 * 60 * 60 * 1000

export default defineNitroPlugin((nitro) => {
  const files = useStorage('assets:migrations')
  const migrations = files
    .getKeys()
    .then((names) => Promise.all(names.map(async (name) => ({ name, sql: String(await files.getItem(name)) }))))
  startStore(migrations)
  store().catch((e: unknown) => {
    console.error(`Bellatrait could not start: ${whyUnopened(e)}`)
    process.exit(1)
  })
  // The lane comes once the database is known to be one that can be used.
  store().then(
    () => (isLane() ? beLane() : void laneAtHand()),
    () => undefined,
  )
  // What has lain in the bin for its days is thrown away, at start and now and then: by the lane, where there is one.
  const sweep = (): void =>
    void store()
      .then((opened) => emptyOldBin(opened, new Date()))
      .catch((e: unknown) => console.error('The bin could not be emptied:', e))
  if (!hasLane()) {
    sweep()
    sweepFolders()
  }
  const timer = hasLane() ? undefined : setInterval(sweep, BIN_EVERY).unref()
  nitro.hooks.hook('close', async () => {
    clearInterval(timer)
    endLane()
    ;(await store()).connection.close()
  })
})
