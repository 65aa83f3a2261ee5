import { defineNitroPlugin, useStorage } from 'nitropack/runtime'
import { startStore, store } from '../database/store'

export default defineNitroPlugin((nitro) => {
  const files = useStorage('assets:migrations')
  const migrations = files.getKeys().then((names) =>
    Promise.all(names.map(async (name) => ({ name, sql: String(await files.getItem(name)) }))),
  )
  startStore(migrations)
  store().catch((e: unknown) => {
    console.error('The database could not be opened:', e)
    process.exit(1)
  })
  nitro.hooks.hook('close', async () => {
    ;(await store()).connection.close()
  })
})
