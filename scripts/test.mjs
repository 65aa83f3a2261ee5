// Everything that must hold before a change lands, from a clean clone.
import { build, installChromium, installPackages, run } from './setup.mjs'

installPackages()
installChromium()
run('Lint', 'npm', ['run', '--silent', 'lint'])
run('Types', 'npx', ['--no-install', 'nuxt', 'typecheck'])
// The server tests and the browser tests drive the built application.
build()
run('Unit and server tests', 'npx', ['--no-install', 'vitest', 'run', '--project', 'unit', '--project', 'server'])
run('Browser tests', 'npx', ['--no-install', 'playwright', 'test'])
console.log('\nAll checks passed.')
