// Everything that must hold before a change lands, from a clean clone.
import { build, installChromium, installPackages, run } from './setup.mjs'

installChromium()
await installPackages([
  ['Lint', 'npm', ['run', '--silent', 'lint']],
  ['Types', 'npx', ['--no-install', 'vue-tsc', '-b', '--noEmit']],
])
await build([['Unit tests', 'npx', ['--no-install', 'vitest', 'run', '--project', 'unit']]])
// These drive the built application.
run('Server tests', 'npx', ['--no-install', 'vitest', 'run', '--project', 'server'])
run('Browser tests', 'npx', ['--no-install', 'playwright', 'test'])
console.log('\nAll checks passed.')
