import { defineNitroPlugin } from 'nitropack/runtime'
import { emptyOldBin } from '../database/bin'
import { store } from '../database/store'

/** How often the bin is looked at, ms. */
const EVERY = 6 * 60 * 60 * 1000

/** What has lain in the bin for its days is thrown away, at start and now and then. */
export default defineNitroPlugin((nitro) => {
  const sweep = (): void => void store().then((opened) => emptyOldBin(opened, new Date())).catch((e: unknown) => console.error('The bin could not be emptied:', e))
  sweep()
  const timer = setInterval(sweep, EVERY)
  timer.unref()
  nitro.hooks.hook('close', () => clearInterval(timer))
})
