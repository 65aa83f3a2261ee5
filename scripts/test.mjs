// Everything that must hold before a change lands, from a clean clone.
import { build, installChromium, installPackages, run } from './setup.mjs'

installChromium()
await installPackages([
  ['Lint', 'npm', ['run', '--silent', 'lint']],
  ['Types', 'npx', ['--no-install', 'vue-tsc', '-b', '--noEmit']],
])
// The server tests and the browser tests drive the built application.
await build()
run('Unit and server tests', 'npx', ['--no-install', 'vitest', 'run', '--project', 'unit', '--project', 'server'])
run('Browser tests', 'npx', ['--no-install', 'playwright', 'test'])
console.log('\nAll checks passed.')
