import type { AccessTable } from '../database/access'
import { hashed, isPass, LONGEST_PASS, SHORTEST_PASS } from './passphrase'
import { isReachedByOthers } from './reach'

let state: 'not known yet' | 'open' | 'locked' = 'not known yet'

/** Whether whoever comes has to name the passphrase first. */
export const isLocked = (): boolean => state === 'locked'

/** Whether nobody has to. */
export const isOpen = (): boolean => state === 'open'

/** Lets everybody in who comes: somebody else has looked at them. */
export const leaveOpen = (): void => void (state = 'open')

/** Why a server cannot start, as a sentence for whoever starts it. */
export class NoPassphrase extends Error {}

/**
 * Locks the Desk with the passphrase that the server was started with, or with the one of last time, where others can reach it.
 *
 * @throws NoPassphrase where there is none, or one that is no good
 */
export async function lock(access: AccessTable, env: NodeJS.ProcessEnv): Promise<void> {
  const pass = env.BELLATRAIT_PASS ?? ''
  const known = access.read()
  if (pass) {
    if (pass.length < SHORTEST_PASS || pass.length > LONGEST_PASS)
      throw new NoPassphrase(`BELLATRAIT_PASS takes ${SHORTEST_PASS} to ${LONGEST_PASS} letters. Choose another one.`)
    if (!known || !(await isPass(pass, known))) {
      const { salt, hash } = await hashed(pass)
      access.set(salt, hash)
    }
  } else if (isReachedByOthers(env) && !known)
    throw new NoPassphrase(
      'other machines could reach every drawing here. Put a passphrase of at least eight letters into BELLATRAIT_PASS, or let HOST be 127.0.0.1 and BELLATRAIT_NAMES empty.',
    )
  state = pass || isReachedByOthers(env) ? 'locked' : 'open'
}
