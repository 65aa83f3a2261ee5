import type { Socket } from 'node:net'
import type { Server } from 'node:http'
import { defineNitroPlugin } from 'nitropack/runtime'

/** So long a connection at rest stays open, ms: longer than clients and proxies keep theirs, which then close it themselves. */
const LONGEST_REST = 75_000

/** A connection that is closed from here meets, now and then, the next request on its way, which then fails. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('request', ({ node }) => {
    const { server } = node.req.socket as Socket & { server?: Server }
    if (server) server.keepAliveTimeout = LONGEST_REST
  })
})
