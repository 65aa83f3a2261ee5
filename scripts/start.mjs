// Serves the built application, on this machine alone unless HOST says otherwise.
process.env.HOST ??= '127.0.0.1'
process.env.NITRO_HOST ??= process.env.HOST
await import('../.output/server/index.mjs')
