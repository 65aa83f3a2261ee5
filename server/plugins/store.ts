import { defineNitroPlugin, useStorage } from 'nitropack/runtime'
import { emptyOldBin } from '../database/bin'
import { startStore, store } from '../database/store'
import { beLane, endLane, endWithParent, hasLane, isLane, laneAtHand } from '../lane/lane'
import { leaveOpen, lock, NoPassphrase } from '../access/lock'
import { sweepFolders } from '../delivery/own-folder'
import { whyUnopened } from '../http/database-trouble'

/** How often the bin is looked at, ms. */
const BIN_EVERY = 6 * 60 * 60 * 1000

export default defineNitroPlugin((nitro) => {
  if (isLane()) endWithParent()
  const files = useStorage('assets:migrations')
  const migrations = files
    .getKeys()
    .then((names) => Promise.all(names.map(async (name) => ({ name, sql: String(await files.getItem(name)) }))))
  // While it is developed it listens on this machine alone.
  const env = import.meta.dev ? { HOST: '127.0.0.1', ...process.env } : process.env
  // Whatever comes to the lane was let in by the server before it.
  startStore(migrations, async ({ access }) => (isLane() ? leaveOpen() : lock(access, env)))
  store().catch((e: unknown) => {
    console.error(`Bellatrait could not start: ${e instanceof NoPassphrase ? e.message : whyUnopened(e)}`)
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
