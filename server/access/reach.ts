/** Whether others than this machine can reach the server that listens there, by itself or by a name that is not this machine's. */
export function isReachedByOthers({ NITRO_HOST, HOST, BELLATRAIT_NAMES }: NodeJS.ProcessEnv): boolean {
  const host = NITRO_HOST || HOST || ''
  const isOwn = /^(127(\.\d{1,3}){3}|localhost|::1|\[::1\])$/.test(host)
  return !isOwn || !!BELLATRAIT_NAMES?.trim()
}
