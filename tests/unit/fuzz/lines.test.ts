import { fuzzLines } from '../support/fuzz-lines'

// Thousands more are in `npm run soak`.
fuzzLines(1, 1500)
