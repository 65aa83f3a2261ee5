// Serves the built application, on this machine alone unless HOST says otherwise.
import { fileURLToPath } from 'node:url'

const server = new URL('../.output/server/index.mjs', import.meta.url)
process.env.HOST ??= '127.0.0.1'
process.env.NITRO_HOST ??= process.env.HOST
// Where the server finds itself, for the second process that takes what is heavy.
process.env.BELLATRAIT_SERVER = fileURLToPath(server)
await import(server.href)
