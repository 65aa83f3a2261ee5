import { DELIVER_USAGE, deliver } from './deliver'
import { EXPAND_USAGE, expand } from './expand'

/** Runs the command line; answers the exit code: 0 done, 1 some input failed, 2 wrong usage. */
export async function main([command, ...rest]: string[]): Promise<number> {
  if (command === 'expand') return expand(rest)
  if (command === 'deliver') return deliver(rest)
  process.stderr.write(`The first word must be "expand" or "deliver".\n${EXPAND_USAGE}${DELIVER_USAGE}`)
  return 2
}

process.exitCode = await main(process.argv.slice(2))
