/** Put in as the application is built: a digest of the core's code; empty while it is developed. */
declare const __ENGINE_VERSION__: string

/** The version of the engine, or empty: what another one worked out is not read. */
export const ENGINE_VERSION = __ENGINE_VERSION__
