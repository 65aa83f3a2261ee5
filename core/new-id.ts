/** A fresh id, unique across drawings. */
export const newId = (): string => globalThis.crypto.randomUUID()
