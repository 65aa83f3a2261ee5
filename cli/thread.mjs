// A thread has to be told how TypeScript is read.
import { register } from 'tsx/esm/api'

register()
await import('./thread.ts')
