import { fuzzLines } from '../support/fuzz-lines'

fuzzLines(1, 3000)
