import { short } from '#core/geometry/path'

/** A size in kB or MB, as people read it. */
export const inBytes = (bytes: number): string =>
  bytes < 1024 ** 2 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${short(bytes / 1024 ** 2, 1)} MB`
